// @ts-check
/**
 * One open sheet: holds what is not bound to the page (session, plot, lanes, strips, sliders,
 * trails, landmarks), and lets its parts tell one another. Knows nothing of the components.
 */

import { Landmarks } from "../desk/landmarks.js";
import { markAt } from "../drawing/marks.js";
import { plot as drawn } from "../first.js";
import { showOwnColours } from "../drawing/style.js";
import { Trails } from "../drawing/trails.js";
import { Divider } from "../hand/divide.js";
import { listen } from "../hand/gestures.js";
import { Lanes } from "../lanes/lanes.js";
import { Points } from "../lanes/points.js";
import { Sliders } from "../lanes/sliders.js";
import { Alongs } from "../lanes/alongs.js";
import { Strips } from "../lanes/strips.js";
import { Asking } from "./asking.js";
import { Events } from "./events.js";
import { byId, heldPart } from "./focus.js";
import { listenToPrinting } from "./printing.js";
import { Moving } from "./moving.js";
import { Session, read, write } from "./session.js";
import { Timers } from "./throttle.js";
import { short } from "./view.js";

const FRAME = 16; // ms between two drawings of all that moves with the view; longer where they take long
const STRIPS = 150; // ms between two drawings of the strips while something moves
const REST = 110; // ms without movement after which trails are asked for
const HEAVY_REST = 500; // and very many curves

/** @typedef {import("./internal.js").State} State */
/** @typedef {import("./internal.js").Temporary} Temporary */
/** @typedef {import("./session.js").Change} Change */
/** @typedef {import("./view.js").View} View */

export class Instrument {
  /** @param {import("./internal.js").Start} start @param {Promise<void>} coming until the curves are there that the page did not bring */
  constructor(start, coming) {
    this.start = start;
    this.coming = coming;
    this.events = new Events();
    this.timers = new Timers();
    /** What parts of the page can be told to do, by a name: keys and buttons elsewhere do it. @type {Record<string, (...given: any[]) => void>} */
    this.acts = {};
    /** What moves now, as edits that are not made yet. @type {object[]} */
    this.preview = [];
    /** Lanes that are on the plot for a while. @type {Temporary} */
    this.temporary = { edits: [], lanes: [] };
    /** A file of the server, which may take long; null where it was given up. @type {(words: string, path: string, body: unknown) => Promise<Blob | null>} */
    this.made = async () => null;
    /** What was found last. @type {import("./internal.js").Paths} */
    this.found = { lanes: [], crossings: [], landmarks: null, explanation: "", canFrame: false, words: "", settled: "", goesOn: false };
    /** The page of the desk that is shown. */
    this.page = "landmarks";
    this.plot = drawn;
    this.fitted = false;
    this.lanes = new Lanes(byId("lanes"), {
      edit: (edit) => this.session.change({ edits: [edit] }),
      key: () => this.session.key,
      play: (id) => this.sliders.toggle(id),
      frame: (id) => this.act("frame", id),
      surface: (id) => this.act("surface", id),
      data: (id) => this.act("data", id),
      "make data": (id) => this.act("make data", [id]),
    });
    this.trails = new Trails(this.plot, {
      key: () => this.session.key,
      head: () => this.session.state.head,
      slow: (ids) => ids.length && this.asking.tellSlow(ids, "too long to draw in every state, so trails of it are missing."),
    });
    this.sliders = new Sliders(byId("lanes"), {
      width: () => this.plot.size.width,
      move: () => this.moving.slide(),
      coming: () => this.moving.foresee(),
      ready: (slides) => this.moving.ready(slides),
      waiting: () => this.session.waiting.length > 0,
      settle: (slides) => {
        this.trails.keep();
        this.session.change({ edits: slides.map((slide) => ({ do: "slide", ...slide })) });
      },
    });
    this.strips = new Strips(byId("lanes"), this.plot, {
      preview: (id, end, value) => this.moving.dragBracket(id, end, value),
      settle: (id, end, value) => this.session.change({ edits: [domainEdit(id, end, value)] }),
    });
    this.alongs = new Alongs(byId("lanes"), this.plot, this.strips, {
      degrees: () => this.session.state.unit === "deg",
      preview: (id, end, text) => this.moving.dragEnd(id, end, text),
      settle: (id, end, text) => this.session.change({ edits: [{ do: "set domain", id, [end]: text }] }),
    });
    this.points = new Points(byId("lanes"), this.plot, {
      move: (id, x, y) => this.moving.movePoint(id, x, y),
      settle: (id, x, y) => {
        this.moving.placePoint(id, x, y);
        this.session.change({ edits: [{ do: "move point", id, x, y }] });
      },
      along: (id, x, y, done) => {
        if (done) this.session.change({ edits: [{ do: "move along", id, x, y }] });
        else this.moving.moveAlong(id, x, y);
      },
      row: (id, row, to, done) => this.moving.moveRow(id, row, to, done),
      chosen: (id, row) => this.act("row", id, row),
    });
    this.session = new Session(start, {
      changed: (state, change) => this.changed(state, change),
      status: () => this.events.tell("status", null),
      refused: (trouble, change) => this.events.tell("refused", { trouble, change }),
    });
    this.asking = new Asking(this);
    this.moving = new Moving(this);
    // Where a hand-out leaves the page out, its lists go nowhere.
    this.landmarks = new Landmarks(document.getElementById("landmarks") ?? document.createElement("div"), {
      go: (x) => this.readInSight(x),
      changed: () => this.redraw(),
      told: (text) => this.events.tell("words", text),
      heard: (text) => this.events.tell("heard", text),
      wanted: () => this.asking.searchShown(),
      unfold: (id) => this.asking.unfold(id),
      key: () => this.session.key,
      edit: (edit) => this.session.change({ edits: [edit] }),
      values: (values) => this.lanes.showExact(values),
    });
    this.divider = new Divider(byId("divider"), /** @type {HTMLElement} */ (document.querySelector(".instrument")));
    this.listen();
  }

