// @ts-check
/** A grid of cells: only the rows in sight are on the page. Arrows, Enter, Tab, paste, fill down. */

const ROW = 26; // pixels, as in the style sheet
const CHUNK = 80;

/**
 * @typedef {{name: string, title: string, formula: string, error: string}} Head
 * @typedef {{rows: number, first: number, columns: Head[], cells: string[][], out: number[], drawn?: number[]}} Rows
 */

export class DataGrid {
  /**
   * @param {HTMLElement} host
   * @param {{ask: (first: number, count: number) => Promise<Rows | null>, change: (edit: Record<string, unknown>) => void,
   *   select: (at: {x: number, y: number} | null) => void, waiting: () => boolean}} told
   */
  constructor(host, told) {
    this.host = host;
    this.told = told;
    /** @type {Rows | null} */
    this.rows = null;
    this.at = { row: 0, column: 0 };
    this.end = { row: 0, column: 0 };
    /** What was typed and is not in an answer yet, by row and column. @type {Map<string, {row: number, column: number, text: string}>} */
    this.typed = new Map();
    /** The column in which a row was begun that is typed with Tab. @type {number | null} */
    this.begun = null;
    host.innerHTML = `<div class="data-cells"><table role="grid" tabindex="0" aria-label="Rows of the data set: arrows move, typing writes, Enter goes down, Tab to the right"></table></div>
      <div class="data-rows"><button type="button" class="btn-quiet" data-row="insert" title="A row before this one">insert row</button><button type="button" class="btn-quiet" data-row="delete">delete row</button><button type="button" class="btn-quiet" data-row="out" title="Leave the row out, without deleting it, or take it in again">leave out</button><button type="button" class="btn-quiet" data-row="fill" title="The first number of the selection in all rows of it (Ctrl D)">fill down</button><button type="button" class="btn-quiet" data-row="column" title="A column more">new column</button><button type="button" class="btn-quiet" data-row="drop">delete column</button></div>`;
    this.place = /** @type {HTMLElement} */ (host.querySelector(".data-cells"));
    this.table = /** @type {HTMLTableElement} */ (host.querySelector("table"));
    this.place.addEventListener("scroll", () => this.scrolled());
    this.place.addEventListener("keydown", (event) => this.pressed(event));
    this.place.addEventListener("pointerdown", (event) => this.touched(event));
    this.place.addEventListener("dblclick", () => this.edit());
    this.place.addEventListener("paste", (event) => this.pasted(event));
    this.place.addEventListener("copy", (event) => this.copied(event));
    this.place.addEventListener("change", (event) => this.named(event));
    host.addEventListener("click", (event) => this.act(/** @type {HTMLElement} */ (event.target).closest("[data-row]")?.getAttribute("data-row") ?? ""));
  }

  start() {
    this.at = this.end = { row: 0, column: 0 };
    this.typed.clear();
    this.place.scrollTop = 0;
    return this.fetch(0);
  }

  refresh() {
    return this.fetch(this.rows?.first ?? 0);
  }

  /** @param {number} first */
  async fetch(first) {
    // What has reached the server by now is in its answer; what is on its way shows all the same.
    const known = this.told.waiting() ? [] : [...this.typed.entries()];
    const found = await this.told.ask(Math.max(0, first), CHUNK);
    if (!found) return;
    for (const [key, one] of known) if (this.typed.get(key) === one) this.typed.delete(key);
    this.rows = found;
    for (const { row, column, text } of this.typed.values()) this.put(row, column, text);
    this.host.hidden = !found.rows && !found.columns;
    this.draw();
  }

  /** A text in a cell as it shows here; rows come by themselves. @param {number} row @param {number} column @param {string} text */
  put(row, column, text) {
    const { rows } = this;
    if (!rows?.columns) return;
    while (rows.rows <= row) {
      if (rows.first + rows.cells.length === rows.rows) rows.cells.push(rows.columns.map(() => ""));
      rows.rows += 1;
    }
    const line = rows.cells[row - rows.first];
    if (line) line[column] = text;
  }

