// @ts-check
/** The entry of the page Working: names to complete, signs, earlier lines, and what is wrong with a line. */

import { empty, gridIn } from "./matrixgrid.js";
import { completed, earlier, offered, put, remember } from "../lanes/typing.js";

/** Signs of the palette: what the button shows, what it inserts, how far the caret stays behind its end. */
const SIGNS = [
  { face: "√", text: "√()", back: 1, title: "square root" },
  { face: "xⁿ", text: "^()", back: 1, title: "power" },
  { face: "a⁄b", text: "()/()", back: 4, title: "fraction" },
  { face: "π", text: "π", back: 0, title: "pi" },
  { face: "i", text: "i", back: 0, title: "imaginary unit" },
  { face: "°", text: "°", back: 0, title: "degrees" },
  { face: "|z|", text: "||", back: 1, title: "absolute value, determinant" },
  { face: "[ ; ]", text: "[1, 2; 3, 4]", back: 0, title: "matrix" },
  { face: "A⁻¹", text: "^-1", back: 0, title: "inverse" },
  { face: "Aᵀ", text: "^T", back: 0, title: "transposed" },
  { face: "∘", text: " ∘ ", back: 0, title: "product entry by entry" },
  { face: "∫", text: "integral( for x = 0 to 1)", back: 16, title: "integral" },
  { face: "lim", text: "limit( for x to 0)", back: 12, title: "limit" },
  { face: "Σ", text: "sum( for k = 1 to 10)", back: 17, title: "sum" },
];

/** The entry, with what belongs to it. */
export class WorkEntry {
  /**
   * @param {HTMLElement} form
   * @param {{known: () => import("../lanes/typing.js").Known[], entered: (text: string) => void}} page
   */
  constructor(form, { known, entered }) {
    const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (form.querySelector(name));
    this.field = /** @type {HTMLInputElement} */ (part("#work-entry"));
    this.list = part(".completions");
    this.palette = part(".palette");
    this.why = part(".why");
    this.known = known;
    this.recalled = -1;
    this.chosen = -1;
    /** @type {ReturnType<typeof offered>} */
    this.offers = [];
    for (const sign of SIGNS) {
      const button = document.createElement("button");
      button.type = "button";
      button.textContent = sign.face;
      button.title = sign.title;
      button.setAttribute("aria-label", sign.title);
      button.addEventListener("click", () => this.insert(sign.text, sign.back));
      this.palette.append(button);
    }
    const cells = document.createElement("button");
    cells.type = "button";
    cells.textContent = "grid";
    cells.title = "a matrix in a grid of cells";
    cells.setAttribute("aria-label", "matrix in a grid");
    cells.addEventListener("click", () =>
      gridIn(part(".work-cells"), empty(2, 2), (line) => {
        if (line) this.insert(line);
        else this.field.focus();
      }),
    );
    this.palette.append(cells);
    part("[data-palette]").addEventListener("click", () => this.turnPalette());
    form.addEventListener("submit", (event) => {
      event.preventDefault();
      const text = this.field.value.trim();
      if (!text) return;
      remember(text);
      this.recalled = -1;
      this.field.value = "";
      this.offer([]);
      this.complain("");
      entered(text);
    });
    this.field.addEventListener("input", () => {
      this.recalled = -1;
      this.offer(offered(this.field, this.known()));
    });
    this.field.addEventListener("keydown", (event) => this.pressed(event));
    this.list.addEventListener("mousedown", (event) => {
      const row = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest("li"));
      if (!row) return;
      event.preventDefault();
      this.take(Number(row.dataset.index));
    });
    this.why.addEventListener("click", (event) => {
      const mend = /** @type {HTMLElement} */ (event.target).dataset.mend;
      if (mend === undefined) return;
      this.field.value = mend;
      this.complain("");
      this.field.focus();
    });
  }
  /** @param {string} text @param {number} [back] */
  insert(text, back = 0) {
    const start = this.field.selectionStart ?? this.field.value.length;
    put(this.field, { start, end: this.field.selectionEnd ?? start, text, back });
  }
  turnPalette() {
    this.palette.hidden = !this.palette.hidden;
    this.field.form?.querySelector("[data-palette]")?.setAttribute("aria-expanded", String(!this.palette.hidden));
    this.field.focus();
  }
  /** @param {ReturnType<typeof offered>} offers */
  offer(offers) {
    this.offers = offers;
    this.chosen = -1;
    this.list.replaceChildren(
      ...offers.map((word) => {
        const row = document.createElement("li");
        row.id = `work-${word.id}`;
        row.dataset.index = String(word.index);
        row.setAttribute("role", "option");
        const code = document.createElement("code");
        code.textContent = word.signature;
        const help = document.createElement("span");
        help.textContent = word.help;
        row.append(code, " ", help);
        return row;
      }),
    );
    this.list.hidden = !offers.length;
    this.mark();
  }
  mark() {
    this.field.setAttribute("aria-expanded", String(this.offers.length > 0));
    [...this.list.children].forEach((row, index) => row.setAttribute("aria-selected", String(index === this.chosen)));
    const row = this.list.children[this.chosen];
    if (row) this.field.setAttribute("aria-activedescendant", row.id);
    else this.field.removeAttribute("aria-activedescendant");
  }
  /** @param {number} index */
  take(index) {
    put(this.field, completed(this.field, this.offers[index]));
    this.offer([]);
  }
  /** @param {KeyboardEvent} event */
  pressed(event) {
    const step = { ArrowUp: -1, ArrowDown: 1 }[event.key] ?? 0;
    if (this.offers.length && step) {
      const count = this.offers.length;
      this.chosen = (this.chosen + step + (this.chosen < 0 && step < 0 ? 1 : 0) + count) % count;
      this.mark();
    } else if (this.offers.length && (event.key === "Tab" || (event.key === "Enter" && this.chosen >= 0)) && !event.shiftKey) {
      this.take(Math.max(this.chosen, 0));
    } else if (this.offers.length && event.key === "Escape") {
      this.offer([]);
    } else if (step) {
      const lines = earlier();
      this.recalled = Math.min(Math.max(this.recalled - step, -1), lines.length - 1);
      this.field.value = lines[this.recalled] ?? "";
    } else {
      return;
    }
    event.preventDefault();
  }
  /** Say what is wrong with a line; it comes back where no other was begun. @param {string} words @param {any} [body] @param {string} [text] */
  complain(words, body = {}, text = "") {
    this.why.textContent = words;
    this.why.hidden = !words;
    if (text && !this.field.value) this.field.value = text;
    if (text && this.field.value === text && body.end > body.start) this.field.setSelectionRange(body.start, body.end);
    if (!body.mend) return;
    const mend = document.createElement("button");
    mend.type = "button";
    mend.className = "mend";
    mend.dataset.mend = body.mend;
    mend.textContent = `Use ${body.mend}`;
    this.why.append(" ", mend);
  }
}
