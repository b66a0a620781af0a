// @ts-check
/** Blocks of equations on the page Working: typed, solved as they stand, and run as a table. */

import { typeset } from "../lanes/formulas.js";
import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";
import { update } from "../sheet/update.js";
import { cancel, soon } from "../sheet/underway.js";

const REST = 350; // ms without a key, after which what is typed is kept
const MOST_LINES = 14; // that the field shows without scrolling

/**
 * @typedef {import("../sheet/schema.js").Block} Block
 * @typedef {{id: string, number: number, block: Block, rests: boolean, html: string, latex: string, text: string}} Found
 */

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host @param {{complain: (words: string) => void, copied: (text: string, button: HTMLElement) => Promise<void>}} page */
export function equationsIn(at, host, { complain, copied }) {
  const { session } = at;
  const queue = new Queue();
  const standing = new Standing();
  /** What was found last, by block. @type {Map<string, Found>} */
  const known = new Map();
  /** What is typed and not kept yet. @type {Map<string, number>} */
  const resting = new Map();
  /** The text of the table of each block. @type {Map<string, string>} */
  const tables = new Map();
  let wanted = false; // whether a new block is to have the caret

  const change = (/** @type {any} */ edit) => {
    complain("");
    session.change({ edits: [edit] });
  };
  /** The block as it was found last, with what was changed since. @param {string} id @returns {Block | undefined} */
  const current = (id) => known.get(id)?.block;
  /** @param {string} id @param {Partial<Block>} changes */
  const put = (id, changes) => {
    const block = current(id);
    const found = known.get(id);
    if (!block || !found) return;
    found.block = { ...block, ...changes };
    change({ do: "set block", id, block: found.block });
  };
  /** @param {string} id */
  const keep = (id) => {
    cancel(resting.get(id));
    resting.delete(id);
    const field = /** @type {HTMLTextAreaElement | null} */ (host.querySelector(`[data-block="${id}"] textarea`));
    const found = known.get(id);
    if (field && found && field.value !== found.block.text) put(id, { text: field.value });
  };
  /** As tall as its lines. @param {HTMLTextAreaElement} field */
  const fit = (field) => (field.rows = Math.min(MOST_LINES, Math.max(3, field.value.split("\n").length)));

  /** @param {Found} found */
  function made(found) {
    const card = document.createElement("article");
    card.className = "block";
    card.dataset.block = found.id;
    card.innerHTML = `<header><h3></h3><details class="block-more"><summary></summary><span class="block-tools"></span></details></header><textarea rows="3" maxlength="8000" spellcheck="false" autocapitalize="off" placeholder="rope = load/4&#10;load = mass g&#10;mass = 850 kg"></textarea><div class="block-found" aria-live="polite"></div>`;
    const tools = /** @type {HTMLElement} */ (card.querySelector(".block-tools"));
    for (const [act, words] of Object.entries({ copy: "Copy", latex: "Copy as LaTeX", rest: "Put to rest", remove: "Delete" })) {
      const button = document.createElement("button");
      button.type = "button";
      button.className = "btn-quiet";
      button.dataset.act = act;
      button.textContent = words;
      tools.append(button);
    }
    const field = /** @type {HTMLTextAreaElement} */ (card.querySelector("textarea"));
    field.addEventListener("input", () => {
      fit(field);
      cancel(resting.get(found.id));
      resting.set(found.id, soon(() => keep(found.id), REST));
    });
    field.addEventListener("blur", () => keep(found.id));
    return card;
  }

  /** @param {HTMLElement} card @param {Found} found */
  function filled(card, found) {
    const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (card.querySelector(name));
    part("h3").textContent = `Equations ${found.number}`;
    const more = part(".block-more summary");
    more.textContent = "more";
    more.setAttribute("aria-label", `More for equations ${found.number}`);
    part("[data-act=rest]").textContent = found.rests ? "Wake" : "Put to rest";
    card.classList.toggle("is-resting", found.rests);
    for (const name of ["copy", "latex"]) part(`[data-act=${name}]`).toggleAttribute("hidden", !found.text);
    const field = /** @type {HTMLTextAreaElement} */ (part("textarea"));
    field.setAttribute("aria-label", `Equations ${found.number}, one on each line`);
    if (!resting.has(found.id) && field.value !== found.block.text) {
      field.value = found.block.text;
      fit(field);
    }
    const place = part(".block-found");
    const running = place.querySelector(".block-run[open]") !== null;
    const focused = /** @type {HTMLElement | null} */ (place.querySelector(":focus"));
    const again = focused ? selectorOf(focused) : "";
    const unsent = running ? runOf(card) : null;
    update(place, found.html);
    for (const [name, value] of Object.entries(unsent ?? {})) {
      const input = /** @type {HTMLInputElement | null} */ (place.querySelector(`[data-run="${name}"]`));
      if (input) input.value = value;
    }
    // What had the focus may be another element now, and mean the same.
    if (focused && !focused.isConnected) /** @type {HTMLElement | null} */ (place.querySelector(again))?.focus();
    typeset(place);
  }
  /** Put the caret into the block that was just added. */
  function settle() {
    wanted = false;
    const last = /** @type {HTMLElement | null} */ (host.querySelector(".block:last-child textarea"));
    last?.focus();
    last?.scrollIntoView({ block: "nearest" });
  }
  /** How something with the focus is found again. @param {HTMLElement} element */
  function selectorOf(element) {
    const row = /** @type {HTMLElement | null} */ (element.closest("[data-of]"));
    if (row && element.dataset.field) return `[data-of="${CSS.escape(row.dataset.of ?? "")}"] [data-field=${element.dataset.field}]`;
    for (const name of ["said", "letter", "mend", "run"]) {
      if (element.dataset[name]) return `[data-${name}="${CSS.escape(element.dataset[name] ?? "")}"]`;
    }
    const radio = /** @type {HTMLInputElement} */ (element);
    return radio.name ? `[name="${CSS.escape(radio.name)}"][value="${radio.value}"]` : "";
  }
  /** @param {HTMLElement} card @param {string} name @param {boolean} shown */
  function unfold(card, name, shown) {
    card.querySelector(`.block-said[data-of="${CSS.escape(name)}"]`)?.toggleAttribute("hidden", !shown);
    card.querySelector(`[data-said="${CSS.escape(name)}"]`)?.setAttribute("aria-expanded", String(shown));
  }

  const refresh = () =>
    queue.run(async () => {
      const stands = standing.ask();
      try {
        /** @type {{blocks: Found[]}} */
        const found = await send("POST", `/api/sheets/${session.key}/equations`, { head: session.state.head, preview: at.sliders.edits() });
        if (!stands()) return;
        const before = host.querySelectorAll(".block").length;
        const ids = new Set(found.blocks.map((one) => one.id));
        for (const card of host.querySelectorAll(".block")) {
          const id = /** @type {HTMLElement} */ (card).dataset.block ?? "";
          if (!ids.has(id)) card.remove();
        }
        for (const one of found.blocks) {
          known.set(one.id, one);
          let card = /** @type {HTMLElement | null} */ (host.querySelector(`[data-block="${one.id}"]`));
          if (!card) host.append((card = made(one)));
          filled(card, one);
        }
        host.toggleAttribute("hidden", !found.blocks.length);
        if (wanted && found.blocks.length > before) settle();
        for (const card of host.querySelectorAll("[data-run-wanted]")) ran(/** @type {HTMLElement} */ (card));
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
    });

  /** The card that something belongs to. @param {EventTarget | null} target */
  const cardOf = (target) => /** @type {HTMLElement} */ (/** @type {HTMLElement} */ (target).closest("[data-block]"));
  /** What each button of a block does. @type {Record<string, (id: string, button: HTMLElement, card: HTMLElement) => void>} */
  const ACTS = {
    copy: (id, button) => copied(known.get(id)?.text ?? "", button),
    latex: (id, button) => copied(known.get(id)?.latex ?? "", button),
    rest: (id) => change({ do: "write line", id, written: { rests: !known.get(id)?.rests } }),
    remove: (id) => change({ do: "remove lane", id }),
  };
  host.addEventListener("click", (event) => {
    const button = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest("button"));
    const card = cardOf(event.target);
    const id = card?.dataset.block;
    if (!button || !id) return;
    const { act, said, letter, how, mend, line } = button.dataset;
    if (act) ACTS[act](id, button, card);
    else if (said) unfold(card, said, button.getAttribute("aria-expanded") !== "true");
    else if (letter) {
      const rest = (current(id)?.letters ?? []).filter(([one]) => one !== letter);
      put(id, { letters: /** @type {any} */ ([...rest, [letter, how]]) });
    } else if (mend !== undefined) put(id, { text: (current(id)?.text ?? "").replace(line ?? "", mend) });
    else if ("runDraw" in button.dataset) change({ do: "add data", name: "", text: tables.get(id) ?? "" });
    else if ("runCopy" in button.dataset) copied(tables.get(id) ?? "", button);
  });
  host.addEventListener("change", (event) => {
    const field = /** @type {HTMLInputElement} */ (event.target);
    const card = cardOf(field);
    const id = card?.dataset.block;
    const block = id ? current(id) : undefined;
    if (!id || !block) return;
    const group = /** @type {HTMLElement | null} */ (field.closest("[data-group]"))?.dataset.group ?? "";
    if ("choose" in field.dataset) {
      const rest = (block.chosen ?? []).filter(([name]) => name !== group);
      put(id, { chosen: /** @type {any} */ ([...rest, [group, Number(field.value)]]) });
    } else if (field.dataset.field) {
      const row = /** @type {HTMLElement} */ (field.closest("[data-of]"));
      const name = row.dataset.of ?? "";
      /** @type {any} */
      const said = { name };
      for (const one of /** @type {NodeListOf<HTMLInputElement>} */ (row.querySelectorAll("[data-field]"))) said[one.dataset.field ?? ""] = one.value;
      put(id, { unknowns: [...(block.unknowns ?? []).filter((one) => one.name !== name), said] });
    }
  });
  host.addEventListener("submit", (event) => {
    event.preventDefault();
    const card = cardOf(event.target);
    const id = card.dataset.block ?? "";
    put(id, { run: runOf(card) });
    ran(card);
  });
  /** What is typed of the table of a block. @param {HTMLElement} card */
  const runOf = (card) => {
    const value = (/** @type {string} */ name) => /** @type {HTMLInputElement | null} */ (card.querySelector(`[data-run="${name}"]`))?.value ?? "";
    return { name: value("name"), low: value("low"), high: value("high"), count: value("count") };
  };
  /** Make the table of a block. @param {HTMLElement} card */
  async function ran(card) {
    const id = card.dataset.block ?? "";
    const place = card.querySelector(".block-table");
    if (!place) return;
    const run = runOf(card);
    card.toggleAttribute("data-run-wanted", true);
    try {
      const found = await send("POST", `/api/sheets/${session.key}/equations/run`, { head: session.state.head, preview: at.sliders.edits(), id, run });
      tables.set(id, found.text);
      const now = card.querySelector(".block-table");
      if (now) now.innerHTML = found.html;
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      const now = card.querySelector(".block-table");
      const why = document.createElement("p");
      why.className = "work-why";
      why.textContent = trouble.message;
      now?.replaceChildren(why);
      tables.delete(id);
    }
  }

  return {
    refresh,
    add() {
      wanted = true;
      change({ do: "add block", text: "" });
    },
  };
}
