// @ts-check
/** The page Working: lines of calculation, edited in place; what depends on them follows. */

import { typeset } from "../lanes/formulas.js";
import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";
import { equationsIn } from "./equations.js";
import { gridIn } from "./matrixgrid.js";
import { Reduction } from "./reducing.js";
import { WorkEntry } from "./workentry.js";
import { update } from "../sheet/update.js";
import { cancel, soon } from "../sheet/underway.js";

const LATE = 700; // ms after which exact forms that were not ready are asked for again
const MOST_ASKED = 4;
const REST = 300; // ms without a key, after which a system that is typed is kept
/** The next form of a line, with one key. @type {Record<string, string>} */
const NEXT = { "": "decimal", decimal: "exact" };

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host */
export function workingIn(at, host) {
  const { session, events, plot } = at;
  const queue = new Queue();
  const standing = new Standing();
  const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (host.querySelector(name));
  const [list, names] = [part(".work-lines"), part("[data-names]")];
  const search = /** @type {HTMLInputElement} */ (part("#work-search"));
  const digits = /** @type {HTMLSelectElement} */ (part("#work-digits"));
  const notation = /** @type {HTMLSelectElement} */ (part("#work-notation"));
  const measures = /** @type {HTMLSelectElement} */ (part("#work-measures"));
  const rows = new Reduction(at, part(".work-rows"));
  /** How many lines there were when one was added: the new one is brought into sight. @type {number | null} */
  let countBefore = null;
  const entry = new WorkEntry(part(".work-entry"), {
    known: () => [...used(), ...at.start.words],
    entered: (text) => {
      countBefore = list.querySelectorAll("[data-work]").length;
      change({ do: "add work", text });
    },
  });
  /** The names of the sheet, to complete a word with. */
  const used = () =>
    [...names.querySelectorAll("tbody tr")].map((row) => {
      const signature = /** @type {HTMLElement} */ (row.querySelector("[data-name]")).dataset.name ?? "";
      return { name: signature.split("(")[0], signature, help: row.children[1].textContent ?? "" };
    });
  const complain = (/** @type {string} */ words) => entry.complain(words);
  const equations = equationsIn(at, part(".work-blocks"), { complain, copied: (text, button) => copied(text, button) });
  part("[data-add-block]").addEventListener("click", () => equations.add());
  /** Carry on after a request; what the server refuses is said. @param {Promise<unknown>} asked */
  const said = (asked) =>
    asked.catch((trouble) => {
      if (!(trouble instanceof Trouble)) throw trouble;
      complain(trouble.message);
    });
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
      // A line that is written in a way of its own says what it should already.
      if (!place || !text || place.textContent || lineOf(place)?.written.form) continue;
      const decimal = place.parentElement?.querySelector(".work-decimal");
      decimal?.removeAttribute("title");
      // Asked again, the decimal may say so already.
      if ([`≈ ${text}`, `= ${text}`].includes(decimal?.textContent ?? "")) /** @type {Element} */ (decimal).textContent = `= ${text}`;
      else place.textContent = `= ${text}`;
      place.parentElement?.querySelector(".work-why")?.remove();
    }
    if (found.late && again) soon(() => exact(again - 1).catch(() => null), LATE);
  }
  /** Show or close what can be done with a line. @param {HTMLElement} line @param {boolean} shown */
  const unfold = (line, shown) => {
    line.querySelector(".work-menu")?.toggleAttribute("hidden", !shown);
    line.querySelector("[data-more]")?.setAttribute("aria-expanded", String(shown));
  };
  const refresh = () => {
    equations.refresh();
    return lines();
  };
  const lines = () =>
    queue.run(async () => {
      const stands = standing.ask();
      try {
        const found = await send("POST", `/api/sheets/${session.key}/working`, { head: session.state.head, preview: at.sliders.edits() });
        if (!stands() || list.querySelector("input")) return;
        update(list, found.html);
        update(names, found.names);
        sift();
        typeset(list);
        if (countBefore !== null && list.querySelectorAll("[data-work]").length > countBefore) {
          list.lastElementChild?.scrollIntoView({ block: "nearest" });
          countBefore = null;
        }
        digits.value = String(session.state.digits ?? 6);
        notation.value = session.state.notation ?? "";
        measures.value = session.state.measures ?? "SI";
        if (rows.asked.id) await rows.refresh().catch(() => rows.close());
        if (found.count) await exact();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
    });

  /** The line that something belongs to. @param {EventTarget | null} target */
  const lineOf = (target) => {
    const line = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (target).closest("[data-work]"));
    return line?.dataset.work ? { line, id: line.dataset.work, written: JSON.parse(line.dataset.written ?? "{}") } : null;
  };
  /** @param {string} text @param {HTMLElement} button */
  const copied = async (text, button) => {
    try {
      await navigator.clipboard.writeText(text);
      button.textContent = "Copied";
    } catch {
      complain("This browser does not let the page copy.");
    }
  };
  /** What each button of a line does. @type {Record<string, (of: NonNullable<ReturnType<typeof lineOf>>, given: string, button: HTMLElement) => void>} */
  const ACTS = {
    more: ({ line }) => {
      const shown = Boolean(line.querySelector(".work-menu[hidden]"));
      for (const other of list.querySelectorAll(".work-line")) unfold(/** @type {HTMLElement} */ (other), false);
      unfold(line, shown);
    },
    edit: ({ line, id }) => rewrite(line, id),
    remove: ({ id }) => change({ do: "remove lane", id }),
    send: ({ id }) => change({ do: "move work", id, working: false }),
    rest: ({ id, written }) => change({ do: "write line", id, written: { ...written, rests: !written.rests } }),
    again: ({ id }, given) => change({ do: "revise lane", id, text: given, keep: true }),
    point: (_, given) => change({ do: "add lane", text: given }),
    lane: (_, given) => change({ do: "add lane", text: given }),
    copy: (_, given, button) => said(copied(given, button)),
    grid: ({ line, id }, given) => {
      const name = /^\s*[^=[]+=\s*/.exec(line.dataset.text ?? "")?.[0] ?? "";
      gridIn(/** @type {HTMLElement} */ (line.querySelector(".work-menu")), JSON.parse(given), (text) => {
        if (text) change({ do: "revise lane", id, text: name + text, keep: true });
        refresh();
        entry.field.focus();
      });
    },
    reduce: ({ id }) => said(rows.open({ id }).then(() => rows.host.scrollIntoView({ block: "nearest" }))),
  };
  list.addEventListener("click", (event) => {
    const of = lineOf(event.target);
    if (!of) return;
    for (const [name, act] of Object.entries(ACTS)) {
      const button = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest(`[data-${name}]`));
      if (!button || button === of.line) continue;
      act(of, button.dataset[name] ?? "", button);
      return;
    }
  });
  list.addEventListener("change", (event) => {
    const of = lineOf(event.target);
    const field = /** @type {HTMLSelectElement} */ (event.target);
    if (!of || field.tagName !== "SELECT") return;
    const [name] = ["form", "digits", "notation"].filter((one) => one in field.dataset);
    const value = name === "digits" ? (field.value ? Number(field.value) : null) : field.value;
    change({ do: "write line", id: of.id, written: { ...of.written, [name]: value } });
  });
  list.addEventListener("keydown", (event) => {
    const of = lineOf(event.target);
    if (!of || !/** @type {HTMLElement} */ (event.target).matches(".formula") || event.ctrlKey || event.metaKey || event.altKey) return;
    const step = { ArrowUp: "previousElementSibling", ArrowDown: "nextElementSibling" }[event.key];
    if (step) /** @type {HTMLElement | null} */ (/** @type {any} */ (of.line)[step]?.querySelector(".formula"))?.focus();
    else if (event.key === "d") change({ do: "write line", id: of.id, written: { ...of.written, form: NEXT[of.written.form] ?? "" } });
    else if (event.key === "r") ACTS.rest(of, "", of.line);
    else if (event.key === "Delete") ACTS.remove(of, "", of.line);
    else return;
    event.preventDefault();
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
      entry.field.focus();
    };
    field.addEventListener("keydown", (event) => {
      if (event.key === "Enter") leave(true);
      else if (event.key === "Escape") leave(false);
    });
    field.addEventListener("blur", () => leave(true));
  }
  const write = () => change({ do: "set notation", notation: notation.value, digits: Number(digits.value), measures: measures.value });
  digits.addEventListener("change", write);
  notation.addEventListener("change", write);
  measures.addEventListener("change", write);

  // Names in use

  const sift = () => {
    const wanted = search.value.trim().toLowerCase();
    for (const row of names.querySelectorAll("tbody tr")) {
      /** @type {HTMLElement} */ (row).hidden = !(row.textContent ?? "").toLowerCase().includes(wanted);
    }
  };
  search.addEventListener("input", sift);
  names.addEventListener("click", (event) => {
    const name = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest("[data-name]"))?.dataset.name;
    if (!name) return;
    entry.insert(name);
  });

  // The linear system

  const typed = /** @type {HTMLTextAreaElement} */ (part("#work-system"));
  const answer = new Reduction(at, part(".work-solution"));
  typed.value = session.state.system ?? "";
  /** @type {number | undefined} */
  let resting;
  const keep = () => {
    cancel(resting);
    if (typed.value !== (session.state.system ?? "")) change({ do: "set system", text: typed.value });
  };
  typed.addEventListener("input", () => {
    cancel(resting);
    resting = soon(keep, REST);
  });
  typed.addEventListener("blur", keep);
  const solve = () => {
    complain("");
    keep();
    return answer.open({ system: typed.value });
  };
  part(".work-system form").addEventListener("submit", (event) => {
    event.preventDefault();
    said(solve());
  });
  part("[data-draw-system]").addEventListener("click", () =>
    said(
      solve().then((found) => {
        if (!found.lines.length) complain("Lines are drawn for two unknowns, and planes for three.");
        else session.change({ edits: found.lines.map((/** @type {string} */ text) => ({ do: "add lane", text })) });
      }),
    ),
  );
  part("[data-keep-system]").addEventListener("click", () => said(solve().then((found) => change({ do: "add work", text: found.matrix }))));

  events.on("refused", ({ trouble, change: refused }) => {
    if (at.page !== "working" || !("edits" in refused)) return;
    const added = /** @type {any} */ (refused.edits.find((/** @type {any} */ edit) => edit.do === "add work"));
    countBefore = null;
    entry.complain(trouble.message, trouble.body, added?.text);
  });
  events.on("changed", () => {
    if (document.activeElement !== typed) typed.value = session.state.system ?? "";
    if (at.page === "working") refresh();
  });
  events.on("sliding", (how) => how === "lists" && at.page === "working" && refresh());

  return {
    open() {
      refresh();
      entry.field.focus();
    },
  };
}
