// @ts-check
/** Writing a question: its fields by its kind, with the sentence and a tried answer as a preview. */

import { Trouble, send } from "../sheet/api.js";
import { Queue } from "../sheet/queue.js";
import { cancel, soon } from "../sheet/underway.js";

const REST = 400; // ms without a key, after which the preview follows

/** @typedef {{name: string, title: string, fields: string[], example: string, by: string}} Kind */

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host @param {{asked: (more?: object) => object, change: (edit: object) => void, complain: (words: string) => void}} page */
export function writingIn(at, host, { asked, change }) {
  const folder = /** @type {HTMLDetailsElement | null} */ (host.querySelector(".question-form"));
  const form = folder?.querySelector("form");
  if (!folder || !form) return { lanes() {}, change() {} };
  const part = (/** @type {string} */ name) => /** @type {HTMLElement} */ (form.querySelector(name));
  const field = (/** @type {string} */ name) => /** @type {HTMLInputElement} */ (form.elements.namedItem(name));
  /** @type {Kind[]} */
  const kinds = JSON.parse(form.dataset.kinds ?? "[]");
  const [preview, why, tried] = [part(".question-preview"), part(".why"), part("[data-tried]")];
  const queue = new Queue();
  /** The aim of the question that is changed. @type {[string, number][]} */
  let aim = [];
  /** @type {number | undefined} */
  let resting;

  const kind = () => /** @type {Kind} */ (kinds.find((one) => one.name === field("kind").value) ?? kinds[0]);
  const split = (/** @type {string} */ text, /** @type {RegExp} */ by) =>
    text.split(by).map((one) => one.trim()).filter(Boolean);

  /** The question as it is written now. */
  function written() {
    const { name, fields } = kind();
    /** @type {any} */
    const question = { kind: name, id: field("id").value, words: field("words").value.trim() };
    for (const one of ["lane", "group", "text", "low", "high"]) if (fields.includes(one)) question[one] = field(one).value.trim();
    if (fields.includes("other") && question.group === "intersections") question.other = field("other").value;
    if (fields.includes("decimals")) question.decimals = Number(field("decimals").value) || 0;
    if (fields.includes("places")) question.places = split(field("places").value, /[,;\n]/);
    if (fields.includes("options")) question.options = split(field("options").value, /\n/);
    if (fields.includes("aim")) question.aim = question.id && aim.length ? aim : now();
    return question;
  }
  /** @returns {import("../sheet/internal.js").SentLane[]} */
  const lanesOf = () => at.session.state.lanes;
  /** The sliders as they stand. @returns {[string, number][]} */
  const now = () => lanesOf().filter((lane) => lane.kind === "number" && lane.slider).map((lane) => [lane.id, Number(lane.slider?.value)]);

  /** Only the fields of the kind are there. */
  function shown() {
    const { fields, by, example } = kind();
    for (const one of /** @type {NodeListOf<HTMLElement>} */ (form?.querySelectorAll("[data-field]") ?? [])) {
      const name = one.dataset.field ?? "";
      one.hidden = !fields.includes(name) || (name === "other" && field("group").value !== "intersections");
    }
    part("[data-try]").hidden = !["typed", "choice"].includes(by);
    field("try").placeholder = example;
    part("[data-new]").hidden = !field("id").value;
  }
  const look = () =>
    queue.run(async () => {
      try {
        const found = await send("POST", `/api/sheets/${at.session.key}/questions/try`, asked({ writing: written(), text: field("try").value }));
        part(".question-asked").textContent = found.sentence;
        tried.textContent = found.words.join(" ");
        tried.className = `verdict is-${found.verdict}`;
        preview.hidden = false;
        why.hidden = true;
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        preview.hidden = field("try").value === "";
        why.textContent = trouble.message;
        why.hidden = false;
      }
    });
  const follow = () => {
    shown();
    cancel(resting);
    resting = soon(look, REST);
  };
  form.addEventListener("input", follow);
  form.addEventListener("change", follow);
  folder.addEventListener("toggle", () => folder.open && follow());
  const empty = () => {
    form.reset();
    field("id").value = "";
    aim = [];
    preview.hidden = why.hidden = true;
    shown();
  };
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    cancel(resting);
    const question = written();
    try {
      // What cannot be asked is told here, and nothing that is written is lost.
      await send("POST", `/api/sheets/${at.session.key}/questions/try`, asked({ writing: question }));
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      why.textContent = trouble.message;
      why.hidden = false;
      return;
    }
    change({ do: "set question", question });
    empty();
    folder.open = false;
  });
  part("[data-new]").addEventListener("click", empty);

  return {
    /** The lanes that can be asked about. */
    lanes() {
      const named = lanesOf().filter((lane) => lane.can.includes("searched"));
      for (const select of /** @type {NodeListOf<HTMLSelectElement>} */ (form.querySelectorAll("[data-lanes]"))) {
        const chosen = select.value;
        select.replaceChildren(...named.map((lane) => new Option(lane.name, lane.id)));
        if (named.some((lane) => lane.id === chosen)) select.value = chosen;
      }
      const other = /** @type {HTMLSelectElement} */ (/** @type {unknown} */ (field("other")));
      if (other.selectedIndex === 0 && other.options.length > 1) other.selectedIndex = 1;
      shown();
    },
    /** Take a question up again. @param {any} question */
    change(question) {
      empty();
      for (const one of ["id", "kind", "lane", "group", "other", "text", "low", "high", "words"]) if (question[one]) field(one).value = question[one];
      field("decimals").value = question.decimals;
      field("places").value = question.places.join(", ");
      field("options").value = question.options.join("\n");
      aim = question.aim;
      folder.open = true;
      follow();
      field("words").focus();
    },
  };
}
