// @ts-check
/** One open sheet: puts session, plot, strips, lanes and desk together behind the page. */

import { errandParts } from "./errands.js";
import { Trouble, fetchPicture, send } from "./api.js";
import { entryParts, joined } from "./entry.js";
import { listen } from "./gestures.js";
import { Landmarks } from "./landmarks.js";
import { Lanes } from "./lanes.js";
import { looksParts } from "./looks.js";
import { markAt } from "./marks.js";
import { lookingParts } from "./looking.js";
import { Plot } from "./plot.js";
import { FURTHER, LATE, MOST_ASKED, Queue, Standing, quietly } from "./queue.js";
import { readingParts } from "./reading.js";
import { Session, read, write } from "./session.js";
import { Sliders } from "./sliders.js";
import { Strips } from "./strips.js";
import { solveParts } from "./solve.js";
import { tableParts } from "./tables.js";
import { listenToPrinting } from "./printing.js";
import { showOwnColours } from "./style.js";
import { Trails } from "./trails.js";
import { sameView, short } from "./view.js";

const REST = 110; // ms without movement after which a path is asked for
const EXACT = 220; // and exact forms, which may take longer
const FOLLOW = 90; // between two landmark scans while something moves
const LISTS = 450; // and between two lists of them, and tables
const PAGES = ["landmarks", "values", "solve"];

