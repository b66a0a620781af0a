// @ts-check
/** A table of many rows: only those in sight are on the page, the others are asked for as it scrolls. */

import { render } from "../lanes/formulas.js";
import { Queue } from "../sheet/queue.js";

const ROW = 27; // pixels, as in the style sheet
const CHUNK = 160; // rows on the page
const EDGE = 30; // rows from the end of these at which others are asked for

/**
 * @typedef {{title: string, latex: string, swatch: string, text: string, error: string, kind: string, decimals: number}} Column
 * @typedef {{row: number, event: string, words: string, x: number | null, solution: boolean, between: boolean}} RowMark
 * @typedef {{variable: string, unit?: string, sliders: string[], ofTwo: string[], id: string, trouble: string, field?: string, count: number, first: number,
 *   row: number | null, columns: Column[], names: string[], x: number[], shownX: string[], cells: string[][],
 *   reasons: Record<string, string>, marks: RowMark[]}} Chunk
 */

export class Grid {
  /**
   * @param {HTMLElement} place
   * @param {{ask: (wanted: object) => Promise<Chunk | null>, go: (x: number) => void, finer: (row: number) => void,
   *   column: (act: string, index: number) => void, shown: (chunk: Chunk) => void}} told
   */
  constructor(place, told) {
    this.place = place;
    this.told = told;
    this.requests = new Queue();
    /** @type {Chunk | null} */
    this.chunk = null;
    /** The place that is read, whose nearest row is selected. @type {number | null} */
    this.reading = null;
    place.addEventListener("scroll", () => this.scrolled());
    place.addEventListener("click", (event) => this.clicked(event));
  }

  /** Rows again, from where the table is scrolled to then. */
  refresh() {
    return this.requests.run(() => this.fetch({ first: this.chunk?.first ?? 0, count: CHUNK }));
  }

  /** Other rows, asked for by hand. @param {object} wanted */
  load(wanted) {
    return this.requests.ask(() => this.fetch(wanted));
  }

  /** @param {object} wanted */
  async fetch(wanted) {
    const chunk = await this.told.ask(wanted);
    if (!chunk) return;
    this.chunk = chunk;
    this.draw();
    this.told.shown(chunk);
    if ("near" in wanted && chunk.row !== null) this.reveal(chunk.row);
  }

  scrolled() {
    const { chunk } = this;
    if (!chunk || !chunk.count) return;
    const top = Math.floor(this.place.scrollTop / ROW);
    const rows = Math.ceil(this.place.clientHeight / ROW);
    const end = chunk.first + chunk.x.length;
    const before = top < chunk.first + EDGE && chunk.first > 0;
    const after = top + rows > end - EDGE && end < chunk.count;
    if (before || after) this.load({ first: Math.max(0, top - Math.floor((CHUNK - rows) / 2)), count: CHUNK });
  }

  /** The row nearest to a reading, scrolled to where it is not on the page. @param {number} x @param {boolean} far */
  read(x, far) {
    this.reading = x;
    const { chunk } = this;
    if (!chunk || !chunk.x.length) return;
    const low = Math.min(chunk.x[0], chunk.x[chunk.x.length - 1]);
    const high = Math.max(chunk.x[0], chunk.x[chunk.x.length - 1]);
    const whole = chunk.x.length === chunk.count;
    if (whole || (x >= low && x <= high)) {
      this.select();
      if (far) this.reveal(chunk.first + this.nearest());
    } else if (far) {
      this.load({ near: x, count: CHUNK });
    }
  }

  nearest() {
    const { x } = /** @type {Chunk} */ (this.chunk);
    const at = /** @type {number} */ (this.reading);
    let best = 0;
    for (let k = 1; k < x.length; k += 1) if (Math.abs(x[k] - at) < Math.abs(x[best] - at)) best = k;
    return best;
  }

  select() {
    if (this.reading === null || !this.chunk?.x.length) return;
    const row = this.chunk.first + this.nearest();
    for (const other of this.place.querySelectorAll("tr.is-selected")) other.classList.remove("is-selected");
    this.place.querySelector(`tr[data-row="${row}"]`)?.classList.add("is-selected");
  }

