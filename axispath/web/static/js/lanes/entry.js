// @ts-check
/** The entry: shows how a line is read while it is typed, completes names, offers signs. */

import { Trouble, send } from "../sheet/api.js";
import { render } from "./formulas.js";
import { isBlock } from "../sheet/cells.js";
import { Queue } from "../sheet/queue.js";
import { read, write } from "../sheet/session.js";
import { completed, earlier, offered, put, remember } from "./typing.js";
import { nextFrame } from "../sheet/underway.js";

const RECALLED = 50; // lines of one paste that can be had back

/** Signs of the palette: what the button shows, what it inserts, where the cursor goes. */
const SIGNS = [
  { face: "√", text: "√()", back: 1, title: "square root" },
  { face: "xⁿ", text: "^()", back: 1, title: "power" },
  { face: "x²", text: "^2", back: 0, title: "square" },
  { face: "a⁄b", text: "()/()", back: 4, title: "fraction" },
  { face: "|x|", text: "||", back: 1, title: "absolute value" },
  { face: "π", text: "π", back: 0, title: "pi" },
  { face: "θ", text: "θ", back: 0, title: "theta" },
  { face: "≤", text: " ≤ ", back: 0, title: "less than or equal" },
  { face: "≥", text: " ≥ ", back: 0, title: "greater than or equal" },
  { face: "∞", text: "∞", back: 0, title: "infinity" },
  { face: "°", text: "°", back: 0, title: "degrees" },
  { face: "f′", text: "'", back: 0, title: "prime: derivative" },
  { face: "{ if", text: " if x < 0, 0 otherwise", back: 0, title: "cases" },
  { face: "for", text: " for 0 <= x <= 5", back: 0, title: "domain" },
  { face: "Σ", text: "sum( for k = 1 to 10)", back: 17, title: "sum" },
];

