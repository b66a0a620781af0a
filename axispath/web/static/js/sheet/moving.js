// @ts-check
/** What moves under the hand: shown at once from edits that are not made yet, proved when it rests. */

import { short } from "./view.js";

const FOLLOW = 90; // between two landmark scans while something moves
const LISTS = 450; // and between two lists of them, and tables

export class Moving {
  /** @param {import("./instrument.js").Instrument} at */
  constructor(at) {
    this.at = at;
  }

  /** A slider has moved: what it moves follows at once, proofs when it rests. */
  slide() {
    this.at.preview = this.at.sliders.edits();
    this.at.asking.picture();
    this.at.trails.pass(this.at.preview);
    this.at.events.tell("trails", this.at.trails.states.length > 0);
    this.at.timers.throttled("follow", FOLLOW, () => {
      this.at.events.tell("sliding", "often");
      return this.at.asking.path({ moving: true, page: false });
    });
    this.at.timers.throttled("lists", LISTS, () => {
      this.at.events.tell("sliding", "lists");
      return this.at.asking.path({ moving: true });
    });
  }

  /** Steps by keys wait for the hand to rest: what is dragged next must not be overtaken by them. @param {any[]} edits */
  show(edits) {
    this.at.sliders.keepNow();
    this.at.preview = edits;
  }

  /** @param {string} id @param {string} end @param {number} value */
  dragBracket(id, end, value) {
    this.dragEnd(id, end, short(value, 1e-12));
  }

  /** An end of a domain or a range is dragged. @param {string} id @param {string} end @param {string} text */
  dragEnd(id, end, text) {
    this.at.lanes.preview(id, end, text);
    this.show([{ do: "set domain", id, [end]: text }]);
    this.at.drawStrips(this.at.plot.lanes);
    this.at.asking.picture();
    this.at.timers.throttled("follow", FOLLOW, () => this.at.asking.path({ moving: true, page: false }));
  }

  /** A row of a data set is taken elsewhere, and fits follow. @param {string} id @param {number} row @param {{x: number, y: number}} to @param {boolean} done */
  moveRow(id, row, { x, y }, done) {
    const edits = [{ do: "move row", id, row, x, y }];
    if (done) {
      this.at.session.change({ edits });
      return;
    }
    this.show(edits);
    this.at.asking.picture();
    this.at.timers.throttled("follow", FOLLOW, () => this.at.asking.path({ moving: true, page: false }));
    this.at.timers.throttled("lists", LISTS, () => this.at.events.tell("sliding", "lists"));
  }

  /** Points that move along curves, as a picture shows them. @param {Record<string, {words: string, at: number}>} told */
  tellMoving(told) {
    for (const [id, { words, at }] of Object.entries(told)) {
      this.at.sliders.showAt(id, at, words);
    }
  }

  /** The point of a curve is taken along it. @param {string} id @param {number} x @param {number} y */
  moveAlong(id, x, y) {
    this.show([{ do: "move along", id, x, y }]);
    this.at.asking.picture();
    this.at.timers.throttled("follow", FOLLOW, () => this.at.asking.path({ moving: true, page: false }));
  }

  /** The points of curves with a parameter of this name are put to a value of it. @param {string} letter @param {number} value */
  putAlong(letter, value) {
    const edits = this.at.plot.shown().filter((lane) => lane.strip === "curve" && lane.variable === letter).map(({ id }) => ({ do: "slide", id, value }));
    if (edits.length) this.at.session.change({ edits });
  }

  /** A point is somewhere else already, before the server says so. @param {string} id @param {number} x @param {number} y */
  placePoint(id, x, y) {
    this.at.plot.lanes = this.at.plot.lanes.map((lane) => (lane.id === id ? { ...lane, places: [[x, y]] } : lane));
  }

  /** A point moves under the hand, and what depends on it follows. @param {string} id @param {number} x @param {number} y */
  movePoint(id, x, y) {
    this.placePoint(id, x, y);
    this.show([{ do: "move point", id, x, y }]);
    this.at.redraw();
    this.at.asking.picture();
    this.at.timers.throttled("follow", FOLLOW, () => this.at.asking.path({ moving: true, page: false }));
  }
}
