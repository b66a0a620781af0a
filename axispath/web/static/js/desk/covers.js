// @ts-check
/** Landmarks that a hand-out covers: neither drawn nor written before they are uncovered, one by one. */

import { read, write } from "../sheet/session.js";

/** @typedef {import("../drawing/plot.js").Mark} Mark */

export class Covers {
  /** @param {boolean} on @param {string} memory @param {() => void} changed */
  constructor(on, memory, changed) {
    this.on = on;
    this.memory = `axispath uncovered ${memory}`;
    this.changed = changed;
    /** @type {Set<string>} */
    this.open = new Set(on ? (read(this.memory) ?? []) : []);
  }

  /** Those that may be seen. @template {Mark} T @param {T[]} marks @returns {T[]} */
  seen(marks) {
    return this.on ? marks.filter((mark) => this.open.has(mark.key)) : marks;
  }

  /** Put a button in the place of the numbers of every row that is covered. @param {HTMLElement} page */
  dress(page) {
    if (!this.on) return;
    let number = 0;
    for (const row of /** @type {NodeListOf<HTMLTableRowElement>} */ (page.querySelectorAll("tr[data-mark]"))) {
      number += 1;
      const key = row.dataset.mark ?? "";
      if (this.open.has(key)) continue;
      const detail = row.nextElementSibling;
      if (detail?.classList.contains("detail")) detail.remove();
      const kind = row.querySelector(".shape")?.getAttribute("aria-label") ?? "landmark";
      const cell = document.createElement("td");
      cell.colSpan = row.cells.length;
      const button = document.createElement("button");
      button.type = "button";
      button.className = "btn-quiet uncover";
      button.textContent = `${kind}: uncover`;
      button.setAttribute("aria-label", `${kind} ${number}: uncover`);
      button.addEventListener("click", () => this.uncover(key));
      cell.append(button);
      row.replaceChildren(cell);
      row.removeAttribute("data-mark");
      row.removeAttribute("data-x");
    }
  }

  /** @param {string} key */
  uncover(key) {
    this.open.add(key);
    write(this.memory, [...this.open]);
    this.changed();
  }
}