/** The entry. @param {import("../sheet/instrument.js").Instrument} at */
export function entryPart(at) {
  const { events, session } = at;
  const { words } = at.start;
  const previews = new Queue();
  const input = () => /** @type {HTMLInputElement} */ (document.getElementById("entry"));
  /** Which of the earlier lines is shown, the last one first; −1 for what is being typed. */
  let recalled = -1;
  let draft = "";

  return {
    entry: "",
    readings: /** @type {{key: string, label: string, taken: string, other: string, latex: string}[]} */ ([]),
    previewing: false,
    previewHint: "",
    /** Whether what is shown was the reading of another line. */
    previewFades: false,
    completions: /** @type {any[]} */ ([]),
    chosen: -1,
    palette: false,
    signs: SIGNS,

    trouble: false,
    troubleText: "",
    troubleBefore: "",
    troubleAt: "",
    troubleAfter: "",
    /** The lines that may be meant instead, the likeliest first. */
    troubleMends: /** @type {string[]} */ ([]),
    refusedLine: "",
    /** Whether the refused line went back into the entry, where no other was begun since. */
    refusedHere: false,

    init() {
      // A line that is none of the sheet's lanes has gone where it belongs: there it is shown.
      events.on("changed", ({ state, change }) => {
        const edit = /** @type {any} */ (change && "edits" in change ? change.edits[0] : {});
        if (edit.do === "add lane" && state.told && state.page) events.tell("turn", state.page);
      });
      events.on("refused", ({ trouble, change }) => this.refused(trouble, change));
      at.acts.entry = (line) => {
        this.entry = line;
      };
      // What was typed before the page was ready comes first.
      this.entry = input().value || (new URLSearchParams(location.search).get("line") ?? read(draftOf(session.key)) ?? "");
      if (this.entry) this.askPreview();
    },

    // Lines

    add() {
      this.send(false);
    },
    /** Put the refused line on the sheet although it is not understood. */
    keepLine() {
      this.again(this.refusedLine, true);
    },
    send(/** @type {boolean} */ keep) {
      session.change({ edits: [{ do: "add lane", text: this.entry, keep }] });
      if (this.entry.trim()) this.keepEarlier(this.entry);
      this.entry = "";
      write(draftOf(session.key), null);
      this.clearPreview();
      this.clearTrouble();
    },
    /** Another try with a refused line; what was typed since stays in the entry. */
    again(/** @type {string} */ text, /** @type {boolean} */ keep) {
      const typed = this.refusedHere ? "" : this.entry;
      this.entry = text;
      this.send(keep);
      this.entry = typed;
      write(draftOf(session.key), typed || null);
    },
    entryTyped() {
      if (this.trouble && this.refusedHere) this.clearTrouble();
      write(draftOf(session.key), this.entry || null);
      this.askPreview();
      this.complete();
    },
    clearTrouble() {
      this.trouble = false;
      this.troubleMends = [];
    },
    /** @param {string} line */
    mend(line) {
      if (this.refusedHere) {
        this.entry = line;
        this.clearTrouble();
        this.askPreview();
      } else {
        this.again(line, false);
      }
      input().focus();
    },
    /** A line that was added is not understood: it is told why, and comes back where it is not in the way. */
    refused(/** @type {import("../sheet/api.js").Trouble} */ trouble, /** @type {import("../sheet/session.js").Change} */ change) {
      const edit = /** @type {any} */ ("edits" in change ? change.edits[0] : {});
      if (edit.do !== "add lane") return;
      const { start: from = 0, end = 0, mends = [] } = trouble.body;
      this.refusedLine = edit.text;
      this.refusedHere = !this.entry || this.entry === edit.text;
      if (this.refusedHere) {
        this.entry = edit.text;
        this.clearPreview();
      }
      write(draftOf(session.key), this.entry);
      this.trouble = true;
      this.troubleText = trouble.message;
      this.troubleMends = mends;
      const shown = (/** @type {string} */ s) => (s.length > 80 ? `${s.slice(0, 40)} … ${s.slice(-36)}` : s);
      this.troubleBefore = shown(edit.text.slice(0, from));
      this.troubleAt = shown(edit.text.slice(from, end));
      this.troubleAfter = shown(edit.text.slice(end));
      nextFrame(() => end > from && input().value === edit.text && document.activeElement === input() && input().setSelectionRange(from, end));
    },

    /** A formula in place of text. @param {HTMLElement} place @param {string} latex */
    typeset(place, latex) {
      if (latex) render(latex, place);
    },
    /** The same of a line that is offered. @param {HTMLElement} place @param {string} text */
    async typesetLine(place, text) {
      try {
        const found = await send("POST", `/api/sheets/${session.key}/preview`, { head: session.state.head, text });
        this.typeset(place, found.latex);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
      }
    },

    // Reading back

    /** Ask how the line reads; answers that come late are dropped. */
    askPreview() {
      const text = this.entry;
      if (!text.trim()) {
        this.clearPreview();
        return;
      }
      this.previewFades = this.previewing;
      previews.run(async () => {
        try {
          const key = session.key;
          const found = await send("POST", `/api/sheets/${key}/preview`, { head: session.state.head, text });
          if (this.entry === text) this.showPreview(found);
        } catch (trouble) {
          if (!(trouble instanceof Trouble)) throw trouble;
          if (this.entry === text) this.clearPreview();
        }
      });
    },
    showPreview(/** @type {any} */ found) {
      this.previewing = true;
      this.previewFades = false;
      this.readings = found.readings.map((/** @type {any} */ one) => ({ ...one, key: `${one.taken} ${one.other}`, label: `Read as ${one.other}` }));
      this.previewHint = found.hint;
      const place = document.getElementById("preview");
      if (place && found.latex) render(found.latex, place);
      else if (place) place.textContent = "";
    },
    clearPreview() {
      this.previewing = false;
      this.readings = [];
      this.previewHint = "";
      this.completions = [];
      this.chosen = -1;
    },
    take(/** @type {string} */ other) {
      this.entry = other;
      this.askPreview();
      input().focus();
    },

    // Earlier lines

    /** An earlier line in the place of this one, or back towards what was typed; gives whether there is one. @param {number} by */
    recallLine(by) {
      const lines = earlier();
      const wanted = recalled + by;
      if (wanted < -1 || wanted >= lines.length) return false;
      if (recalled < 0) draft = this.entry;
      recalled = wanted;
      this.entry = wanted < 0 ? draft : lines[wanted];
      this.askPreview();
      nextFrame(() => input().setSelectionRange(this.entry.length, this.entry.length));
      return true;
    },
    /** A line was added: it can be had back. @param {string} text */
    keepEarlier(text) {
      recalled = -1;
      remember(text);
    },
    /** Several lines at once become as many lanes; what holds them together in LaTeX or a script is left out. @param {ClipboardEvent} event */
    entryPasted(event) {
      const text = event.clipboardData?.getData("text/plain") ?? "";
      // A block of cells is data wherever it is pasted, and is looked at there.
      if (!/[\r\n]\s*\S/.test(text.trim()) || isBlock(text)) return;
      event.preventDefault();
      session.change({ edits: [{ do: "add lines", text }] });
      for (const line of text.split(/[\r\n]+/).slice(0, RECALLED)) if (line.trim()) this.keepEarlier(line.trim());
    },

    // Completion

    complete() {
      recalled = -1;
      this.chosen = -1;
      const own = session.state.lanes.filter((/** @type {any} */ lane) => lane.name)
        .map((/** @type {any} */ lane) => ({
          name: lane.name,
          signature: lane.signature,
          help: "of this sheet",
        }));
      this.completions = offered(input(), [...own, ...words]);
    },
    get previewClass() {
      return this.previewFades ? "is-fading" : "";
    },
    get completing() {
      return this.completions.length > 0;
    },
    get chosenId() {
      return this.chosen >= 0 ? `completion-${this.chosen}` : null;
    },
    isChosen(/** @type {number} */ index) {
      return this.chosen === index;
    },
    entryKey(/** @type {KeyboardEvent} */ event) {
      if (!this.completions.length) {
        const by = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
        if (by && !event.altKey && this.recallLine(by)) event.preventDefault();
        return;
      }
      const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (step) {
        event.preventDefault();
        const count = this.completions.length;
        this.chosen = (this.chosen + step + (this.chosen < 0 && step < 0 ? 1 : 0) + count) % count;
      } else if ((event.key === "Enter" || event.key === "Tab") && this.chosen >= 0) {
        event.preventDefault();
        this.insertWord(this.completions[this.chosen]);
      } else if (event.key === "Tab" && !event.shiftKey) {
        event.preventDefault();
        this.insertWord(this.completions[0]);
      } else if (event.key === "Escape") {
        this.completions = [];
      }
    },
    insertWord(/** @type {{name: string, signature: string}} */ word) {
      this.replace(completed(input(), word));
      this.completions = [];
    },

    // Palette

    togglePalette() {
      this.palette = !this.palette;
      input().focus();
    },
    insertSign(/** @type {{text: string, back: number}} */ sign) {
      const field = input();
      this.replace({ start: field.selectionStart ?? 0, end: field.selectionEnd ?? 0, ...sign });
    },
    replace(/** @type {{start: number, end: number, text: string, back: number}} */ what) {
      put(input(), what);
      this.entry = input().value;
      this.askPreview();
    },
  };
}

/** @param {string} key */
const draftOf = (key) => `axispath draft ${key}`;
