// @ts-check
/** The Landmarks page of the desk: selection, certificates, labels, copies, a part of the axis. */

import { typeset } from "../lanes/formulas.js";
import { Trouble, send, sendText } from "../sheet/api.js";
import { Standing } from "../sheet/queue.js";
import { read, write } from "../sheet/session.js";
import { update } from "../sheet/update.js";
import { unwatched } from "../sheet/underway.js";

/** @typedef {import("../drawing/plot.js").Mark} Mark */

export class Landmarks {
  /**
   * @param {HTMLElement} page
   * @param {{go: (x: number) => void, changed: () => void, told: (text: string) => void, heard: (text: string) => void,
   *   wanted: () => object, key: () => string, edit: (edit: object) => void, values: (found: Record<string, string>) => void, unfold: (id: string) => void}} told
   */
  constructor(page, told) {
    this.page = page;
    this.told = told;
    /** @type {Mark[]} */
    this.marks = [];
    /** @type {string | null} */
    this.selected = null;
    /** @type {Set<string>} */
    this.opened = new Set();
    /** @type {Set<string>} */
    this.pinned = new Set(read(this.memory()) ?? []);
    /** @type {Map<string, {x?: string, y?: string}>} */
    this.exact = new Map();
    /** Questions for the other forms of a lane. @type {Map<string, Standing>} */
    this.forms = new Map();
    /** Lists that are folded. @type {Set<string>} */
    this.folded = new Set();
    page.addEventListener("click", (event) => this.clicked(event));
    page.addEventListener("toggle", (event) => this.turned(event), { capture: true });
  }

  /** A list was folded or opened. @param {Event} event */
  turned(event) {
    const list = /** @type {HTMLDetailsElement} */ (event.target);
    const name = list.getAttribute("data-fold");
    if (name === null) {
      if (list.open) this.ask(list);
      return;
    }
    if (list.open && list.hasAttribute("data-unlisted")) this.told.unfold(name);
    if (list.open) this.folded.delete(name);
    else this.folded.add(name);
  }

  /** The other forms of a function, once their list is open. @param {HTMLElement} list */
  async ask(list) {
    const place = /** @type {HTMLElement} */ (list.querySelector("div"));
    const lane = list.getAttribute("data-forms") ?? "";
    const asked = this.forms.get(lane) ?? new Standing();
    this.forms.set(lane, asked);
    const stands = asked.ask();
    const { head, preview } = /** @type {{head: unknown, preview: unknown}} */ (this.told.wanted());
    try {
      const found = await send("POST", `/api/sheets/${this.told.key()}/forms`, { head, preview, lane });
      if (!stands()) return;
      update(place, found.forms);
      typeset(place);
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      if (stands()) place.textContent = trouble.message;
    }
  }

  /** Bring the list of a lane into sight; it opens. @param {string | null} lane */
  follow(lane) {
    const list = lane && /** @type {HTMLDetailsElement | null} */ (this.page.querySelector(`details[data-lane="${CSS.escape(lane)}"]`));
    const scroller = this.page.parentElement;
    if (!list || !scroller?.clientHeight) return;
    list.open = true;
    scroller.scrollTop += list.getBoundingClientRect().top - scroller.getBoundingClientRect().top - 8;
  }

  memory() {
    return `axispath labels ${this.told.key()}`;
  }

  /** Show what the server found, with rows opened and selected as before; no page where only the marks have moved. @param {string | null} html @param {Mark[]} marks */
  show(html, marks) {
    this.marks = [...marks].sort((a, b) => a.x - b.x);
    if (html === null) return;
    update(this.page, html);
    for (const list of /** @type {NodeListOf<HTMLDetailsElement>} */ (this.page.querySelectorAll("details[data-fold]"))) {
      if (this.folded.has(list.getAttribute("data-fold") ?? "")) list.open = false;
    }
    for (const row of this.page.querySelectorAll("tr[data-mark]")) this.dress(row);
    for (const forms of /** @type {NodeListOf<HTMLElement>} */ (this.page.querySelectorAll("details.forms[open]"))) this.ask(forms);
    this.unpinButton();
  }

