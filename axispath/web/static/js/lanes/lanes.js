// @ts-check
/** The list of lanes: swaps in what the server renders, edits in place. */

import { arrange } from "./arrange.js";
import { fit, typeset } from "./formulas.js";
import { read, write } from "../sheet/session.js";

export class Lanes {
  /**
   * @param {HTMLElement} list
   * @param {{edit: (edit: object) => void, key: () => string, play: (id: string) => void, frame: (id: string) => void, surface: (id: string) => void, data: (id: string) => void, "make data": (id: string) => void}} told
   */
  constructor(list, told) {
    this.list = list;
    this.told = told;
    /** @type {Map<string, string>} */
    this.shown = new Map();
    /** Lanes whose further tools are shown. @type {Set<string>} */
    this.unfolded = new Set();
    /** @type {string | null} */
    this.focusAfter = null;
    /** What each lane is at the reading line. @type {{id: string, shown: string, reason: string | null}[]} */
    this.reading = [];
    /** Exact forms of values. @type {Record<string, string>} */
    this.exact = {};
    list.addEventListener("click", (event) => this.clicked(event));
    list.addEventListener("submit", (event) => this.submitted(event));
    list.addEventListener("keydown", (event) => this.pressed(event));
    list.addEventListener("focusout", (event) => this.left(event));
    list.addEventListener("input", (event) => this.typed(event));
    list.addEventListener("change", (event) => this.changed(event));
    arrange(list, { move: (row, to) => this.moveTo(row, to), menu: (row) => this.more(row) });
    typeset(list);
  }

  /** @param {string} id @returns {HTMLElement | null} */
  row(id) {
    return this.list.querySelector(`.lane[data-lane="${id}"]`);
  }

  /** Replace the rows that changed and no others. @param {{id: string, html: string}[]} lanes */
  show(lanes) {
    const wanted = new Set(lanes.map((lane) => lane.id));
    for (const row of this.list.querySelectorAll(".lane")) {
      if (!wanted.has(row.getAttribute("data-lane") ?? "")) row.remove();
    }
    /** @type {Element | null} */
    let before = null;
    for (const lane of lanes) {
      let row = this.row(lane.id);
      if (!row || this.shown.get(lane.id) !== lane.html) {
        const made = this.make(lane.html);
        if (row) this.replace(row, made);
        row = made;
        this.shown.set(lane.id, lane.html);
      }
      /** @type {Element | null} */
      const place = before ? before.nextElementSibling : this.list.firstElementChild;
      if (place !== row) this.list.insertBefore(row, place);
      before = row;
    }
    fit(this.list.querySelectorAll(".formula"));
    if (this.focusAfter) /** @type {HTMLElement | null} */ (this.row(this.focusAfter)?.querySelector(".formula"))?.focus();
    this.focusAfter = null;
  }

  /** The values at the reading line, each in its lane. @param {{id: string, shown: string, reason: string | null}[]} rows */
  showReading(rows) {
    this.reading = rows;
    const found = new Map(rows.map((row) => [row.id, row]));
    for (const row of this.list.querySelectorAll(".lane")) this.tellReading(row, found.get(row.getAttribute("data-lane") ?? ""));
  }

  /** @param {Element} lane @param {{shown: string, reason: string | null} | undefined} found */
  tellReading(lane, found) {
    const place = lane.querySelector(".lane-reading");
    if (!place) return;
    place.textContent = found?.shown ?? "";
    place.classList.toggle("is-none", Boolean(found?.reason));
    place.setAttribute("title", found ? (found.reason ?? `at the reading line: ${found.shown}`) : "");
  }

  /** Exact forms of values, which come later than the decimals. @param {Record<string, string>} values */
  showExact(values) {
    this.exact = values;
    for (const [id, text] of Object.entries(values)) this.tellExact(this.row(id), text);
  }

  /** @param {Element | null} lane @param {string} [text] */
  tellExact(lane, text) {
    const place = /** @type {HTMLElement | null} */ (lane?.querySelector("[data-exact-value]"));
    if (!place) return;
    place.textContent = text ? `= ${text}` : "";
    place.hidden = !text;
  }

