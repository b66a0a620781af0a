// @ts-check
/** The page Data: rows of a data set in a grid, its columns, what describes it, its fits, files. */

import { token } from "../drawing/style.js";
import { Trouble, fetchFile, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";
import { DataGrid } from "./datagrid.js";
import { save } from "./tables.js";

const FRAME = `<div class="table-tools">
  <label class="visually-hidden" for="data-choice">Which data set</label><select id="data-choice"></select>
  <button type="button" class="tool" data-do="new" title="An empty data set">new</button>
  <button type="button" class="tool" data-do="open" title="Open a CSV, XLSX or ODS file, or drop one on the page">open</button>
  <input type="file" hidden accept=".csv,.tsv,.txt,.xlsx,.ods,text/csv,text/plain" aria-label="A file with a table">
  <span class="spread"></span>
  <button type="button" class="btn-quiet" data-do="copy">Copy</button><button type="button" class="btn-quiet" data-do="csv">CSV</button><button type="button" class="btn-quiet" data-do="xlsx">XLSX</button></div>
  <p class="why" role="alert" hidden></p>
  <section class="data-preview" hidden aria-label="What is in the file"></section>
  <div class="data-grid"></div>
  <div class="data-panel"></div>`;

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host */
export function dataIn(at, host) {
  const { session, events, plot } = at;
  const queue = new Queue();
  const standing = new Standing();
  let chosen = "";
  let per = "";
  host.innerHTML = FRAME;
  const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (host.querySelector(name));
  const [why, preview, panel] = [part(".why"), part(".data-preview"), part(".data-panel")];
  const choice = /** @type {HTMLSelectElement} */ (part("#data-choice"));
  const file = /** @type {HTMLInputElement} */ (part("input[type=file]"));
  /** @type {File | null} */
  let looked = null;
  /** @type {{x: number, y: number} | null} */
  let marked = null;

  const complain = (/** @type {string} */ words) => {
    why.textContent = words;
    why.hidden = !words;
  };
  const tried = async (/** @type {() => Promise<void>} */ work) => {
    try {
      await work();
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      complain(trouble.message);
    }
  };
  const path = (/** @type {string} */ rest) => `/api/sheets/${session.key}/data${rest}`;
  const asked = () => ({ head: session.state.head, preview: at.preview ?? [] });
  const change = (/** @type {any} */ edit) => {
    complain("");
    session.change({ edits: [edit] });
  };
  const grid = new DataGrid(part(".data-grid"), {
    ask: (first, count) => fetchRows(first, count),
    change: (edit) => change({ id: chosen, ...edit }),
    waiting: () => session.waiting.length > 0,
    select: (place) => {
      marked = place;
      plot.ask();
    },
  });
  // The point of the selected row has a ring about it.
  plot.also.push((context) => {
    if (!marked || at.page !== "data") return;
    context.strokeStyle = token("signal");
    context.lineWidth = 2;
    context.beginPath();
    context.arc(plot.px(marked.x), plot.py(marked.y), 8, 0, 2 * Math.PI);
    context.stroke();
  });

  /** @param {number} first @param {number} count */
  async function fetchRows(first, count) {
    const stands = standing.ask();
    let found = null;
    await tried(async () => {
      found = await send("POST", path(""), { ...asked(), view: plot.view, data: chosen, first, count });
    });
    if (!found || !stands()) return null;
    show(found);
    return found;
  }

  /** @param {any} found */
  function show(found) {
    chosen = found.id;
    choice.replaceChildren(...found.sets.map((/** @type {any} */ one) => new Option(one.name, one.id, false, one.id === chosen)));
    choice.hidden = !found.sets.length;
    const open = new Set([...panel.querySelectorAll("details[open]")].map((one) => one.getAttribute("data-part")));
    const typing = panel.contains(document.activeElement) && document.activeElement?.matches("input");
    if (typing) return;
    const said = [...panel.querySelectorAll("[data-fit-lane]")].map((one) => [one.getAttribute("data-fit-lane"), one.querySelector(".predicted")?.textContent]);
    panel.innerHTML = found.html;
    for (const one of panel.querySelectorAll("details")) one.open = open.has(one.getAttribute("data-part"));
    for (const [id, words] of said) {
      const place = panel.querySelector(`[data-fit-lane="${id}"] .predicted`);
      if (place && words) place.textContent = words;
    }
  }
  const refresh = () => queue.run(() => grid.refresh());

  /** What is in a file, before anything changes. @param {File} given @param {number} [table] */
  async function look(given, table = 0) {
    looked = given;
    await tried(async () => {
      complain("");
      const found = await send("POST", `${path("/open")}?head=${session.state.head}&table=${table}&name=${encodeURIComponent(given.name)}&per=${per}`, given);
      preview.hidden = false;
      preview.innerHTML = `${found.html}<p class="data-choices"><button type="button" class="btn-quiet" data-do="keep">Put it on the sheet</button> <button type="button" class="btn-quiet" data-do="forget">Leave it</button></p>`;
      if (found.tables.length > 1) {
        const which = document.createElement("select");
        which.setAttribute("aria-label", "Which table of the file");
        which.append(...found.tables.map((/** @type {string} */ name, /** @type {number} */ k) => new Option(name, String(k), false, k === found.table)));
        which.addEventListener("change", () => look(given, Number(which.value)));
        preview.prepend(which);
      }
      preview.dataset.table = String(found.table);
      const unit = /** @type {HTMLSelectElement | null} */ (preview.querySelector("[data-per]"));
      unit?.addEventListener("change", () => {
        per = unit.value;
        look(given, found.table);
      });
      /** @type {HTMLElement} */ (preview.querySelector("[data-do=keep]")).focus();
    });
  }
  async function keep() {
    const given = looked;
    if (!given) return;
    await tried(async () => {
      const made = await send("POST", `${path("/open")}?keep=1&head=${session.state.head}&table=${preview.dataset.table}&name=${encodeURIComponent(given.name)}&per=${per}`, given);
      // Its numbers did not pass through the page: all of it comes anew.
      location.replace(`/sheet/${made.id}#data`);
      if (session.key === made.id) location.reload();
    });
  }
  /** @param {string} format */
  async function take(format) {
    await tried(async () => {
      const made = await fetchFile(path("/file"), { ...asked(), data: chosen, format });
      if (format === "tabs") {
        await navigator.clipboard.writeText(await made.text());
        events.tell("words", "The data set is copied, at full precision.");
      } else {
        save(made, `${choice.selectedOptions[0]?.text ?? "data"}.${format}`);
      }
    });
  }
  /** By hand: behind the rows that are on their way, which say what set is meant. @param {string} format */
  const taken = (format) => queue.ask(() => take(format));
  const DO = {
    new: () => change({ do: "add data" }),
    open: () => file.click(),
    copy: () => taken("tabs"),
    csv: () => taken("csv"),
    xlsx: () => taken("xlsx"),
    keep,
    forget: () => {
      preview.hidden = true;
      looked = null;
    },
  };

  host.addEventListener("click", (event) => {
    const target = /** @type {HTMLElement} */ (event.target);
    const act = target.closest("[data-do]")?.getAttribute("data-do");
    if (act) DO[/** @type {keyof typeof DO} */ (act)]();
    const lane = target.closest("[data-fit-lane]")?.getAttribute("data-fit-lane");
    if (lane && target.closest("[data-again]")) change({ do: "set fit", id: lane, again: true });
  });
  file.addEventListener("change", () => {
    const given = file.files?.[0];
    file.value = "";
    if (given) look(given);
  });
  choice.addEventListener("change", () => {
    chosen = choice.value;
    grid.start();
  });
  panel.addEventListener("change", (event) => {
    const field = /** @type {HTMLInputElement} */ (event.target);
    const lane = field.closest("[data-fit-lane]")?.getAttribute("data-fit-lane");
    if (field.dataset.draw) change({ do: "draw data", id: chosen, [field.dataset.draw]: field.value });
    else if (lane && field.dataset.held) change({ do: "set fit", id: lane, parameter: field.dataset.held, held: field.value });
    else if (lane && "squares" in field.dataset) change({ do: "set fit", id: lane, squares: field.checked });
    else if (lane && "band" in field.dataset) change({ do: "set fit", id: lane, band: field.checked });
    else if (lane && "weigh" in field.dataset) {
      const [weigh = "", weight = ""] = field.value.split(" ");
      change({ do: "set fit", id: lane, weigh, weight });
    } else if (field.name === "model") {
      for (const only of panel.querySelectorAll("[data-only]")) /** @type {HTMLElement} */ (only).hidden = only.getAttribute("data-only") !== field.value;
    }
  });
  panel.addEventListener("submit", (event) => {
    event.preventDefault();
    const form = /** @type {HTMLFormElement} */ (event.target);
    const given = Object.fromEntries(new FormData(form, event.submitter));
    const lane = form.closest("[data-fit-lane]")?.getAttribute("data-fit-lane");
    if ("fit" in form.dataset) change({ do: "add fit", data: chosen, model: given.model, x: given.x, y: given.y, degree: Number(given.degree) || 0, formula: given.formula });
    else if (lane) {
      tried(async () => {
        const found = await send("POST", path("/predict"), { ...asked(), lane, typed: String(given.x) });
        /** @type {HTMLElement} */ (form.querySelector(".predicted")).textContent = found.words;
      });
    } else if (form.dataset.arrange === "sort") change({ do: "arrange rows", id: chosen, how: given.how, column: given.column });
    else if (form.dataset.arrange === "where") change({ do: "arrange rows", id: chosen, how: "where", condition: given.condition });
    else change({ do: "arrange rows", id: chosen, how: "sample", count: Number(given.count) || 1, seed: Math.floor(Math.random() * 2 ** 31) });
  });
  events.on("refused", ({ trouble, change: refused }) => {
    if (at.page === "data" && "edits" in refused) complain(trouble.message);
  });
  events.on("changed", () => {
    preview.hidden = true;
    if (at.page === "data") refresh();
  });
  events.on("turn", (page) => page === "data" && refresh());
  events.on("sliding", (how) => how === "lists" && at.page === "data" && refresh());

  return {
    look,
    /** @param {string} id @param {number} row */
    goTo(id, row) {
      if (id === chosen) grid.goTo(row);
      else {
        chosen = id;
        grid.start().then(() => grid.goTo(row));
      }
    },
    /** @param {string} id */
    choose(id) {
      chosen = id;
      grid.start();
    },
    refresh,
  };
}