  /** @param {number} row */
  reveal(row) {
    const found = /** @type {HTMLElement | null} */ (this.place.querySelector(`tr[data-row="${row}"]`));
    if (!found) return;
    const top = found.offsetTop;
    const { scrollTop, clientHeight } = this.place;
    if (top < scrollTop + ROW * 2 || top > scrollTop + clientHeight - ROW * 2) this.place.scrollTop = top - clientHeight / 2;
  }

  draw() {
    const { chunk, place } = this;
    if (!chunk) return;
    const focused = document.activeElement && place.contains(document.activeElement) ? document.activeElement.getAttribute("data-focus") : null;
    const scrolled = place.scrollTop;
    if (chunk.trouble || !chunk.columns.length) {
      place.innerHTML = "";
      const told = document.createElement("p");
      told.className = chunk.trouble ? "why" : "hint";
      if (chunk.trouble) told.setAttribute("role", "alert");
      const empty = chunk.variable === "x" ? "Values appear here as soon as the sheet shows a function." : `No number of the sheet depends on ${chunk.variable}. Add a column, such as f(2).`;
      told.textContent = chunk.trouble || empty;
      place.append(told);
      return;
    }
    const table = document.createElement("table");
    table.className = "values";
    table.setAttribute("aria-rowcount", String(chunk.count + 1));
    table.innerHTML = '<caption class="visually-hidden">Table of values</caption>';
    table.append(this.head(chunk), this.body(chunk));
    place.replaceChildren(table);
    place.scrollTop = scrolled;
    this.select();
    if (focused) /** @type {HTMLElement | null} */ (place.querySelector(`[data-focus="${CSS.escape(focused)}"]`))?.focus();
  }

  /** @param {Chunk} chunk */
  head(chunk) {
    const head = document.createElement("thead");
    const row = head.insertRow();
    const corner = document.createElement("th");
    corner.scope = "col";
    corner.append(mathematics("var", chunk.variable));
    if (chunk.unit) corner.append(` (${chunk.unit})`);
    row.append(corner);
    let index = -1;
    for (const column of chunk.columns) {
      if (column.kind === "value") index += 1;
      const cell = document.createElement("th");
      cell.scope = "col";
      const face = document.createElement("span");
      face.className = "column-face";
      if (column.swatch) face.append(mathematics("span", "", column.swatch));
      if (column.latex) {
        const formula = document.createElement("span");
        render(column.latex, formula);
        face.append(formula);
      } else {
        face.append(mathematics("span", column.title));
      }
      cell.append(face);
      if (column.kind === "value") cell.append(tools(column, index, chunk.columns.filter((c) => c.kind === "value").length));
      row.append(cell);
    }
    return head;
  }

  /** @param {Chunk} chunk */
  body(chunk) {
    const body = document.createElement("tbody");
    const width = chunk.columns.length + 1;
    const marks = new Map();
    for (const mark of chunk.marks) marks.set(mark.row, [...(marks.get(mark.row) ?? []), mark]);
    if (chunk.first) body.append(spacer(chunk.first * ROW, width));
    chunk.x.forEach((x, k) => {
      const number = chunk.first + k;
      const row = body.insertRow();
      row.dataset.row = String(number);
      row.setAttribute("aria-rowindex", String(number + 2));
      const head = document.createElement("th");
      head.scope = "row";
      head.className = "num";
      const go = document.createElement("button");
      go.type = "button";
      go.dataset.x = String(x);
      go.dataset.focus = `x${number}`;
      go.title = `${chunk.variable} = ${x}${chunk.variable === "x" ? ": move the reading line there" : ""}`;
      go.textContent = chunk.shownX[k];
      if (chunk.names.length) head.append(mathematics("span", chunk.names[k], "row-name"));
      head.append(go);
      row.append(head);
      chunk.columns.forEach((column, c) => row.append(this.cell(chunk, column, c, k)));
      for (const mark of marks.get(number) ?? []) {
        if (mark.event === "on the row") {
          row.classList.add("is-hit");
          row.title = mark.words;
          head.append(mathematics("span", mark.words, "visually-hidden"));
        } else {
          body.append(this.between(mark, width));
        }
      }
    });
    const rest = chunk.count - chunk.first - chunk.x.length;
    if (rest > 0) body.append(spacer(rest * ROW, width));
    return body;
  }

