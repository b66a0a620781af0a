// @ts-check
/** A matrix typed into a grid: cells, rows and columns more or less, and the line it makes. */

const MOST = 12; // rows or columns of a grid

/** A number of cells as rows of texts. @param {number} height @param {number} width @returns {string[][]} */
export const empty = (height, width) => Array.from({ length: height }, () => Array(width).fill(""));

/** The line of a matrix; an empty cell is 0. @param {string[][]} rows */
export const asLine = (rows) => `[${rows.map((row) => row.map((cell) => cell.trim() || "0").join(", ")).join("; ")}]`;

/**
 * Show a grid in a place of the page.
 * @param {HTMLElement} host @param {string[][]} start @param {(line: string | null) => void} done gets null where it is given up
 */
export function gridIn(host, start, done) {
  let rows = start.map((row) => [...row]);
  const table = document.createElement("table");
  table.className = "matrix matrix-grid";
  table.setAttribute("aria-label", "Cells of the matrix");
  const tools = document.createElement("div");
  tools.className = "work-acts";
  host.replaceChildren(table, tools);
  host.hidden = false;

  const cells = () => /** @type {HTMLInputElement[]} */ ([...table.querySelectorAll("input")]);
  const read = () => {
    const values = cells().map((cell) => cell.value);
    rows = rows.map((row, i) => row.map((_, k) => values[i * row.length + k] ?? ""));
  };
  /** @param {number} i @param {number} k */
  const focus = (i, k) => {
    const cell = cells()[i * rows[0].length + k];
    cell?.focus();
    cell?.select();
  };
  const draw = () => {
    table.replaceChildren(
      ...rows.map((row, i) => {
        const line = document.createElement("tr");
        line.append(
          ...row.map((text, k) => {
            const place = document.createElement("td");
            const cell = document.createElement("input");
            cell.value = text;
            cell.maxLength = 100;
            cell.setAttribute("aria-label", `row ${i + 1}, column ${k + 1}`);
            place.append(cell);
            return place;
          }),
        );
        return line;
      }),
    );
  };
  /** @param {number} height @param {number} width */
  const resize = (height, width) => {
    read();
    const [h, w] = [height, width].map((n) => Math.min(Math.max(n, 1), MOST));
    rows = empty(h, w).map((row, i) => row.map((_, k) => rows[i]?.[k] ?? ""));
    draw();
  };
  const finish = (/** @type {boolean} */ kept) => {
    read();
    host.hidden = true;
    host.replaceChildren();
    done(kept ? asLine(rows) : null);
  };
  for (const [name, act] of /** @type {[string, () => void][]} */ ([
    ["Row more", () => resize(rows.length + 1, rows[0].length)],
    ["Row less", () => resize(rows.length - 1, rows[0].length)],
    ["Column more", () => resize(rows.length, rows[0].length + 1)],
    ["Column less", () => resize(rows.length, rows[0].length - 1)],
    ["Done", () => finish(true)],
    ["Give up", () => finish(false)],
  ])) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "btn-quiet";
    button.textContent = name;
    button.addEventListener("click", act);
    tools.append(button);
  }
  table.addEventListener("keydown", (event) => {
    const at = cells().indexOf(/** @type {HTMLInputElement} */ (event.target));
    const [i, k] = [Math.floor(at / rows[0].length), at % rows[0].length];
    if (event.key === "Enter") finish(true);
    else if (event.key === "Escape") finish(false);
    else if (event.key === "ArrowDown" && i + 1 < rows.length) focus(i + 1, k);
    else if (event.key === "ArrowUp" && i > 0) focus(i - 1, k);
    else return;
    event.preventDefault();
    event.stopPropagation();
  });
  draw();
  focus(0, 0);
}
