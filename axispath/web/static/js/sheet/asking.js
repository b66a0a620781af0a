// @ts-check
/** What the page asks the server by itself: pictures, landmarks, exact forms, points of tables. */

import { Trouble, aboutPicture, fetchPicture, send, wantedPicture } from "./api.js";
import { FURTHER, LATE, MOST_ASKED, Queue, Standing, quietly } from "./queue.js";
import { Timers } from "./throttle.js";

const REST = 110; // ms without movement after which a path is asked for
const EXACT = 220; // and exact forms, which may take longer

/** @typedef {import("./instrument.js").Instrument} Instrument */
/** @typedef {{moving?: boolean, page?: boolean}} How */

export class Asking {
  /** @param {Instrument} at */
  constructor(at) {
    this.at = at;
    this.pictures = new Queue();
    this.paths = new Queue();
    this.exacts = new Queue();
    this.slows = new Queue();
    this.looked = new Standing();
    // Curves that are on their way come before all that is found on them.
    for (const queue of [this.pictures, this.paths]) queue.run(() => at.coming);
    this.timers = new Timers();
    /** Of which turn of the hand the picture on the plot is. */
    this.shown = 0;
    /** Whether what is shown was searched further, so that copies and files hold all of it. */
    this.lookedFurther = false;
    /** The part of the axis that landmarks are looked for on, as typed, and how they are listed. */
    this.only = { low: "", high: "", along: false, unfolded: /** @type {string[]} */ ([]) };
  }

  picture() {
    const { plot, session } = this.at;
    const { width, height } = plot.size;
    if (!width || !height) return;
    this.pictures.run(async () => {
      const preview = [...this.at.preview, ...this.at.temporary.edits];
      const wanted = wantedPicture(session.state.head, plot, preview);
      const about = aboutPicture(session.key, wanted);
      const { turn } = this.at.moving;
      // What begins and what is resized ask for the same.
      if (plot.picture?.about === about && !plot.picture.cut.length) return;
      await quietly(async () => {
        const found = await fetchPicture(session.key, wanted);
        // One of a later place of the hand is shown already.
        if (turn < this.shown) return;
        plot.picture = { ...found, shows: preview, about };
        this.shown = turn;
        plot.ask();
        this.at.moving.tellMoving(plot.picture.told);
        this.tellSlow(plot.picture.cut, "longer to draw …");
        this.timers.stop("slow");
        if (plot.picture.cut.length) this.timers.later("slow", REST, () => this.slowPicture(wanted));
      });
    });
  }

  /** Lanes whose time was cut, once nothing moves: they get more of it, and the others are not held up. @param {object} wanted */
  slowPicture(wanted) {
    const { plot, session } = this.at;
    const { picture } = plot;
    if (!picture?.cut.length) return;
    this.slows.run(() =>
      quietly(async () => {
        const found = await fetchPicture(session.key, { ...wanted, patient: true, only: picture.cut });
        if (plot.picture !== picture) return;
        for (const [id, shapes] of found.shapes) picture.shapes.set(id, shapes);
        this.tellSlow(found.cut, "too long to draw, and the time was cut. A narrower domain or a simpler formula helps.");
        plot.ask();
      }),
    );
  }

  /** @param {string[]} ids @param {string} what */
  tellSlow(ids, what) {
    const names = ids.map((id) => this.at.plot.lane(id)?.name).filter(Boolean);
    const verb = names.length === 1 ? "takes" : "take";
    const more = names.length > 5 ? ` and ${names.length - 5} more` : "";
    this.at.events.tell("slow", names.length ? `${names.slice(0, 5).join(", ")}${more} ${verb} ${what}` : "");
  }

  /** What a search for landmarks is about. @param {object} [more] */
  search(more = {}) {
    const { session, plot, preview } = this.at;
    return { head: session.state.head, view: plot.view, preview, ...this.only, ...more };
  }

  /** The landmarks of one more lane are to be listed. @param {string} id */
  unfold(id) {
    this.only.unfolded.push(id);
    this.path();
  }

  /** What copies and files are to hold. */
  searchShown() {
    return this.search({ longer: this.lookedFurther });
  }

  /** @param {How} how */
  path(how = {}) {
    const { events, session } = this.at;
    // What waited for its turn while something moved comes too late once all of it is proved.
    if (how.moving && !this.at.preview.length) return undefined;
    // Whatever is asked now, what was to be searched further is another question.
    const stands = this.looked.ask();
    this.timers.stop("further");
    const asked = this.paths.run(async () => {
      try {
        const path = await send("POST", `/api/sheets/${session.key}/path`, this.search(how));
        this.lookedFurther = false;
        this.at.showPaths(path, how.moving);
        events.tell("searched", "");
        if (path.goesOn && stands()) this.timers.later("further", FURTHER, () => this.further(stands));
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (trouble.kind === "refused") events.tell("searched", trouble.message);
      }
    });
    if (!how.moving) this.timers.later("exact", EXACT, () => this.exact({}, stands));
    return asked;
  }

  /** Paths once nothing moves. @param {() => void} also */
  pathAtRest(also) {
    this.timers.later("path", REST, () => {
      // The landmarks of very many lanes take their time, which the hand would feel.
      if (this.at.plot.isHeavy && this.at.plot.underHand) {
        this.pathAtRest(also);
        return;
      }
      this.path();
      also();
    });
  }

  /** What is still open, while nothing else is asked. @param {() => boolean} stands */
  further(stands) {
    const longer = { longer: true };
    return quietly(async () => {
      const path = await send("POST", `/api/sheets/${this.at.session.key}/path`, this.search(longer));
      if (!stands()) return;
      this.lookedFurther = true;
      this.at.showPaths(path);
      this.timers.later("exact", EXACT, () => this.exact(longer, stands));
    });
  }

  /** Exact forms; asked again while some are still being found. @param {object} how @param {() => boolean} stands @param {number} [again] */
  exact(how, stands, again = MOST_ASKED) {
    this.exacts.run(() =>
      quietly(async () => {
        if (!stands()) return;
        const told = await this.at.landmarks.askExact(this.search(how), stands);
        if (told.late && again && stands()) this.timers.later("exact", LATE, () => this.exact(how, stands, again - 1));
      }),
    );
  }

  /** Rows of tables as points on the plot. */
  async points() {
    const { plot, session, sliders } = this.at;
    if (!session.state.tables.some((/** @type {any} */ table) => table.points)) {
      plot.points = [];
      return;
    }
    await quietly(async () => {
      plot.points = await send("POST", `/api/sheets/${session.key}/values/points`, { head: session.state.head, preview: sliders.edits(), view: plot.view });
      plot.ask();
    });
  }
}