  /** @param {string} key @returns {HTMLElement | null} */
  row(key) {
    return this.page.querySelector(`tr[data-mark="${CSS.escape(key)}"]`);
  }

  /** @param {Element} row */
  dress(row) {
    const key = row.getAttribute("data-mark") ?? "";
    const open = this.opened.has(key);
    row.classList.toggle("is-selected", key === this.selected);
    row.querySelector('[data-act="why"]')?.setAttribute("aria-expanded", String(open));
    const next = /** @type {HTMLElement | null} */ (row.nextElementSibling);
    const detail = next?.classList.contains("detail") ? next : null;
    if (detail) detail.hidden = !open;
    detail?.querySelector('[data-act="pin"]')?.setAttribute("aria-pressed", String(this.pinned.has(key)));
    const exact = this.exact.get(key);
    const both = detail?.querySelector("[data-exact-both]");
    const told = (/** @type {("x" | "y")[]} */ (["x", "y"])).filter((name) => exact?.[name]).map((name) => `${name} = ${exact?.[name]}`);
    if (both) both.textContent = told.length ? `Exactly ${told.join(" and ")}.` : "";
    for (const name of /** @type {("x" | "y")[]} */ (["x", "y"])) {
      const place = row.querySelector(`[data-exact="${name}"]`);
      if (place) place.textContent = exact?.[name] ?? "";
      if (place && exact?.[name]) place.setAttribute("title", `${name} = ${exact[name]}`);
    }
  }

  /** Exact forms, which come later than the decimals. @param {Record<string, {x?: string, y?: string}>} found */
  showExact(found) {
    this.exact = new Map(Object.entries(found));
    for (const row of this.page.querySelectorAll("tr[data-mark]")) this.dress(row);
  }

  /** @param {Event} event */
  clicked(event) {
    const target = /** @type {HTMLElement} */ (event.target);
    const row = target.closest("tr");
    const act = target.closest("[data-act]")?.getAttribute("data-act");
    const owner = row?.classList.contains("detail") ? row.previousElementSibling : row;
    const key = owner?.getAttribute("data-mark") ?? "";
    if (act === "why") this.toggle(this.opened, key);
    else if (act === "pin") this.pin(key);
    else if (act === "copy") this.copy(target.closest("[data-copy]")?.getAttribute("data-copy") ?? "", "Copied.");
    else if (act === "copy-list") this.copyList(/** @type {HTMLElement} */ (target.closest("h3")));
    else if (act === "copy-all" || act === "csv") this.take(act);
    else if (act === "unpin") this.clearPins();
    else if (act === "line" || act === "instead") {
      const button = /** @type {HTMLElement} */ (target.closest("[data-act]"));
      const text = button.getAttribute("data-line");
      this.told.edit(act === "line" ? { do: "add lane", text } : { do: "revise lane", id: button.getAttribute("data-of"), text });
    }
    else if (key && !row?.classList.contains("detail")) this.select(key);
  }

  /** @param {Set<string>} set @param {string} key */
  toggle(set, key) {
    if (!set.delete(key)) set.add(key);
    const row = this.row(key);
    if (row) this.dress(row);
  }

  /** @param {string} key */
  pin(key) {
    this.toggle(this.pinned, key);
    this.keepPins();
  }
  clearPins() {
    this.pinned.clear();
    for (const row of this.page.querySelectorAll("tr[data-mark]")) this.dress(row);
    this.keepPins();
  }
  keepPins() {
    write(this.memory(), this.pinned.size ? [...this.pinned] : null);
    this.unpinButton();
    this.told.changed();
  }
  unpinButton() {
    const button = /** @type {HTMLElement | null} */ (this.page.querySelector('[data-act="unpin"]'));
    if (button) button.hidden = this.pinned.size === 0;
  }

