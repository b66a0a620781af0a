// @ts-check
/** What moves under the hand: shown at once from edits that are not made yet; all is proved when it rests. */

import { Ahead } from "./ahead.js";
import { fetchFrames, fetchMarks } from "./api.js";
import { short } from "./view.js";

const FOLLOW = 90; // between two landmark scans while something moves
const REST = 100; // without a move, after which everything is to be of just this place
const LISTS = 450; // and between two lists of them, and tables

export class Moving {
  /** @param {import("./instrument.js").Instrument} at */
  constructor(at) {
    this.at = at;
    this.frames = new Ahead(at, {
      fetch: async (states) => {
        const { plot, session, temporary } = at;
        const wanted = { head: session.state.head, view: plot.view, ...plot.size, preview: temporary.edits, states };
        return (await fetchFrames(session.key, wanted)).map((picture, k) => ({ ...picture, shows: states[k] }));
      },
      weigh: (picture) => [...picture.shapes.values()].flat().reduce((sum, { rows }) => sum + rows.length, 0),
      arrived: () => this.arrived(),
      kept: 6e6,
      beats: 1,
      first: 12,
      most: 32,
      running: 3,
    });
    this.marks = new Ahead(at, {
      fetch: async (states) => {
        const wanted = { ...at.asking.search(), preview: at.temporary.edits, states };
        return fetchMarks(at.session.key, wanted);
      },
      weigh: () => 1,
      arrived: () => this.arrived(),
      kept: 2000,
      beats: 3,
      first: 8,
      most: 24,
      running: 1,
    });
    /** The landmarks that are shown, where they were asked for ahead. @type {object | null} */
    this.marked = null;
    /** Counts what has moved, so that no picture takes the place of a later one. */
    this.turn = 0;
    /** Whether sliders move, and the picture on the plot may be one that was asked for ahead. */
    this.sliding = false;
  }

  /** A slider has moved: what it moves follows at once, proofs when it rests. */
  slide() {
    this.at.preview = this.at.sliders.edits();
    this.turn += 1;
    this.sliding = true;
    this.follow();
    this.at.timers.later("rest", REST, () => this.arrived());
    this.at.trails.pass(this.at.preview);
    this.at.events.tell("trails", this.at.trails.states.length > 0);
    this.at.timers.throttled("follow", FOLLOW, () => this.at.events.tell("sliding", "often"));
    this.at.timers.throttled("lists", LISTS, () => {
      this.at.events.tell("sliding", "lists");
      return this.at.asking.path({ moving: true });
    });
  }

  /** The picture of now, where it is known; what comes next is asked for, and with it that of now where it is not. */
  follow() {
    const { sliders, preview } = this.at;
    const slides = /** @type {import("./ahead.js").Slide[]} */ (preview);
    const beside = sliders.beside();
    const near = [undefined, ...beside].find((place) => this.frames.find(place?.slides ?? slides));
    const found = this.frames.find(near?.slides ?? slides);
    if (found) {
      this.put(found);
      sliders.seen(near);
    }
    if (!this.frames.foresee(slides) && !found) this.at.asking.picture();
    const marks = this.marks.find(slides, [...beside.map((place) => place.slides), ...sliders.passed()]);
    if (marks && marks !== this.marked) {
      this.marked = marks;
      this.at.showMarks(marks);
    }
    this.marks.foresee(slides);
  }

  /** Whether the picture of a state is there. @param {import("./ahead.js").Slide[]} slides */
  ready(slides) {
    return this.frames.find(slides) !== null;
  }

  /** What is to come is asked for before anything moves. */
  foresee() {
    this.frames.foresee([]);
    this.marks.foresee([]);
  }

  /** The sheet itself is another: what is asked for ahead is no longer what shows. */
  rest() {
    this.turn += 1;
    this.sliding = false;
    this.marked = null;
  }

  /** Pictures have arrived that were asked for ahead. */
  arrived() {
    if (this.sliding) this.follow();
  }

  /** @param {import("../drawing/plot.js").Picture} picture */
  put(picture) {
    const { plot, asking } = this.at;
    if (plot.picture === picture) return;
    plot.picture = picture;
    asking.shown = this.turn;
    plot.ask();
    this.tellMoving(picture.told);
    asking.tellSlow(picture.cut, "longer to draw …");
  }

  /** Steps by keys wait for the hand to rest: what is dragged next must not be overtaken by them. @param {any[]} edits */
  show(edits) {
    this.at.sliders.keepNow();
    this.at.preview = edits;
    this.rest();
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
