// @ts-check
/**
 * The sheet as the server has it, and the changes on their way there.
 *
 * Changes are sent one after the other. What cannot be sent now waits, in the browser's
 * storage too, and is sent when the server answers again, even after a reload.
 */

import { Trouble, send } from "./api.js";
import { soon } from "./underway.js";

const RETRY = 1500;
const GONE = 120_000; // ms after which a page that was not heard of is taken to be gone

/**
 * A change has a name, so that it is carried out once although it may be sent again; `byItself` is
 * one that nobody made by hand.
 * @typedef {({edits: object[], byItself?: boolean} | {step: "undo" | "redo"}) & {name?: string}} Change
 */

const MOVED = 60_000; // ms
const TAB = "axispath page";

/** @param {string} key */
const movedFrom = (key) => `axispath moved ${key}`;

/** Where a sheet moved by its first change, for a page loaded again just then from its old address. @param {string} key */
export function movedTo(key) {
  const [how] = performance.getEntriesByType("navigation");
  const moved = ofThisTab(movedFrom(key));
  const again = /** @type {PerformanceNavigationTiming | undefined} */ (how)?.type === "reload";
  // Whoever comes from elsewhere means the old address, now and when it is loaded again.
  if (moved && !again) rememberInTab(movedFrom(key), null);
  return again && moved && Date.now() - moved.at < MOVED ? `/sheet/${moved.id}` : "";
}

/** What this tab keeps; nothing where a browser lets it keep nothing, as in a frame. @param {string} name */
function ofThisTab(name) {
  try {
    return JSON.parse(sessionStorage.getItem(name) ?? "null");
  } catch {
    return null;
  }
}

/** @param {string} name @param {unknown} value */
function rememberInTab(name, value) {
  try {
    sessionStorage.setItem(name, JSON.stringify(value));
  } catch {
    // Then a reload just after the first change shows the page that it began on.
  }
}

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
    /** Why changes wait, where it is not the server. */
    this.why = "";
    this.conflict = false;
    this.left = false;
    /** The name of the branch that is being made. @type {string | undefined} */
    this.branching = undefined;
    /** A view that the server does not know yet. @type {null | object} */
    this.view = null;
    /** What waits is kept under a name of this very page: no other writes there. */
    this.page = randomName();
    /** What pages that are gone left waiting, and how it was kept. @type {Map<string, string>} */
    this.adopted = new Map();
    /** The page that was in this tab before is gone, whether or not it could still say so. */
    this.former = ofThisTab(TAB);
    rememberInTab(TAB, this.page);
    this.recall();
  }

  get key() {
    return this.state.id;
  }

  /** Whether the sheet is stored on the server yet. */
  get stored() {
    return this.key !== "blank" && !this.key.startsWith("demo.") && !this.key.startsWith("link.");
  }

  /** Whether it is stored and this person's own, not what a visitor turned. */
  get own() {
    return this.stored && !this.state.handout;
  }

  get storageName() {
    return `${waitingOf(this.key)}${this.page}`;
  }

  /** What other pages of this sheet left waiting: they may be gone, and a change is carried out once only. */
  recall() {
    for (const [name, text] of stored(waitingOf(this.key))) {
      const kept = parsed(text);
      if (!kept?.waiting?.length) continue;
      // A new sheet is another one in every page, so that only what was left behind is taken over.
      const gone = kept.left || name === `${waitingOf(this.key)}${this.former}` || Date.now() - kept.at >= GONE;
      if (!this.stored && !gone) continue;
      this.adopted.set(name, text);
      const known = new Set(this.waiting.map((change) => change.name));
      this.waiting.push(...kept.waiting.filter((/** @type {Change} */ change) => !change.name || !known.has(change.name)));
      this.base = Math.min(this.base, kept.base);
    }
    if (this.waiting.length) this.keep();
  }

  keep() {
    if (this.waiting.length) {
      write(this.storageName, { base: this.base, waiting: this.waiting, at: Date.now(), left: this.left });
      return;
    }
    write(this.storageName, null);
    // Nothing is left of what was taken over, unless its page has gone on since.
    for (const [name, text] of stored(waitingOf(this.key))) {
      if (this.adopted.get(name) === text) write(name, null);
    }
    this.adopted.clear();
  }

  /** The page goes, or comes back. @param {boolean} left */
  leave(left) {
    this.left = left;
    if (this.waiting.length) this.keep();
  }

  /**
   * Whether this is a hand-out in a frame of another page, where browsers send no cookie: what is
   * turned shows, and is not kept.
   */
  get framed() {
    return this.key.startsWith("link.") && window.self !== window.top;
  }

  /** @param {Change} change */
  change(change) {
    if (this.framed) return;
    this.waiting.push({ ...change, name: randomName() });
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
        this.why = trouble.kind === "offline" || trouble.kind === "busy" ? "" : trouble.message;
        this.keep();
        soon(() => this.flush(), RETRY);
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
    const named = change.name ? { change: change.name } : {};
    if ("step" in change) return send("POST", `/api/sheets/${this.key}/${change.step}`, { base: this.base, ...named });
    if (this.stored) {
      return send("POST", `/api/sheets/${this.key}/edits`, { base: this.base, edits: change.edits, ...named });
    }
    const view = this.view ?? this.state.view;
    return send("POST", "/api/sheets", { source: this.key, edits: change.edits, view, ...named });
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
      for (const name of [this.storageName, ...this.adopted.keys()]) write(name, null);
      this.adopted.clear();
      write(`axispath draft ${before}`, null);
      rememberInTab(movedFrom(before), { id: state.id, at: Date.now() });
      if (!state.handout) history.replaceState(null, "", `/sheet/${state.id}`);
    }
    this.state = state;
    this.base = state.head;
    this.keep();
    this.told.changed(state, change);
  }

  /** After a conflict: the waiting changes become a sheet of their own. */
  async keepAsCopy() {
    const edits = this.waiting.flatMap((change) => ("edits" in change ? change.edits : []));
    const body = { base: this.base, edits, change: (this.branching ??= randomName()) };
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
      if (trouble.passing) soon(() => this.view === view && this.saveView(view), RETRY);
    }
  }
}

/** @param {string} key */
const waitingOf = (key) => `axispath waiting ${key} `;

/** A name that nobody else makes up. */
export function randomName() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}

/** An id for a lane that the page makes. */
export const laneId = () => randomName().slice(0, 8);

/** What the browser keeps under names with a beginning. @param {string} beginning @returns {[string, string][]} */
function stored(beginning) {
  try {
    const names = Object.keys(localStorage).filter((name) => name.startsWith(beginning));
    return names.map((name) => [name, localStorage.getItem(name) ?? ""]);
  } catch {
    return [];
  }
}

/** @param {string} text */
function parsed(text) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** @param {string} name */
export function read(name) {
  try {
    return parsed(localStorage.getItem(name) ?? "null");
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