  /** @param {string} name @param {any[]} given */
  act(name, ...given) {
    this.acts[name]?.(...given);
  }

  listen() {
    const { events, plot, sliders, session } = this;
    const does = (/** @type {string} */ name) => () => this.act(name);
    listen(plot, {
      look: (view, lead) => events.tell("look", { view, lead }),
      read: (x, put, y) => events.tell("read", { x, put, y: y !== undefined && Number.isFinite(y) ? y : undefined }),
      left: () => events.tell("left", null),
      pick: (px, py) => this.pick(px, py),
      hold: (at) => this.points.hold(at) ?? this.points.holdAlong(at) ?? this.points.holdRow(at),
      brokenOff: () => {
        this.preview = sliders.edits();
        plot.lanes = [...session.state.lanes, ...this.temporary.lanes];
        this.refresh();
      },
      putting: () => plot.putting,
      put: (at) => this.act("put", this.points.at(at.x, at.y)),
      gather: (box) => this.act("gather", box),
      restricting: () => plot.restricting,
      boxing: () => plot.boxing,
      boxed: does("boxed"),
      divide: () => this.divider.begin(),
      usualDivision: () => this.divider.set(null),
      keys: {
        0: does("frame"),
        Home: does("standard view"),
        Backspace: does("previous view"),
        "Shift Backspace": does("next view"),
        b: does("box"),
        e: does("equal scale"),
        g: does("next grid"),
        h: does("hold"),
        t: does("tangent"),
        a: does("area"),
        c: does("clear trails"),
        p: does("put points"),
        s: does("snap"),
        u: does("hear"),
        " ": () => sliders.toggleAll(),
      },
      step: (by) => this.landmarks.next(by, plot.reading ?? (plot.view.left + plot.view.right) / 2),
      restrict: (low, high, done) => events.tell("restrict", { low, high, done }),
    });
    window.addEventListener("axispath-theme", () => {
      showOwnColours(plot.lanes);
      sliders.restyle();
      this.redraw();
    });
    listenToPrinting(() => {
      showOwnColours(plot.lanes);
      this.drawStrips(plot.lanes);
      sliders.restyle();
      plot.draw();
    });
    new ResizeObserver(() => this.resized()).observe(plot.canvas);
    byId("lanes").addEventListener("click", (event) => {
      const key = /** @type {HTMLElement} */ (event.target).closest("[data-key]")?.getAttribute("data-key");
      const tick = /** @type {HTMLElement} */ (event.target).closest("[data-tick]")?.getAttribute("data-tick");
      if (tick) this.readInSight(Number(tick));
      if (key) this.landmarks.select(key);
    });
    byId("lanes").addEventListener("focusin", (event) => this.choose(/** @type {HTMLElement} */ (event.target)));
    // A browser in a hurry may let a page go without telling it: what a hand has done is sent before.
    window.addEventListener("beforeunload", () => sliders.keepNow());
    window.addEventListener("pagehide", () => {
      sliders.keepNow();
      session.leave(true);
    });
    window.addEventListener("pageshow", () => session.leave(false));
  }