  scrolled() {
    if (!this.rows?.cells) return;
    const top = Math.floor(this.place.scrollTop / ROW);
    const shown = Math.ceil(this.place.clientHeight / ROW);
    const { first, rows, cells } = this.rows;
    if ((top < first && first > 0) || (top + shown > first + cells.length && first + cells.length < rows)) this.fetch(top - 20);
  }

  draw() {
    const { rows } = this;
    if (!rows?.columns || this.place.querySelector(".data-typed")) return;
    const out = new Set(rows.out);
    const [top, body] = [document.createElement("thead"), document.createElement("tbody")];
    const head = top.insertRow();
    const corner = document.createElement("td");
    head.append(corner);
    rows.columns.forEach((column, k) => {
      const cell = document.createElement("th");
      cell.scope = "col";
      cell.title = column.error || column.title;
      cell.className = column.error ? "is-wrong" : "";
      cell.innerHTML = `<input class="data-name" data-name="${k}" maxlength="40" autocomplete="off" spellcheck="false"><input class="data-formula" data-formula="${k}" maxlength="200" placeholder="typed" autocomplete="off" spellcheck="false">`;
      const [name, formula] = /** @type {HTMLInputElement[]} */ ([...cell.children]);
      name.value = column.name;
      name.setAttribute("aria-label", `Name of column ${k + 1}`);
      formula.value = column.formula ? `= ${column.formula}` : "";
      formula.setAttribute("aria-label", `Formula of ${column.name}; empty where numbers are typed`);
      head.append(cell);
    });
    body.append(this.spacer(rows.first));
    rows.cells.forEach((cells, k) => {
      const row = rows.first + k;
      const line = body.insertRow();
      line.className = out.has(row) ? "is-out" : "";
      line.setAttribute("aria-rowindex", String(row + 2));
      const number = document.createElement("th");
      number.scope = "row";
      number.textContent = String(row + 1);
      line.append(number);
      cells.forEach((text, column) => {
        const cell = line.insertCell();
        cell.id = `cell-${row}-${column}`;
        cell.dataset.at = `${row} ${column}`;
        cell.textContent = text;
      });
    });
    body.append(this.spacer(rows.rows - rows.first - rows.cells.length));
    const typing = this.place.contains(document.activeElement) && document.activeElement?.matches("input");
    if (typing) return;
    const { scrollTop } = this.place;
    this.table.setAttribute("aria-rowcount", String(rows.rows + 1));
    this.table.replaceChildren(top, body);
    this.place.scrollTop = scrollTop;
    this.mark();
  }

  /** @param {number} count */
  spacer(count) {
    const row = document.createElement("tr");
    row.style.height = `${Math.max(0, count) * ROW}px`;
    row.setAttribute("aria-hidden", "true");
    return row;
  }

  /** The rows and columns that are selected. */
  chosen() {
    const [top, bottom] = [this.at.row, this.end.row].sort((a, b) => a - b);
    const [left, right] = [this.at.column, this.end.column].sort((a, b) => a - b);
    return { top, bottom, left, right };
  }

  mark() {
    const { top, bottom, left, right } = this.chosen();
    this.table.setAttribute("aria-activedescendant", `cell-${this.end.row}-${this.end.column}`);
    for (const cell of /** @type {NodeListOf<HTMLElement>} */ (this.table.querySelectorAll("td[data-at]"))) {
      const [row, column] = (cell.dataset.at ?? "").split(" ").map(Number);
      const inside = row >= top && row <= bottom && column >= left && column <= right;
      cell.classList.toggle("is-selected", inside);
      cell.classList.toggle("is-here", row === this.end.row && column === this.end.column);
      cell.setAttribute("aria-selected", String(inside));
    }
  }