  /** A row by its new state; a line that is being edited in it stays as it is. @param {HTMLElement} row @param {HTMLElement} made */
  replace(row, made) {
    const same = row.getAttribute("data-text") === made.getAttribute("data-text");
    const typed = same && row.classList.contains("is-editing") ? this.field(row).value : null;
    const focused = row.contains(document.activeElement) ? document.activeElement?.getAttribute("data-act") : null;
    row.replaceWith(made);
    this.dress(made);
    const id = made.getAttribute("data-lane") ?? "";
    this.tellReading(
      made,
      this.reading.find((found) => found.id === id),
    );
    if (same) this.tellExact(made, this.exact[id]);
    if (focused) /** @type {HTMLElement | null} */ (made.querySelector(`[data-act="${focused}"]`))?.focus();
    if (typed === null) {
      write(this.draftName(made), null);
    } else {
      this.open(made);
      this.field(made).value = typed;
    }
  }

  /** @param {string} html @returns {HTMLElement} */
  make(html) {
    const holder = document.createElement("template");
    holder.innerHTML = html;
    const row = /** @type {HTMLElement} */ (holder.content.firstElementChild);
    typeset(row);
    return row;
  }

  /** A formula to the clipboard. @param {HTMLElement} button */
  async copy(button) {
    try {
      await navigator.clipboard.writeText(button.getAttribute("data-given") ?? "");
      button.textContent = "Copied";
    } catch {
      button.textContent = "This browser does not let the page copy";
    }
  }

  /** @param {Event} event */
  clicked(event) {
    const button = /** @type {HTMLElement} */ (event.target).closest("[data-act]");
    const row = button?.closest(".lane");
    if (!button || !row) return;
    const id = row.getAttribute("data-lane");
    const act = button.getAttribute("data-act");
    if (act === "edit") this.open(row);
    else if (act === "hide" || act === "show") this.told.edit({ do: "show lane", id, shown: act === "show" });
    else if (act === "remove") this.told.edit({ do: "remove lane", id });
    else if (act === "respell") this.told.edit({ do: "revise lane", id, text: button.getAttribute("data-line") });
    else if (act === "keep") this.told.edit({ do: "revise lane", id, text: this.field(row).value, keep: true });
    else if (act === "mend") this.mend(row, button.querySelector("code")?.textContent ?? "");
    else if (act === "play") this.told.play(id ?? "");
    else if (act === "more") this.more(row);
    else if (act === "frame") this.told.frame(id ?? "");
    else if (act === "surface") this.told.surface(id ?? "");
    else if (act === "data" || act === "make data") this.told[act](id ?? "");
    else if (act === "fold") this.told.edit({ do: "fold lane", id, folded: !row.classList.contains("is-folded") });
    else if (act === "solve") this.told.edit({ do: "solve for", id, letter: button.getAttribute("data-letter") });
    else if (act === "line") this.told.edit({ do: "add lane", text: button.getAttribute("data-line") });
    else if (act === "level") this.told.edit({ do: "draw level", id });
    else if (act === "work") this.told.edit({ do: "add work", text: row.getAttribute("data-name") ?? "" });
    else if (act === "copy") this.copy(/** @type {HTMLElement} */ (button));
    else if (act === "duplicate") this.told.edit({ do: "duplicate lane", id });
    else if (act === "colour") this.told.edit({ do: "set colour", id, colour: Number(button.getAttribute("data-colour")) });
    else if (act === "up" || act === "down") this.move(row, act === "up" ? -1 : 1);
    else if (act === "until") this.told.edit({ do: "set domain", id, high: button.getAttribute("data-high") });
    else if (act === "run") this.told.edit({ do: "let run", id, letter: button.getAttribute("data-letter") });
    else if (act === "give") {
      // Several definitions in one line are several lanes, in one step that is undone at once.
      const names = (button.getAttribute("data-name") ?? "").split(" ");
      this.told.edit({ do: "add lane", text: names.map((name) => `${name} = 1`).join(", ") });
    }
  }