/** The Alpine component of the sheet page. */
export function sheet() {
  const start = JSON.parse(document.getElementById("start")?.textContent ?? "{}");
  /** @type {Session} */ let session;
  /** @type {Plot} */ let plot;
  /** @type {Strips} */ let strips;
  /** @type {Lanes} */ let lanes;
  /** @type {Landmarks} */ let found;
  /** @type {Sliders} */ let sliders;
  /** @type {Trails} */ let trails;
  /** This component as Alpine watches it. @type {any} */ let page;
  const pictures = new Queue();
  const paths = new Queue();
  const exacts = new Queue();
  const slows = new Queue();
  const looked = new Standing();
  /** Whether what is shown was searched further, so that copies and files hold all of it. */
  let lookedFurther = false;
  /** @type {Record<string, ReturnType<typeof setTimeout>>} */
  const timers = {};
  /** @type {Record<string, () => unknown>} */
  const last = {};
  /** @type {object[]} */
  let preview = [];

  const later = (/** @type {string} */ name, /** @type {number} */ wait, /** @type {() => void} */ work) => {
    clearTimeout(timers[name]);
    timers[name] = setTimeout(work, wait);
  };

  /** Work that must not be asked for at every movement: at once, then at most every ``wait``. */
  const sometimes = (/** @type {string} */ name, /** @type {number} */ wait, /** @type {() => unknown} */ work) => {
    if (timers[name]) {
      last[name] = work;
      return;
    }
    const again = () => {
      delete timers[name];
      const missed = last[name];
      delete last[name];
      if (missed) sometimes(name, wait, missed);
    };
    // What takes long is done less often, so that it never holds up the picture.
    const before = performance.now();
    timers[name] = setTimeout(again, 10_000);
    Promise.resolve(work()).then(() => {
      clearTimeout(timers[name]);
      timers[name] = setTimeout(again, Math.max(wait, 2 * (performance.now() - before)));
    });
  };

  const own = {
    trouble: false,
    troubleText: "",
    troubleBefore: "",
    troubleAt: "",
    troubleAfter: "",
    troubleMend: "",
    refusedLine: "",
    /** Whether the refused line went back into the entry, where no other was begun since. */
    refusedHere: false,
    message: "",
    question: "",
    conflict: false,
    status: "",
    statusClass: "",
    busy: false,
    waitingText: "",
    undoLabel: start.undo,
    redoLabel: start.redo,
    restricting: false,
    hasTrails: false,
    page: "landmarks",
    raised: false,
    slowText: "",
    emptyText: "",
    emptyFrame: false,
    plotWords: "",
    laneTotal: start.lanes.length,
    settledText: "",
    only: { low: "", high: "" },
    onlyTrouble: "",
    unit: start.unit,

    init() {
      page = this;
      plot = new Plot(canvas("plot"), canvas("rail"));
      plot.view = { ...start.view };
      plot.ground = start.ground;
      lanes = new Lanes(byId("lanes"), {
        edit: (edit) => session.change({ edits: [edit] }),
        key: () => session.key,
        play: (id) => sliders.toggle(id),
        frame: (id) => this.frame(id),
      });
      trails = new Trails(plot, {
        key: () => session.key,
        head: () => session.state.head,
        edits: () => sliders.edits(),
      });
      sliders = new Sliders(byId("lanes"), {
        width: () => plot.size.width,
        move: () => this.slide(),
        waiting: () => session.waiting.length > 0,
        settle: (slides) => {
          trails.keep();
          session.change({ edits: slides.map((slide) => ({ do: "slide", ...slide })) });
        },
      });
      strips = new Strips(byId("lanes"), plot, {
        preview: (id, end, value) => this.dragBracket(id, end, value),
        settle: (id, end, value) => session.change({ edits: [domainEdit(id, end, value)] }),
      });
      session = new Session(start, {
        changed: (state, change) => this.changed(state, change),
        status: () => this.showStatus(),
        refused: (trouble, change) => this.refused(trouble, change),
      });
      listen(plot, {
        look: (view, lead) => this.look(view, lead),
        read: (x, put) => this.read(x, put),
        left: () => this.readingLeft(),
        pick: (px, py) => this.pick(px, py),
        restricting: () => this.restricting,
        boxing: () => this.boxing,
        boxed: () => {
          this.boxing = false;
        },
        keys: {
          0: () => this.frame(),
          Home: () => this.standardView(),
          Backspace: () => this.previousView(),
          "Shift Backspace": () => this.nextView(),
          b: () => this.toggleBox(),
          e: () => this.toggleEqual(),
          g: () => this.nextGrid(),
          h: () => this.hold(),
          t: () => this.toggleTangent(),
          a: () => this.toggleArea(),
          c: () => this.clearTrails(),
          " ": () => sliders.toggleAll(),
        },
        step: (by) => found.next(by, plot.reading ?? (plot.view.left + plot.view.right) / 2),
        restrict: (low, high, done) => this.restrict(low, high, done),
      });
      found = new Landmarks(byId("landmarks"), {
        go: (x) => this.readInSight(x),
        changed: () => this.redraw(),
        told: (text) => {
          this.message = text;
        },
        wanted: () => this.search({ longer: lookedFurther }),
        key: () => session.key,
      });
      const left = read(this.memory()) ?? {};
      if (typeof left.x === "number") plot.reading = left.x;
      if (left.page === "values" || left.page === "solve") this.page = left.page;
      plot.lanes = start.lanes;
      showOwnColours(start.lanes);
      window.addEventListener("axispath-theme", () => {
        showOwnColours(plot.lanes);
        sliders.restyle();
        this.redraw();
      });
      new ResizeObserver(() => this.resized()).observe(plot.canvas);
      listenToPrinting(() => {
        showOwnColours(plot.lanes);
        strips.draw(plot.lanes);
        sliders.restyle();
        plot.draw();
      });
      byId("lanes").addEventListener("click", (event) => this.pickOnStrip(event));
      this.startTables();
      byId("solve-page").addEventListener("click", (event) => this.pickSolution(event));
      document.addEventListener("keydown", (event) => this.shortcut(event));
      // What was moved a moment ago is kept when the page goes, and sent when it comes back.
      window.addEventListener("axispath-busy", (event) => {
        this.busy = /** @type {CustomEvent<boolean>} */ (event).detail;
        this.showStatus();
      });
      window.addEventListener("pagehide", () => {
        sliders.keepNow();
        session.leave(true);
      });
      window.addEventListener("pageshow", () => session.leave(false));
      this.showGround(start.ground);
      this.showLimits();
      this.showStatus();
      this.refresh();
      trails.recall();
      this.hasTrails = trails.states.length > 0;
      if (plot.reading !== null) this.read(plot.reading);
      this.entry = new URLSearchParams(location.search).get("line") ?? read(this.draftName()) ?? "";
      if (this.entry) this.askPreview();
      lanes.reopen();
      sliders.show(start.lanes);
      this.askAboutDegrees(start.question);
      session.flush();
    },

    memory: () => `axispath desk ${session.key}`,

    // Edits

    add() {
      this.send(false);
    },
    /** Put the refused line on the sheet although it is not understood. */
    keepLine() {
      this.again(this.refusedLine, true);
    },
    send(/** @type {boolean} */ keep) {
      session.change({ edits: [{ do: "add lane", text: this.entry, keep }] });
      this.entry = "";
      write(this.draftName(), null);
      this.clearPreview();
      this.clearTrouble();
    },
    /** Another try with a refused line; what was typed since stays in the entry. */
    again(/** @type {string} */ text, /** @type {boolean} */ keep) {
      const typed = this.refusedHere ? "" : this.entry;
      this.entry = text;
      this.send(keep);
      this.entry = typed;
      write(this.draftName(), typed || null);
    },
    entryTyped() {
      if (this.trouble && this.refusedHere) this.clearTrouble();
      write(this.draftName(), this.entry || null);
      this.askPreview();
      this.complete();
    },
    draftName: () => `axispath draft ${session.key}`,
    clearTrouble() {
      this.trouble = false;
      this.troubleMend = "";
    },
    mend() {
      if (this.refusedHere) {
        this.entry = this.troubleMend;
        this.clearTrouble();
      } else {
        this.again(this.troubleMend, false);
      }
      byId("entry").focus();
    },
    rename(/** @type {Event} */ event) {
      const input = /** @type {HTMLInputElement} */ (event.target);
      session.change({ edits: [{ do: "rename", name: input.value }] });
    },
    setUnit(/** @type {Event} */ event) {
      const unit = /** @type {HTMLInputElement} */ (event.target).value;
      session.change({ edits: [{ do: "set unit", unit }] });
    },
    undo() {
      if (session.state.undo) session.change({ step: "undo" });
    },
    redo() {
      if (session.state.redo) session.change({ step: "redo" });
    },
    shortcut(/** @type {KeyboardEvent} */ event) {
      if (event.key === "Escape" && sliders.pause()) return;
      if (event.key === "?" && !isTyping()) {
        this.openKeys();
        return;
      }
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const typing = document.activeElement instanceof HTMLInputElement && document.activeElement.value !== "";
      const wanted = event.key.toLowerCase();
      if (typing || (wanted !== "z" && wanted !== "y")) return;
      event.preventDefault();
      if (wanted === "y" || event.shiftKey) this.redo();
      else this.undo();
    },

    changed(/** @type {any} */ state, /** @type {any} */ change) {
      const stepped = change && "step" in change;
      const held = heldPart();
      lanes.show(state.lanes);
      sliders.show(state.lanes);
      strips.draw(state.lanes);
      if (held && !held.isConnected()) held.find()?.focus();
      this.forgetTemporary();
      plot.lanes = state.lanes;
      showOwnColours(state.lanes);
      this.showGround(state.ground);
      this.laneTotal = state.lanes.length;
      this.undoLabel = state.undo;
      this.redoLabel = state.redo;
      // An answer must not overwrite rows that have been typed since it was asked for.
      this.showTables(state.tables, session.waiting.some(setsTable));
      this.equations = state.equations;
      this.unit = state.unit;
      const unit = /** @type {HTMLInputElement} */ (byId(`unit-${state.unit}`));
      unit.checked = true;
      const name = /** @type {HTMLInputElement} */ (byId("sheet-name"));
      if (document.activeElement !== name) name.value = state.name;
      document.title = `${state.name} · Axis Path`;
      preview = sliders.edits();
      this.answerView(state.view, Boolean(stepped));
      this.remember();
      // What was told of a change made by hand stays, whatever is kept by itself behind it.
      if (state.told || !change?.byItself) this.message = state.told || "";
      this.askAboutDegrees(state.question);
      this.refresh();
    },
    /** Asked once a sheet: the answer is remembered. */
    askAboutDegrees(/** @type {string | null} */ found) {
      const asked = read(`axispath degrees ${session.key}`);
      this.question = found && !asked ? `${found} suggests degrees, but this sheet measures angles in radians.` : "";
    },
    keepRadians() {
      write(`axispath degrees ${session.key}`, true);
      this.question = "";
    },
    useDegrees() {
      this.question = "";
      session.change({ edits: [{ do: "set unit", unit: "deg" }] });
    },
    refused(/** @type {Trouble} */ trouble, /** @type {any} */ change) {
      const edit = change.edits?.[0] ?? {};
      if (edit.do === "set ground") this.groundRefused(trouble.message);
      const { start: from = 0, end = 0, mend = null } = trouble.body;
      if (edit.do === "add lane") {
        this.refusedLine = edit.text;
        this.refusedHere = !this.entry || this.entry === edit.text;
        if (this.refusedHere) {
          this.entry = edit.text;
          this.clearPreview();
        }
        write(this.draftName(), this.entry);
        this.trouble = true;
        this.troubleText = trouble.message;
        this.troubleMend = mend ?? "";
        const shown = (/** @type {string} */ s) => (s.length > 80 ? `${s.slice(0, 40)} … ${s.slice(-36)}` : s);
        this.troubleBefore = shown(edit.text.slice(0, from));
        this.troubleAt = shown(edit.text.slice(from, end));
        this.troubleAfter = shown(edit.text.slice(end));
        const entry = /** @type {HTMLInputElement} */ (byId("entry"));
        requestAnimationFrame(() => end > from && entry.value === edit.text && document.activeElement === entry && entry.setSelectionRange(from, end));
      } else if (!lanes.refuse(edit.id, edit.do, trouble.message, [from, end], mend)) {
        this.message = trouble.message;
        if (edit.do === "rename") /** @type {HTMLInputElement} */ (byId("sheet-name")).value = session.state.name;
      }
      preview = [];
      this.refresh();
    },
    dismiss() {
      this.message = "";
    },
    async keepAsCopy() {
      await this.resolve(() => session.keepAsCopy());
      if (!this.conflict) this.message = "This is now a sheet of its own, with your change. The other version is on the shelf.";
    },
    async takeTheirs() {
      const given = await this.resolve(() => session.takeTheirs());
      const line = given?.flatMap((/** @type {any} */ c) => c.edits ?? []).find((/** @type {any} */ e) => e.text);
      if (line) this.entry = line.text;
    },
    async resolve(/** @type {() => Promise<any>} */ work) {
      try {
        return await work();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.message = trouble.message;
        return undefined;
      } finally {
        this.showStatus();
      }
    },
    showStatus() {
      this.conflict = session.conflict;
      const count = session.waiting.length;
      const changes = count === 1 ? "1 change is" : `${count} changes are`;
      this.statusClass = session.offline || session.conflict ? "is-waiting" : "";
      if (session.offline && count) {
        this.status = count === 1 ? "1 change waiting" : `${count} changes waiting`;
        const lines = session.waiting.flatMap((c) => ("edits" in c ? c.edits : [])).map((/** @type {any} */ e) => e.text).filter(Boolean);
        this.waitingText = `The server cannot save just now. ${changes} waiting and will be saved as soon as it can${lines.length ? `: ${lines.join("; ")}` : ""}.`;
      } else {
        this.waitingText = "";
        const going = session.conflict ? "not saved" : "saving…";
        this.status = count ? going : session.stored ? "saved" : "not changed yet";
        if (this.busy) {
          this.status = "busy, trying again …";
          this.statusClass = "is-waiting";
        }
      }
    },

    // Looking

    /** The view is another: the picture follows at once, what is found in it when it rests. */
    viewMoved() {
      this.redraw();
      this.askPicture();
      later("path", REST, () => {
        this.askPath();
        this.solveInView();
      });
      if (trails.states.length) later("trails", REST, () => trails.ask());
    },
    clearTrails() {
      trails.clear();
      this.hasTrails = false;
    },
    resized() {
      if (matchMedia("print").matches || !plot.fit()) return;
      const { width, height } = plot.size;
      document.documentElement.style.setProperty("--plot-width", `${width}px`);
      document.documentElement.style.setProperty("--plot-height", `${height}px`);
      plot.view = { ...plot.view, ...this.fitted(plot.view) };
      this.showLimits();
      this.redraw();
      this.askPicture();
      trails.ask();
    },
    redraw() {
      plot.selected = found.selected;
      plot.pinned = found.pinned;
      plot.ask();
      strips.draw(plot.lanes);
      sliders.draw();
    },
    refresh() {
      this.redraw();
      this.askPicture();
      this.askPath();
      this.askValues();
      this.askPoints();
      this.solveAgain();
      this.readAgain();
    },
    /** Rows of tables as points on the plot. */
    async askPoints() {
      if (!session.state.tables.some((/** @type {any} */ table) => table.points)) {
        plot.points = [];
        return;
      }
      await quietly(async () => {
        plot.points = await send("POST", `/api/sheets/${session.key}/values/points`, { head: session.state.head, preview: sliders.edits(), view: plot.view });
        plot.ask();
      });
    },
    /** A slider has moved: what it moves follows at once, proofs when it rests. */
    slide() {
      preview = sliders.edits();
      this.askPicture();
      trails.pass(preview);
      this.hasTrails = trails.states.length > 0;
      sometimes("follow", FOLLOW, () => {
        this.readAgain();
        return this.askPath({ moving: true, page: false });
      });
      sometimes("lists", LISTS, () => {
        this.askValues();
        this.solveAgain();
        return this.askPath({ moving: true });
      });
    },
    dragBracket(/** @type {string} */ id, /** @type {string} */ end, /** @type {number} */ value) {
      lanes.preview(id, end, short(value, 1e-12));
      preview = [domainEdit(id, end, value)];
      strips.draw(plot.lanes);
      this.askPicture();
      sometimes("follow", FOLLOW, () => this.askPath({ moving: true, page: false }));
    },

    askPicture() {
      const { width, height } = plot.size;
      if (!width || !height) return;
      pictures.run(async () => {
        const wanted = { head: session.state.head, view: plot.view, ...plot.size, preview: [...preview, ...this.temporaryEdits()] };
        await quietly(async () => {
          plot.picture = { ...(await fetchPicture(session.key, wanted)), shows: wanted.preview };
          plot.ask();
          this.tellSlow(plot.picture.cut, "longer to draw …");
          clearTimeout(timers.slow);
          if (plot.picture.cut.length) later("slow", REST, () => this.askSlow(wanted));
        });
      });
    },
    /** Lanes whose time was cut, once nothing moves: they get more of it, and the others are not held up. @param {object} wanted */
    askSlow(wanted) {
      const { picture } = plot;
      if (!picture?.cut.length) return;
      slows.run(() =>
        quietly(async () => {
          const found = await fetchPicture(session.key, { ...wanted, patient: true, only: picture.cut });
          if (plot.picture !== picture) return;
          for (const [id, curve] of found.curves) picture.curves.set(id, curve);
          this.tellSlow(found.cut, "too long to draw, and the time was cut. A narrower domain or a simpler formula helps.");
          plot.ask();
        }),
      );
    },
    /** @param {string[]} ids @param {string} what */
    tellSlow(ids, what) {
      const names = ids.map((id) => plot.lane(id)?.name).filter(Boolean);
      const verb = names.length === 1 ? "takes" : "take";
      const more = names.length > 5 ? ` and ${names.length - 5} more` : "";
      this.slowText = names.length ? `${names.slice(0, 5).join(", ")}${more} ${verb} ${what}` : "";
    },
    /** What a search for landmarks is about. @param {object} [more] */
    search(more = {}) {
      return { head: session.state.head, view: plot.view, preview, ...this.only, ...more };
    },
    /** @param {{moving?: boolean, page?: boolean}} [how] */
    askPath(how = {}) {
      // Whatever is asked now, what was to be searched further is another question.
      const stands = looked.ask();
      clearTimeout(timers.further);
      const asked = paths.run(async () => {
        try {
          const path = await send("POST", `/api/sheets/${session.key}/path`, this.search(how));
          lookedFurther = false;
          this.showPaths(path);
          this.onlyTrouble = "";
          if (path.goesOn && stands()) later("further", FURTHER, () => this.searchFurther(stands));
        } catch (trouble) {
          if (!(trouble instanceof Trouble)) throw trouble;
          if (trouble.kind === "refused") this.onlyTrouble = trouble.message;
        }
      });
      if (!how.moving) later("exact", EXACT, () => this.askExact({}, stands));
      return asked;
    },
    /** What is still open, while nothing else is asked. @param {() => boolean} stands */
    searchFurther(stands) {
      const longer = { longer: true };
      return quietly(async () => {
        const path = await send("POST", `/api/sheets/${session.key}/path`, this.search(longer));
        if (!stands()) return;
        lookedFurther = true;
        this.showPaths(path);
        later("exact", EXACT, () => this.askExact(longer, stands));
      });
    },
    /** Exact forms; asked again while some are still being found. @param {object} how @param {() => boolean} stands @param {number} [again] */
    askExact(how, stands, again = MOST_ASKED) {
      exacts.run(() =>
        quietly(async () => {
          if (!stands()) return;
          const told = await found.askExact(this.search(how), stands);
          if (told.late && again && stands()) later("exact", LATE, () => this.askExact(how, stands, again - 1));
        }),
      );
    },
    showPaths(/** @type {any} */ path) {
      const held = strips.held;
      plot.marks = new Map(path.lanes.map((/** @type {any} */ lane) => [lane.id, lane.landmarks]));
      plot.crossings = path.crossings.flatMap((/** @type {any} */ c) => c.landmarks);
      strips.crossings = new Map();
      for (const crossing of path.crossings) {
        for (const id of crossing.lanes) {
          strips.crossings.set(id, [...(strips.crossings.get(id) ?? []), ...crossing.landmarks]);
        }
      }
      for (const lane of path.lanes) {
        const held_now = held?.id === lane.id ? strips.paths.get(lane.id) : null;
        strips.paths.set(lane.id, held_now ? { ...lane, low: held_now.low, high: held_now.high } : lane);
      }
      found.show(path.landmarks, [...plot.marks.values(), plot.crossings].flat());
      if (path.landmarks === null) {
        this.redraw();
        return;
      }
      this.emptyText = path.explanation;
      this.emptyFrame = path.canFrame;
      this.plotWords = path.words;
      this.settledText = path.settled;
      this.redraw();
    },

    // Landmarks on a part of the axis

    /** @param {number} low @param {number} high @param {boolean} done */
    restrict(low, high, done) {
      this.only = { low: short(low, 1e-12), high: short(high, 1e-12) };
      plot.only = { low, high };
      plot.ask();
      if (done) {
        this.restricting = false;
        this.setOnly();
      }
    },
    setOnly() {
      const ends = [this.only.low, this.only.high].map(Number);
      const typed = this.only.low.trim() || this.only.high.trim();
      const low = this.only.low.trim() ? ends[0] : plot.view.left;
      const high = this.only.high.trim() ? ends[1] : plot.view.right;
      plot.only = typed && Number.isFinite(low) && Number.isFinite(high) ? { low, high } : null;
      this.onlyTrouble = "";
      this.askPath();
      this.redraw();
    },
    toggleRestricting() {
      this.restricting = !this.restricting;
    },
    clearOnly() {
      this.only = { low: "", high: "" };
      this.setOnly();
    },
    get hasOnly() {
      return Boolean(this.only.low || this.only.high);
    },
    /** @param {number} px @param {number} py */
    pick(px, py) {
      const mark = markAt(plot, px, py);
      if (!mark) return false;
      this.page = "landmarks";
      found.select(mark.key);
      return true;
    },
    pickOnStrip(/** @type {Event} */ event) {
      const key = /** @type {HTMLElement} */ (event.target).closest("[data-key]")?.getAttribute("data-key");
      if (key) found.select(key);
    },
    /** Read at x, and bring it into the view where it is outside. @param {number} x */
    readInSight(x) {
      const { left, right } = plot.view;
      if (x < left || x > right) {
        const half = (right - left) / 2;
        this.look({ ...plot.view, left: x - half, right: x + half });
      }
      this.read(x);
    },
    askValues() {
      if (this.page === "values") this.refreshTable();
    },

    /** What a picture of the plot shows, as it is seen now. */
    asSeen() {
      return {
        ...this.search(),
        pinned: [...plot.pinned],
        states: trails.states,
        reading: plot.reading,
        held: plot.held,
        tangent: plot.tangent?.id ?? "",
        area: plot.area?.id ?? "",
        against: plot.area?.against ?? "",
      };
    },
    /** Grid, axes or scale have changed. */
    regrounded() {
      const view = this.fitted(plot.view);
      if (sameView(view, plot.view)) plot.ask();
      else this.look(view);
    },

    // Reading

    remember() {
      write(this.memory(), { x: plot.reading, page: this.page });
    },

    // Desk

    showLandmarks() {
      this.turnTo("landmarks");
    },
    showValues() {
      this.turnTo("values");
      this.askValues();
    },
    showSolve() {
      this.turnTo("solve");
    },
    /** The next page of the desk, from its tabs. @param {KeyboardEvent} event */
    turnPage(event) {
      const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
      if (!step) return;
      const next = PAGES[(PAGES.indexOf(this.page) + step + PAGES.length) % PAGES.length];
      byId(`tab-${next}`).click();
      byId(`tab-${next}`).focus();
    },
    turnTo(/** @type {string} */ page) {
      this.raised = !(this.raised && this.page === page);
      this.page = page;
      this.remember();
      requestAnimationFrame(() => document.activeElement?.getAttribute("role") === "tab" && byId(`tab-${page}`).focus());
    },

    // What the page binds to

    get deskClass() {
      return this.raised ? "is-raised" : "";
    },
    get onLandmarks() {
      return this.page === "landmarks";
    },
    get onValues() {
      return this.page === "values";
    },
    get onSolve() {
      return this.page === "solve";
    },
    get cannotUndo() {
      return !this.undoLabel;
    },
    get cannotRedo() {
      return !this.redoLabel;
    },
    get undoTitle() {
      return this.undoLabel ? `Undo ${this.undoLabel}` : "Nothing to undo";
    },
    get redoTitle() {
      return this.redoLabel ? `Redo ${this.redoLabel}` : "Nothing to redo";
    },
    get plotClass() {
      return this.boxing ? "is-boxing" : "";
    },
    get laneCount() {
      return this.laneTotal === 1 ? "1 lane" : `${this.laneTotal} lanes`;
    },
    get railUnit() {
      return this.unit === "deg" ? ", angles in degrees" : ", angles in radians";
    },
  };
  const reading = readingParts(() => ({
    session,
    plot,
    edits: () => sliders.edits(),
    sight: (x) => page.readInSight(x),
    put: (x) => page.onValues && page.tableRead(x, true),
    changed: () => {
      page.redraw();
      page.tableRead(plot.reading, false);
      later("remember", 300, () => page.remember());
    },
  }));
  const parts = () => ({
    session,
    plot,
    edits: () => sliders.edits(),
    sight: (/** @type {number} */ x) => page.readInSight(x),
    told: (/** @type {string} */ text) => {
      page.message = text;
    },
    changed: () => {
      plot.lanes = [...session.state.lanes, ...page.temporaryLanes()];
      page.redraw();
      page.askPicture();
    },
  });
  const tables = tableParts(parts, start.tables);
  const solve = solveParts(parts, start.equations);
  const looking = lookingParts(() => ({ session, plot, edits: () => sliders.edits() }), start.view);
  const looks = looksParts(() => ({ session, plot, picture: () => page.asSeen(), redraw: () => page.regrounded() }), start.ground);
  return joined(entryParts(() => session, start.words), reading, looks, tables, solve, looking, errandParts(), own);
}

