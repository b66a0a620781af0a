// @ts-check
/**
 * The sheet as the server has it, and the changes on their way there.
 *
 * Changes are sent one after the other. What cannot be sent now waits, in the browser's
 * storage too, and is sent when the server answers again, even after a reload.
 */

import { Trouble, send } from "./api.js";

const RETRY = 1500;

/** @typedef {{edits: object[]} | {step: "undo" | "redo"}} Change */

export class Session {
  /**
   * @param {any} start the state that the page came with
   * @param {{changed: (state: any, change: Change | null) => void, status: () => void,
   *   refused: (trouble: Trouble, change: Change) => void}} told
   */
  constructor(start, told) {
    this.state = start;
    this.told = told;
    /** @type {Change[]} */
    this.waiting = [];
    this.base = start.head;
    this.sending = false;
    this.offline = false;
    this.conflict = false;
    /** A view that the server does not know yet. @type {null | object} */
    this.view = null;
    this.recall();
  }

  get key() {
    return this.state.id;
  }

  /** Whether the sheet is stored on the server yet. */
  get stored() {
    return this.key !== "blank" && !this.key.startsWith("demo.");
  }

  get storageName() {
    return `axispath waiting ${this.key}`;
  }

  recall() {
    const kept = read(this.storageName);
    if (!kept?.waiting?.length) return;
    this.waiting = kept.waiting;
    this.base = kept.base;
  }

  keep() {
    if (this.waiting.length) write(this.storageName, { base: this.base, waiting: this.waiting });
    else write(this.storageName, null);
  }

  /** @param {Change} change */
  change(change) {
    this.waiting.push(change);
    this.keep();
    this.flush();
  }

  async flush() {
    if (this.sending || this.conflict || !this.waiting.length) return;
    this.sending = true;
    this.told.status();
    const change = this.waiting[0];
    try {
      const state = await this.sendOne(change);
      this.forget();
      this.offline = false;
      this.accept(state, change);
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      if (trouble.passing) {
        this.offline = true;
        setTimeout(() => this.flush(), RETRY);
      } else if (trouble.kind === "conflict") {
        this.conflict = true;
      } else {
        this.forget();
        this.told.refused(trouble, change);
      }
    } finally {
      this.sending = false;
    }
    this.told.status();
    if (!this.offline && this.waiting.length) this.flush();
  }

  /** @param {Change} change */
  sendOne(change) {
    if ("step" in change) return send("POST", `/api/sheets/${this.key}/${change.step}`, { base: this.base });
    if (this.stored) {
      return send("POST", `/api/sheets/${this.key}/edits`, { base: this.base, edits: change.edits });
    }
    const view = this.view ?? this.state.view;
    return send("POST", "/api/sheets", { source: this.key, edits: change.edits, view });
  }

  /** The change at the head of the queue is done with. */
  forget() {
    this.waiting.shift();
    this.keep();
  }

  /** @param {any} state @param {Change | null} change */
  accept(state, change) {
    const before = this.key;
    if (before !== state.id) {
      write(this.storageName, null);
      write(`axispath draft ${before}`, null);
      history.replaceState(null, "", `/sheet/${state.id}`);
    }
    this.state = state;
    this.base = state.head;
    this.keep();
    this.told.changed(state, change);
  }

  /** After a conflict: the waiting changes become a sheet of their own. */
  async keepAsCopy() {
    const edits = this.waiting.flatMap((change) => ("edits" in change ? change.edits : []));
    const body = { base: this.base, edits };
    const state = edits.length
      ? await send("POST", `/api/sheets/${this.key}/branch`, body)
      : await send("GET", `/api/sheets/${this.key}`);
    this.waiting = [];
    this.keep();
    this.conflict = false;
    this.accept(state, null);
  }

  /** After a conflict: what the other window made of the sheet. Gives the lines given up. */
  async takeTheirs() {
    const state = await send("GET", `/api/sheets/${this.key}`);
    const given = this.waiting;
    this.waiting = [];
    this.keep();
    this.conflict = false;
    this.accept(state, null);
    return given;
  }

  /** Remember the view, without a revision. @param {object} view */
  async saveView(view) {
    this.view = view;
    if (!this.stored) return;
    try {
      await send("PUT", `/api/sheets/${this.key}/view`, view);
      if (this.view === view) this.view = null;
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      if (trouble.passing) setTimeout(() => this.view === view && this.saveView(view), RETRY);
    }
  }
}

/** @param {string} name */
export function read(name) {
  try {
    return JSON.parse(localStorage.getItem(name) ?? "null");
  } catch {
    return null;
  }
}

/** @param {string} name @param {unknown} value */
export function write(name, value) {
  try {
    if (value === null) localStorage.removeItem(name);
    else localStorage.setItem(name, JSON.stringify(value));
  } catch {
    // Storage may be switched off; then nothing survives a reload while the server is away.
  }
}