  /** Select a landmark everywhere and read there. @param {string} key */
  select(key) {
    const before = this.selected;
    this.selected = key;
    for (const changed of [before, key]) {
      const row = changed && this.row(changed);
      if (row) this.dress(row);
    }
    const mark = this.marks.find((m) => m.key === key);
    if (mark) this.told.go(mark.x);
    const list = this.row(key)?.closest("details");
    if (list) list.open = true;
    this.row(key)?.scrollIntoView({ block: "nearest" });
    this.told.heard(this.inWords(key));
    this.told.changed();
  }

  /** A landmark for whoever hears the page. @param {string} key */
  inWords(key) {
    const row = this.row(key);
    if (!row) return "";
    const [, x, y] = [...row.querySelectorAll("td")].map((cell) => cell.textContent?.trim() ?? "");
    const how = row.querySelector('[data-act="why"]')?.getAttribute("aria-label")?.replace(/\.? Why\?$/, "") ?? "";
    const list = row.closest("details");
    const of = list?.hasAttribute("data-lane") ? (list.getAttribute("aria-label") ?? "").replace("Landmarks of", "of") : "";
    return [how, of, `x ${x}`, y && `y ${y}`].filter(Boolean).join(", ");
  }

  /** The next landmark right (1) or left (−1) of x. @param {number} step @param {number} x */
  next(step, x) {
    const at = this.marks.findIndex((m) => m.key === this.selected && m.x === x);
    if (at >= 0 && this.marks[at + step]?.x === x) return this.select(this.marks[at + step].key);
    const beyond = step > 0 ? this.marks.filter((m) => m.x > x) : this.marks.filter((m) => m.x < x).reverse();
    if (beyond.length) this.select(beyond[0].key);
    return undefined;
  }

  /** @param {string} text @param {string} done */
  async copy(text, done) {
    try {
      await navigator.clipboard.writeText(text);
      this.told.told(done);
    } catch {
      this.told.told("The browser does not allow copying here.");
    }
  }

  /** What stands below a heading, a row each: x and y in full, then exact forms. @param {HTMLElement} heading */
  copyList(heading) {
    const rows = /** @type {NodeListOf<HTMLElement>} */ (heading.nextElementSibling?.querySelectorAll("tr[data-mark]"));
    const lines = [...rows].map((row) => {
      const y = row.querySelector('td[title^="y = "]')?.getAttribute("title")?.slice(4) ?? "";
      const exact = this.exact.get(row.getAttribute("data-mark") ?? "");
      return [row.getAttribute("data-x"), y, exact?.x ?? "", exact?.y ?? ""].join("\t").trimEnd();
    });
    return this.copy(lines.join("\n"), lines.length === 1 ? "One row copied." : `${lines.length} rows copied.`);
  }

  /** All landmarks, to the clipboard or as a file. @param {string} act */
  async take(act) {
    let text = "";
    try {
      text = await sendText(`/api/sheets/${this.told.key()}/landmarks.csv`, this.told.wanted());
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      this.told.told(`The landmarks could not be taken: ${trouble.message}`);
      return;
    }
    if (act === "csv") {
      const link = document.createElement("a");
      link.href = URL.createObjectURL(new Blob([text], { type: "text/csv" }));
      link.download = "landmarks.csv";
      link.click();
      unwatched(() => URL.revokeObjectURL(link.href), 1000);
    } else {
      await this.copy(text, "All landmarks copied.");
    }
  }

  /** Ask for exact forms of what is shown. @param {object} wanted @param {() => boolean} stands */
  async askExact(wanted, stands) {
    const found = await send("POST", `/api/sheets/${this.told.key()}/exact`, wanted);
    if (!stands()) return found;
    this.showExact(found.forms);
    for (const [lane, text] of Object.entries(found.asymptotes)) {
      const place = this.page.querySelector(`details[data-lane="${CSS.escape(lane)}"] [data-asymptotes]`);
      if (place) place.textContent = /** @type {string} */ (text);
    }
    this.told.values(found.values);
    return found;
  }
}