function isTyping() {
  const active = document.activeElement;
  return active instanceof HTMLInputElement || active instanceof HTMLTextAreaElement || active instanceof HTMLSelectElement;
}

/** @param {string} id @returns {HTMLElement} */
function byId(id) {
  return /** @type {HTMLElement} */ (document.getElementById(id));
}

/** @param {string} id */
const canvas = (id) => /** @type {HTMLCanvasElement} */ (byId(id));

/** @param {string} id @param {string} end @param {number} value */
const domainEdit = (id, end, value) => ({ do: "set domain", id, [end]: short(value, 1e-12) });

/** The part of a lane that has the focus, to be found again after the lane was drawn anew. */
function heldPart() {
  const active = document.activeElement;
  const lane = active?.closest(".lane")?.getAttribute("data-lane");
  const name = ["data-end", "data-slider", "data-note"].find((attribute) => active?.hasAttribute(attribute));
  const part = active?.classList.contains("thumb") ? ".thumb" : name && `${active?.tagName.toLowerCase()}[${name}="${active?.getAttribute(name)}"]`;
  if (!active || !lane || !part) return null;
  const find = () => /** @type {HTMLElement | null} */ (document.querySelector(`.lane[data-lane="${lane}"] ${part}`));
  return { isConnected: () => active.isConnected, find };
}

/** @param {any} change */
const setsTable = (change) => change.edits?.some((/** @type {any} */ edit) => edit.do === "set table");