  /** All parts of the page are there: what was left is taken up again. */
  begin() {
    const { plot, session, trails } = this;
    showOwnColours(plot.lanes);
    this.refresh();
    trails.recall();
    this.events.tell("trails", trails.states.length > 0);
    const left = read(this.memory()) ?? {};
    if (typeof left.x === "number") this.events.tell("read", { x: left.x, put: true });
    this.lanes.reopen();
    this.sliders.show(this.start.lanes);
    session.flush();
  }

  memory() {
    return `axispath desk ${this.session.key}`;
  }

  remember() {
    write(this.memory(), { x: this.plot.reading, page: this.page, along: this.asking.only.along });
  }

  /** @param {State} state @param {Change | null} change */
  changed(state, change) {
    const held = heldPart();
    this.lanes.show(state.lanes);
    this.sliders.show(state.lanes);
    this.drawStrips(state.lanes);
    this.points.draw(state.lanes);
    if (held && !held.isConnected()) held.find()?.focus();
    this.temporary = { edits: [], lanes: [] };
    this.plot.lanes = state.lanes;
    showOwnColours(state.lanes);
    this.preview = this.sliders.edits();
    this.moving.rest();
    this.events.tell("changed", { state, change, stepped: Boolean(change && "step" in change) });
    this.remember();
    this.refresh();
  }

  /** Lanes beside those of the sheet, for a while. @param {Temporary} temporary */
  showTemporary(temporary) {
    this.temporary = temporary;
    this.plot.lanes = [...this.session.state.lanes, ...temporary.lanes];
    this.redraw();
    this.asking.picture();
  }

  refresh() {
    this.redraw();
    this.asking.picture();
    this.asking.path();
    this.asking.points();
    this.events.tell("refresh", null);
  }

  redraw() {
    const { plot, landmarks } = this;
    plot.selected = landmarks.selected;
    plot.pinned = landmarks.pinned;
    plot.ask();
    this.drawStrips(plot.lanes);
    this.points.draw(plot.lanes);
    this.sliders.draw();
  }

  /** The view is another: the picture follows at once, what is found in it when it rests. */
  viewMoved() {
    this.plot.ask();
    const { isHeavy } = this.plot;
    this.timers.throttled("redraw", isHeavy ? STRIPS : FRAME, () => this.redraw());
    // Very many curves are moved as they are, and drawn anew when the view rests.
    if (isHeavy) this.timers.later("picture", HEAVY_REST, () => this.asking.picture());
    else this.asking.picture();
    this.asking.pathAtRest(() => this.events.tell("looked", { rested: true }));
    if (this.trails.states.length) this.timers.later("trails", REST, () => this.trails.ask());
  }

