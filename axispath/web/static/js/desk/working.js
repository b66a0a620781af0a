// @ts-check
/** The page Working: lines of calculation, edited in place; what depends on them follows. */

import { typeset } from "../lanes/formulas.js";
import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";

const LATE = 700; // ms after which exact forms that were not ready are asked for again
const MOST_ASKED = 4;
const FRAME = `<div class="table-tools"><label>digits <select id="work-digits"></select></label>
  <label>written <select id="work-notation"><option value="">as they are</option><option value="fixed">fixed places</option><option value="scientific">scientific</option><option value="engineering">engineering</option></select></label></div>
  <ol class="work-lines" aria-live="polite"></ol>
  <form class="work-entry"><label class="visually-hidden" for="work-entry">A calculation</label><input id="work-entry" autocomplete="off" autocapitalize="off" spellcheck="false" maxlength="2000" placeholder="10/14, √12, volume(2, 5) …"></form>
  <p class="why" role="alert" hidden></p>`;

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host */
export function workingIn(at, host) {
  const { session, events, plot } = at;
  const queue = new Queue();
  const standing = new Standing();
  host.innerHTML = FRAME;
  const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (host.querySelector(name));
  const [list, why, form] = [part(".work-lines"), part(".why"), part(".work-entry")];
  const entry = /** @type {HTMLInputElement} */ (part("#work-entry"));
  const digits = /** @type {HTMLSelectElement} */ (part("#work-digits"));
  const notation = /** @type {HTMLSelectElement} */ (part("#work-notation"));
  for (let count = 3; count <= 15; count += 1) digits.append(new Option(String(count)));
  /** Lines that were entered here, the last one first. @type {string[]} */
  const entered = [];
  let recalled = -1;
  let sent = "";

  const complain = (/** @type {string} */ words) => {
    why.textContent = words;
    why.hidden = !words;
  };
  const change = (/** @type {any} */ edit) => {
    complain("");
    session.change({ edits: [edit] });
  };
  /** @param {number} [again] */
  async function exact(again = MOST_ASKED) {
    const body = { head: session.state.head, preview: [], view: plot.view };
    const found = await send("POST", `/api/sheets/${session.key}/exact`, body);
    for (const [id, text] of Object.entries(found.values)) {
      const place = list.querySelector(`[data-work="${id}"] [data-exact]`);
      if (place && text && !place.textContent) place.textContent = `= ${text}`;
    }
    if (found.late && again) setTimeout(() => exact(again - 1).catch(() => null), LATE);
  }
  const refresh = () =>
    queue.run(async () => {
      const stands = standing.ask();
      try {
        const found = await send("POST", `/api/sheets/${session.key}/working`, { head: session.state.head, preview: at.sliders.edits() });
        if (!stands() || list.querySelector("input")) return;
        list.innerHTML = found.html;
        typeset(list);
        digits.value = String(session.state.digits ?? 6);
        notation.value = session.state.notation ?? "";
        if (found.count) await exact();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
    });

  form.addEventListener("submit", (event) => {
    event.preventDefault();
    const text = entry.value.trim();
    if (!text) return;
    sent = text;
    entered.unshift(text);
    recalled = -1;
    entry.value = "";
    change({ do: "add work", text });
  });
  entry.addEventListener("keydown", (event) => {
    const step = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!step) return;
    recalled = Math.min(Math.max(recalled + step, -1), entered.length - 1);
    entry.value = entered[recalled] ?? "";
    event.preventDefault();
  });
  list.addEventListener("click", (event) => {
    const target = /** @type {HTMLElement} */ (event.target);
    const line = /** @type {HTMLElement | null} */ (target.closest("[data-work]"));
    const id = line?.dataset.work;
    if (!line || !id) return;
    if (target.closest("[data-remove]")) change({ do: "remove lane", id });
    else if (target.closest("[data-send]")) change({ do: "move work", id, working: false });
    else if (target.closest("[data-edit]")) rewrite(line, id);
  });
  /** @param {HTMLElement} line @param {string} id */
  function rewrite(line, id) {
    const field = document.createElement("input");
    field.value = line.dataset.text ?? "";
    field.maxLength = 2000;
    field.setAttribute("aria-label", "This line");
    line.querySelector(".formula")?.replaceWith(field);
    field.focus();
    let done = false;
    const leave = (/** @type {boolean} */ kept) => {
      if (done) return;
      done = true;
      const text = field.value.trim();
      field.remove();
      if (kept && text && text !== line.dataset.text) change({ do: "revise lane", id, text, keep: true });
      refresh();
      entry.focus();
    };
    field.addEventListener("keydown", (event) => {
      if (event.key === "Enter") leave(true);
      else if (event.key === "Escape") leave(false);
    });
    field.addEventListener("blur", () => leave(true));
  }
  const write = () => change({ do: "set notation", notation: notation.value, digits: Number(digits.value) });
  digits.addEventListener("change", write);
  notation.addEventListener("change", write);
  events.on("refused", ({ trouble, change: refused }) => {
    if (at.page !== "working" || !("edits" in refused)) return;
    complain(trouble.message);
    if (!entry.value && sent && refused.edits.some((/** @type {any} */ edit) => edit.do === "add work")) entry.value = sent;
  });
  events.on("changed", () => at.page === "working" && refresh());
  events.on("sliding", (how) => how === "lists" && at.page === "working" && refresh());

  return {
    open() {
      refresh();
      entry.focus();
    },
  };
}