  /** @param {number} row @param {number} column @param {boolean} [further] */
  go(row, column, further = false) {
    if (!this.rows) return;
    const rows = this.rows.rows;
    this.end = { row: Math.min(Math.max(row, 0), rows), column: Math.min(Math.max(column, 0), this.rows.columns.length - 1) };
    if (!further) this.at = this.end;
    this.tell();
    const [top, height] = [this.end.row * ROW, this.place.clientHeight - 3 * ROW];
    if (top < this.place.scrollTop) this.place.scrollTop = top;
    if (top > this.place.scrollTop + height) this.place.scrollTop = top - height;
    this.mark();
  }

  /** Where the point of the row is that is selected. */
  tell() {
    const { first, cells, drawn } = /** @type {Rows} */ (this.rows);
    const [x, y] = (drawn ?? []).map((column) => Number(cells[this.end.row - first]?.[column] || NaN));
    this.told.select(Number.isFinite(x) && Number.isFinite(y) ? { x, y } : null);
  }

  /** The row of a point that was chosen on the plot. @param {number} row */
  async goTo(row) {
    const { rows } = this;
    if (rows && (row < rows.first || row >= rows.first + rows.cells.length)) await this.fetch(row - 20);
    this.go(row, this.end.column);
  }

  /** @param {PointerEvent} event */
  touched(event) {
    this.begun = null;
    const at = /** @type {HTMLElement} */ (event.target).closest("td")?.dataset.at;
    if (!at) return;
    const [row, column] = at.split(" ").map(Number);
    this.go(row, column, event.shiftKey);
    const drag = (/** @type {PointerEvent} */ now) => {
      const over = /** @type {HTMLElement | null} */ (document.elementFromPoint(now.clientX, now.clientY))?.closest("td")?.dataset.at;
      if (over) this.go(Number(over.split(" ")[0]), Number(over.split(" ")[1]), true);
    };
    const drop = () => window.removeEventListener("pointermove", drag);
    window.addEventListener("pointermove", drag);
    window.addEventListener("pointerup", drop, { once: true });
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    if (/** @type {HTMLElement} */ (event.target).matches("input")) return;
    const { row, column } = this.end;
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageUp: [-12, 0], PageDown: [12, 0], Enter: [event.shiftKey ? -1 : 1, 0], Home: [0, -99], End: [0, 99] }[event.key];
    const wide = (this.rows?.columns.length ?? 1) - 1;
    if (step) {
      this.begun = null;
      this.go(row + step[0], column + step[1], event.shiftKey && event.key.startsWith("Arrow"));
    } else if (event.key === "Tab" && (event.shiftKey ? column > 0 : column < wide)) {
      this.begun ??= column;
      this.go(row, column + (event.shiftKey ? -1 : 1));
    } else if (event.key === "F2") this.edit();
    else if (event.key === "Delete" || event.key === "Backspace") this.fill("");
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "d") this.act("fill");
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) this.edit(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** @param {number} row @param {number} column */
  cell(row, column) {
    return /** @type {HTMLElement | null} */ (this.place.querySelector(`[data-at="${row} ${column}"]`));
  }

  /** Type into the cell. @param {string} [begun] */
  edit(begun) {
    const { row, column } = this.end;
    if (!this.rows || this.rows.columns[column].formula) return;
    const cell = this.cell(row, column) ?? this.last(column);
    if (!cell) return;
    const before = cell.textContent ?? "";
    const field = document.createElement("input");
    field.className = "data-typed";
    field.maxLength = 200;
    field.setAttribute("aria-label", `Row ${row + 1} of ${this.rows.columns[column].name}`);
    field.value = begun ?? before;
    cell.replaceChildren(field);
    field.focus();
    let done = false;
    const leave = (/** @type {boolean} */ kept, nextRow = row, nextColumn = column) => {
      if (done) return;
      done = true;
      const text = field.value;
      cell.textContent = before;
      this.table.focus();
      if (kept && text !== before) {
        this.typed.set(`${row} ${column}`, { row, column, text });
        this.put(row, column, text);
        this.told.change({ do: "set cells", row, column, block: [[text]] });
      }
      this.draw();
      this.go(nextRow, nextColumn);
    };
    field.addEventListener("keydown", (event) => {
      if (event.key === "Enter") this.down(event.shiftKey, leave);
      else if (event.key === "Tab") this.along(event.shiftKey, leave);
      else if (event.key === "Escape") leave(false);
      else return;
      event.preventDefault();
      event.stopPropagation();
    });
    // Where another cell was clicked, that one is chosen already.
    field.addEventListener("blur", () => leave(true, this.end.row, this.end.column));
  }

  /** Enter: below; behind Tabs to where the row was begun. @param {boolean} back @param {(kept: boolean, row: number, column: number) => void} leave */
  down(back, leave) {
    const { row, column } = this.end;
    const to = this.begun ?? column;
    this.begun = null;
    leave(true, row + (back ? -1 : 1), to);
  }

  /** Tab: beside, and from the last column to where the next row begins. @param {boolean} back @param {(kept: boolean, row: number, column: number) => void} leave */
  along(back, leave) {
    const { row, column } = this.end;
    this.begun ??= column;
    if (back || column < (this.rows?.columns.length ?? 1) - 1) leave(true, row, column + (back ? -1 : 1));
    else leave(true, row + 1, this.begun);
  }

  /** A place below the last row, for one more. @param {number} column */
  last(column) {
    if (!this.rows || this.end.row < this.rows.rows) return null;
    const body = this.place.querySelector("tbody");
    if (!body) return null;
    const line = document.createElement("tr");
    line.append(document.createElement("th"), ...this.rows.columns.map(() => document.createElement("td")));
    body.append(line);
    return /** @type {HTMLElement} */ (line.children[column + 1]);
  }

  /** The same text in all selected cells. @param {string} text */
  fill(text) {
    const { top, bottom, left, right } = this.chosen();
    const line = Array.from({ length: right - left + 1 }, () => text);
    this.told.change({ do: "set cells", row: top, column: left, block: Array.from({ length: bottom - top + 1 }, () => line) });
  }

  /** @param {ClipboardEvent} event */
  pasted(event) {
    const text = event.clipboardData?.getData("text/plain");
    if (!text || /** @type {HTMLElement} */ (event.target).matches("input")) return;
    event.preventDefault();
    const lines = text.replace(/\r/g, "").replace(/\n$/, "").split("\n");
    const { top, left } = this.chosen();
    this.told.change({ do: "set cells", row: top, column: left, block: lines.map((line) => line.split("\t")) });
  }

  /** @param {ClipboardEvent} event */
  copied(event) {
    if (!this.rows || /** @type {HTMLElement} */ (event.target).matches("input")) return;
    const { top, bottom, left, right } = this.chosen();
    const { first, cells } = this.rows;
    const lines = cells.slice(Math.max(0, top - first), bottom - first + 1).map((line) => line.slice(left, right + 1).join("\t"));
    event.clipboardData?.setData("text/plain", lines.join("\n"));
    event.preventDefault();
  }

  /** A column's name or formula was typed. @param {Event} event */
  named(event) {
    const field = /** @type {HTMLInputElement} */ (event.target);
    field.blur();
    if (field.dataset.name) this.told.change({ do: "set column", index: Number(field.dataset.name), name: field.value.trim() });
    if (field.dataset.formula) this.told.change({ do: "set column", index: Number(field.dataset.formula), formula: field.value.replace(/^\s*=\s*/, "") });
  }

  /** @param {string} act */
  act(act) {
    if (!act || !this.rows) return;
    const { top, bottom, left, right } = this.chosen();
    const count = bottom - top + 1;
    const first = this.cell(top, left)?.textContent ?? "";
    if (act === "insert" || act === "delete") this.told.change({ do: "set rows", act, row: top, count });
    else if (act === "out") this.told.change({ do: "set rows", act: this.rows.out.includes(top) ? "take in" : "leave out", row: top, count });
    else if (act === "column") this.told.change({ do: "set column", index: this.rows.columns.length });
    else if (act === "drop") this.told.change({ do: "remove column", index: left });
    else if (act === "fill" && right === left) this.told.change({ do: "set cells", row: top, column: left, block: Array.from({ length: count }, () => [first]) });
  }
}