  /** @param {Element} row */
  open(row) {
    const form = /** @type {HTMLFormElement} */ (row.querySelector(".lane-edit"));
    /** @type {HTMLElement} */ (row.querySelector(".formula")).hidden = true;
    form.hidden = false;
    row.classList.add("is-editing");
    const input = this.field(row);
    input.focus();
    input.select();
  }

  /** The field in which a lane's line is edited. @param {Element} row */
  field(row) {
    return /** @type {HTMLInputElement} */ (row.querySelector(".lane-edit input"));
  }

  /** Lines that were being edited when the page was left. */
  reopen() {
    for (const row of this.list.querySelectorAll(".lane")) {
      const draft = read(this.draftName(row));
      if (draft === null || draft === row.getAttribute("data-text")) continue;
      this.open(row);
      this.field(row).value = draft;
    }
  }

  /** @param {Element} row */
  draftName(row) {
    return `axispath draft ${this.told.key()} ${row.getAttribute("data-lane")}`;
  }

  /** @param {Element} row @param {string} text */
  mend(row, text) {
    this.field(row).value = text;
    this.complain(row, ".lane-edit", "");
    this.revise(row);
  }

  /** @param {Element} row */
  shut(row) {
    const form = /** @type {HTMLFormElement} */ (row.querySelector(".lane-edit"));
    form.hidden = true;
    const formula = /** @type {HTMLElement} */ (row.querySelector(".formula"));
    formula.hidden = false;
    row.classList.remove("is-editing");
    this.complain(row, ".lane-edit", "");
    write(this.draftName(row), null);
    return formula;
  }

  /** @param {Event} event */
  submitted(event) {
    const form = /** @type {HTMLElement} */ (event.target);
    if (!form.classList.contains("lane-edit")) return;
    event.preventDefault();
    const row = form.closest(".lane");
    if (row) this.revise(row);
  }

  /** @param {Element} row */
  revise(row) {
    const input = this.field(row);
    if (input.value === row.getAttribute("data-text")) {
      this.shut(row).focus();
      return;
    }
    this.told.edit({ do: "revise lane", id: row.getAttribute("data-lane"), text: input.value });
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    const row = /** @type {HTMLElement} */ (event.target).closest(".lane");
    if (row && event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      this.move(row, event.key === "ArrowUp" ? -1 : 1);
      return;
    }
    if (event.key !== "Escape" || !row?.classList.contains("is-editing")) return;
    const input = this.field(row);
    input.value = row.getAttribute("data-text") ?? "";
    this.shut(row).focus();
  }

  /** Leaving a line that was not changed closes it. @param {FocusEvent} event */
  left(event) {
    const form = /** @type {HTMLElement} */ (event.target).closest(".lane-edit");
    const row = form?.closest(".lane");
    const input = form?.querySelector("input");
    if (row && input && input.value === row.getAttribute("data-text")) this.shut(row);
  }

  /** What else can be done with a lane. @param {Element} row */
  more(row) {
    const id = row.getAttribute("data-lane") ?? "";
    if (!this.unfolded.delete(id)) this.unfolded.add(id);
    this.dress(row);
  }

  /** @param {Element} row */
  dress(row) {
    const open = this.unfolded.has(row.getAttribute("data-lane") ?? "");
    const part = /** @type {HTMLElement | null} */ (row.querySelector(".lane-more"));
    if (open) unpack(row);
    if (part) part.hidden = !open;
    row.querySelector('[data-act="more"]')?.setAttribute("aria-expanded", String(open));
  }

  /** @param {Element} row @param {number} by */
  move(row, by) {
    const to = [...this.list.children].indexOf(row) + by;
    if (to >= 0 && to < this.list.children.length) this.moveTo(row, to);
  }

  /** @param {Element} row @param {number} to */
  moveTo(row, to) {
    this.focusAfter = row.getAttribute("data-lane");
    this.told.edit({ do: "move lane", id: row.getAttribute("data-lane"), to });
  }