  resized() {
    const { plot } = this;
    if (matchMedia("print").matches || (!plot.fit() && this.fitted)) return;
    this.fitted = true;
    const { width, height } = plot.size;
    document.documentElement.style.setProperty("--plot-width", `${width}px`);
    document.documentElement.style.setProperty("--plot-height", `${height}px`);
    this.act("fit");
    this.redraw();
    this.asking.picture();
    this.trails.ask();
  }

  /** @param {import("../drawing/plot.js").Lane[]} lanes */
  drawStrips(lanes) {
    this.strips.draw(lanes);
    this.alongs.draw(lanes);
  }

  /** Landmarks of a state that sliders pass. @param {import("./internal.js").Marks} found */
  showMarks(found) {
    this.putMarks(found);
    this.plot.ask();
    this.timers.throttled("strips", STRIPS, () => this.drawStrips(this.plot.lanes));
    window.dispatchEvent(new CustomEvent("axispath-marked", { detail: found.lanes.length }));
  }

  /** What is found; while something moves marks that are proved stay. @param {import("./internal.js").Paths} found @param {boolean} [moves] */
  showPaths(found, moves = false) {
    this.found = found;
    const { plot } = this;
    if (!moves || !this.moving.marked) this.putMarks(found);
    this.landmarks.show(found.landmarks, [...plot.marks.values(), plot.crossings].flat());
    if (found.landmarks !== null) this.events.tell("paths", found);
    this.redraw();
  }

  /** @param {import("./internal.js").Marks} path */
  putMarks(path) {
    const { plot, strips } = this;
    const { held } = strips;
    plot.marks = new Map(path.lanes.map((lane) => [lane.id, lane.landmarks]));
    plot.crossings = path.crossings.flatMap((crossing) => crossing.landmarks);
    strips.crossings = new Map();
    for (const crossing of path.crossings) {
      for (const id of crossing.lanes) strips.crossings.set(id, [...(strips.crossings.get(id) ?? []), ...crossing.landmarks]);
    }
    for (const lane of path.lanes) {
      const before = held?.id === lane.id ? strips.paths.get(lane.id) : null;
      strips.paths.set(lane.id, before ? { ...lane, low: before.low, high: before.high } : lane);
    }
  }

  /** The lane in focus comes first, on the plot and on the Landmarks page. @param {HTMLElement} part */
  choose(part) {
    const id = part.closest(".lane")?.getAttribute("data-lane") ?? null;
    if (id === this.plot.chosen) return;
    this.plot.chosen = id;
    this.plot.ask();
    this.landmarks.follow(id);
  }

  /** The landmark or the solution at a pixel of the plot, where there is one. @param {number} px @param {number} py */
  pick(px, py) {
    const mark = markAt(this.plot, px, py);
    if (!mark) return false;
    const solution = this.plot.solutions.includes(mark);
    this.events.tell("turn", solution ? "solve" : "landmarks");
    if (solution) {
      this.readInSight(mark.x);
      this.events.tell("solution", mark.key);
    } else {
      this.landmarks.select(mark.key);
    }
    return true;
  }

  /** Read at x, and bring it into the view where it is outside. @param {number} x */
  readInSight(x) {
    const { left, right } = this.plot.view;
    if (x < left || x > right) {
      const half = (right - left) / 2;
      this.events.tell("look", { view: { ...this.plot.view, left: x - half, right: x + half } });
    }
    this.events.tell("read", { x, put: true });
  }

  /** What a picture of the plot shows, as it is seen now. */
  asSeen() {
    const { plot } = this;
    return {
      ...this.asking.search(),
      pinned: [...plot.pinned],
      states: this.trails.states,
      reading: plot.reading,
      held: plot.held,
      tangent: plot.tangent?.id ?? "",
      area: plot.area?.id ?? "",
      against: plot.area?.against ?? "",
    };
  }

  clearTrails() {
    this.trails.clear();
    this.events.tell("trails", false);
  }
}

/** @param {string} id @param {string} end @param {number} value */
const domainEdit = (id, end, value) => ({ do: "set domain", id, [end]: short(value, 1e-12) });
