// @ts-check
/** The sheet's component: its name, undo and redo, whether all is saved, what the person is told. */

import { Trouble } from "./api.js";
import { Areas } from "./areas.js";
import { field, isTyping, undoesItself } from "./focus.js";
import { read, write } from "./session.js";

/** @param {import("./instrument.js").Instrument} at */
export function sheetPart(at) {
  const { events, session, start } = at;
  const areas = new Areas(() => at.act("desk"));
  return {
    message: "",
    heard: "",
    question: "",
    conflict: false,
    status: "",
    statusClass: "",
    busy: false,
    waitingText: "",
    undoLabel: start.undo,
    redoLabel: start.redo,
    unit: start.unit,
    id: session.own ? session.key : "",

    init() {
      events.on("changed", ({ state, change }) => {
        this.changed(state, change);
        areas.keep();
      });
      events.on("heard", (words) => {
        this.heard = words;
      });
      events.on("refused", ({ trouble, change }) => this.refused(trouble, change));
      events.on("status", () => this.showStatus());
      events.on("words", (words) => {
        this.message = words;
      });
      window.addEventListener("axispath-busy", (event) => {
        this.busy = /** @type {CustomEvent<boolean>} */ (event).detail;
        this.showStatus();
      });
      document.addEventListener("keydown", (event) => this.shortcut(event));
      this.showStatus();
      this.askAboutDegrees(start.question);
    },

    /** Where this sheet is handed out; it has to be stored for that. */
    get handoutsAddress() {
      return `/sheet/${this.id}/handouts`;
    },
    get historyAddress() {
      return `/sheet/${this.id}/history`;
    },
    get isOwn() {
      return Boolean(this.id);
    },
    rename(/** @type {Event} */ event) {
      const input = /** @type {HTMLInputElement} */ (event.target);
      session.change({ edits: [{ do: "rename", name: input.value }] });
    },
    setUnit(/** @type {Event} */ event) {
      const unit = /** @type {HTMLInputElement} */ (event.target).value;
      session.change({ edits: [{ do: "set unit", unit }] });
    },
    frame() {
      at.act("frame");
    },
    goTo(/** @type {string} */ area) {
      areas.go(area);
    },
    undo() {
      if (session.state.undo) session.change({ step: "undo" });
    },
    redo() {
      if (session.state.redo) session.change({ step: "redo" });
    },
    shortcut(/** @type {KeyboardEvent} */ event) {
      if (event.key === "Escape" && at.sliders.pause()) return;
      if (event.key === "?" && !isTyping()) {
        at.act("keys");
        return;
      }
      if (event.key === "=" && !isTyping() && !event.ctrlKey && !event.metaKey) {
        at.act("working");
        event.preventDefault();
        return;
      }
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const wanted = event.key.toLowerCase();
      if (undoesItself(document.activeElement) || (wanted !== "z" && wanted !== "y")) return;
      event.preventDefault();
      if (wanted === "y" || event.shiftKey) this.redo();
      else this.undo();
    },

    changed(/** @type {import("./internal.js").State} */ state, /** @type {import("./session.js").Change | null} */ change) {
      this.id = session.own ? session.key : "";
      this.undoLabel = state.undo;
      this.redoLabel = state.redo;
      this.unit = state.unit;
      field(`unit-${state.unit}`).checked = true;
      const name = field("sheet-name");
      if (document.activeElement !== name) name.value = state.name;
      document.title = `${state.name} · Axis Path`;
      // What was told of a change made by hand stays, whatever is kept by itself behind it.
      if (state.told || !(change && "byItself" in change && change.byItself)) this.message = state.told || "";
      this.askAboutDegrees(state.question);
    },
    /** What no other part tells beside the field it was typed in. */
    refused(/** @type {Trouble} */ trouble, /** @type {import("./session.js").Change} */ change) {
      const edit = /** @type {any} */ ("edits" in change ? change.edits[0] : {});
      const { start: from = 0, end = 0, mend = null } = trouble.body;
      at.preview = [];
      at.refresh();
      if (edit.do === "add lane" || edit.do === "add work" || at.lanes.refuse(edit.id, edit.do, trouble.message, [from, end], mend)) return;
      this.message = trouble.message;
      if (edit.do === "rename") field("sheet-name").value = session.state.name;
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
      if (line) at.act("entry", line.text);
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
        this.waitingText = `${session.why || "The server cannot save just now."} ${changes} waiting and will be saved as soon as it can${lines.length ? ": " : ""}${lines.join("; ")}.`;
      } else {
        this.waitingText = "";
        const going = session.conflict ? "not saved" : "saving…";
        this.status = count ? going : session.state.handout && !at.start.seat ? "handed out" : session.stored ? "saved" : "not changed yet";
        if (this.busy) {
          this.status = "busy, trying again …";
          this.statusClass = "is-waiting";
        }
      }
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
    get railUnit() {
      return this.unit === "deg" ? ", angles in degrees" : ", angles in radians";
    },
  };
}

/** The plot's own words: what takes long, why nothing shows, trails. @param {import("./instrument.js").Instrument} at */
export function plotPart(at) {
  return {
    hasTrails: false,
    slowText: "",
    emptyText: "",
    emptyFrame: false,
    init() {
      at.events.on("trails", (there) => {
        this.hasTrails = there;
      });
      at.events.on("slow", (words) => {
        this.slowText = words;
      });
      at.events.on("paths", (path) => {
        this.emptyText = path.explanation;
        this.emptyFrame = path.canFrame;
      });
      at.acts["clear trails"] = () => at.clearTrails();
    },
    clearTrails() {
      at.clearTrails();
    },
    frame() {
      at.act("frame");
    },
  };
}

/** What stands below the lanes. @param {import("./instrument.js").Instrument} at */
export function roomPart(at) {
  return {
    laneTotal: at.start.lanes.length,
    settledText: "",
    plotWords: "",
    init() {
      at.events.on("changed", ({ state }) => {
        this.laneTotal = state.lanes.length;
      });
      at.events.on("paths", (path) => {
        this.plotWords = path.words;
        this.settledText = path.settled;
      });
    },
    get laneCount() {
      return this.laneTotal === 1 ? "1 lane" : `${this.laneTotal} lanes`;
    },
  };
}