  /** @param {Chunk} chunk @param {Column} column @param {number} c @param {number} k */
  cell(chunk, column, c, k) {
    const cell = document.createElement("td");
    cell.className = "num";
    const text = chunk.cells[c][k];
    const reason = column.kind === "value" ? (chunk.reasons[`${k} ${c}`] ?? column.error) : "";
    if (text === "—" && reason) {
      const why = mathematics("span", "—", "undefined");
      why.tabIndex = 0;
      why.title = reason;
      why.setAttribute("role", "img");
      why.setAttribute("aria-label", `undefined: ${reason}`);
      cell.append(why);
      return cell;
    }
    // Decimal points stand below one another: what is missing behind the point is filled up.
    const behind = text.includes("×") ? 0 : text.split(".")[1]?.length ?? -1;
    cell.append(text);
    if (column.decimals && !text.includes("×") && text !== "—") {
      const fill = mathematics("span", "", "fill");
      fill.style.width = `calc(${column.decimals - Math.max(behind, 0)} * 1ch + ${behind < 0 ? "0.29em" : "0px"})`;
      cell.append(fill);
    }
    return cell;
  }

  /** What happens between a row and the next. @param {RowMark} mark @param {number} width */
  between(mark, width) {
    const row = document.createElement("tr");
    row.className = `between ${mark.solution ? "is-solution" : ""}`;
    const cell = row.insertCell();
    cell.colSpan = width;
    const line = document.createElement("div");
    line.append(mathematics("span", "", `shape ${{ zero: "zero", cross: "intersection", pole: "pole", jump: "jump" }[mark.event] ?? "kink"}`), mathematics("span", mark.words, "words"));
    if (mark.x !== null) line.append(button("go there", { x: String(mark.x), focus: `go${mark.row}` }, "Move the reading line to the proven place"));
    if (mark.event !== "pole" && mark.event !== "jump") line.append(button("ten rows between", { finer: String(mark.row), focus: `finer${mark.row}` }, "Ten rows between these two"));
    cell.append(line);
    return row;
  }

  /** @param {Event} event */
  clicked(event) {
    const target = /** @type {HTMLElement} */ (event.target).closest("button");
    if (!target) return;
    const { x, finer, column, index } = target.dataset;
    if (x !== undefined) this.told.go(Number(x));
    else if (finer !== undefined) this.told.finer(Number(finer));
    else if (column !== undefined) this.told.column(column, Number(index));
  }
}

/** @param {string} kind @param {string} text @param {string} [name] @returns {HTMLElement} */
function mathematics(kind, text, name) {
  const made = document.createElement(kind);
  made.textContent = text;
  if (name) made.className = name;
  return made;
}

/** @param {string} face @param {Record<string, string>} data @param {string} title */
function button(face, data, title) {
  const made = document.createElement("button");
  made.type = "button";
  made.className = "mend";
  made.textContent = face;
  made.title = title;
  Object.assign(made.dataset, data);
  return made;
}

/** What can be done with a column. @param {Column} column @param {number} index @param {number} count */
function tools(column, index, count) {
  const place = document.createElement("span");
  place.className = "column-tools";
  const make = (/** @type {string} */ face, /** @type {string} */ act, /** @type {string} */ words) => {
    const made = button(face, { column: act, index: String(index), focus: `${act}${index}` }, `${words} ${column.text}`);
    made.setAttribute("aria-label", `${words} ${column.text}`);
    place.append(made);
  };
  if (index > 0) make("‹", "left", "Move to the left:");
  if (index < count - 1) make("›", "right", "Move to the right:");
  make("×", "remove", "Take the column away:");
  return place;
}

/** Room for rows that are not on the page. @param {number} height @param {number} width */
function spacer(height, width) {
  const row = document.createElement("tr");
  row.setAttribute("aria-hidden", "true");
  const cell = row.insertCell();
  cell.colSpan = width;
  cell.style.height = `${height}px`;
  cell.style.padding = "0";
  return row;
}