  /** What the fields of a lane say about its slider, its style or its samples. @param {Element} row @param {string} part */
  fields(row, part) {
    const said = /** @type {Record<string, string | boolean>} */ ({});
    unpack(row);
    for (const field of /** @type {NodeListOf<HTMLInputElement>} */ (row.querySelectorAll(`[data-${part}]`))) {
      const name = field.getAttribute(`data-${part}`) ?? "";
      // A colour field always holds a colour; it is one's own only once it was chosen.
      if (field.type === "color") said[name] = field.hasAttribute("data-chosen") || field === document.activeElement ? field.value : "";
      else said[name] = field.type === "checkbox" ? field.checked : field.value;
    }
    return said;
  }

  /** What is being typed survives a reload. @param {Event} event */
  typed(event) {
    const input = /** @type {HTMLInputElement} */ (event.target);
    const row = input.closest(".lane-edit")?.closest(".lane");
    if (row) write(this.draftName(row), input.value);
  }

  /** @param {Event} event */
  changed(event) {
    const input = /** @type {HTMLInputElement} */ (event.target);
    const end = input.getAttribute("data-end");
    const row = input.closest(".lane");
    const id = row?.getAttribute("data-lane");
    if (row && input.hasAttribute("data-slider")) {
      this.told.edit({ do: "set slider", id, slider: this.fields(row, "slider") });
      return;
    }
    if (input.hasAttribute("data-note")) {
      this.told.edit({ do: "set note", id, note: input.value });
      return;
    }
    if (row && id && input.hasAttribute("data-style")) {
      this.told.edit({ do: "set style", id, style: this.fields(row, "style") });
      return;
    }
    if (row && id && input.hasAttribute("data-levels")) {
      this.told.edit({ do: "set levels", id, levels: input.value });
    } else if (row && id && input.hasAttribute("data-samples")) {
      this.told.edit({ do: "set samples", id, samples: { amount: "", joined: true, ...this.fields(row, "samples") } });
      return;
    }
    if (!end || !id) return;
    this.told.edit({ do: "set domain", id, [end]: input.value });
  }

  /** Show why an edit of a lane was refused, beside the field it was typed in. @param {string} id @param {string} kind @param {string} message @param {[number, number]} place @param {string | null} mend */
  refuse(id, kind, message, place, mend) {
    const row = this.row(id);
    if (!row) return false;
    const where = { "set domain": ".domain", "set slider": ".domain", "set samples": ".lane-more", "set levels": ".lane-more" }[kind] ?? ".lane-edit";
    if (!row.querySelector(where)) return false;
    this.complain(row, where, message, mend);
    if (kind === "revise lane") {
      const input = this.field(row);
      input.focus();
      if (place[1] > place[0]) input.setSelectionRange(place[0], place[1]);
    }
    return where !== ".lane-edit" || kind === "revise lane";
  }

  /** @param {Element} row @param {string} where @param {string} message @param {string | null} [mend] */
  complain(row, where, message, mend = null) {
    unpack(row);
    const told = /** @type {HTMLElement | null} */ (row.querySelector(`${where} .why`));
    if (!told) return;
    told.textContent = message;
    told.hidden = !message;
    const mends = /** @type {HTMLElement | null} */ (row.querySelector(`${where} .lane-mends`));
    if (!mends) return;
    mends.hidden = !message;
    const use = /** @type {HTMLElement} */ (mends.querySelector('[data-act="mend"]'));
    use.hidden = !mend;
    /** @type {HTMLElement} */ (use.querySelector("code")).textContent = mend;
  }

  /** Show a domain's end while its bracket is dragged. @param {string} id @param {string} end @param {string} text */
  preview(id, end, text) {
    const input = /** @type {HTMLInputElement | null} */ (this.row(id)?.querySelector(`.end[data-end="${end}"]`));
    if (input) input.value = text;
  }
}

/** The further fields of a lane, which are made when they are wanted. @param {Element} row */
function unpack(row) {
  const packed = /** @type {HTMLTemplateElement | null} */ (row.querySelector(".lane-more > template"));
  packed?.replaceWith(packed.content);
}
