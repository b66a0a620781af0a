// @ts-check
/** The page Practise: questions answered, covered landmarks guessed at, and questions written. */

import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";
import { randomName } from "../sheet/session.js";
import { update } from "../sheet/update.js";
import { writingIn } from "./writing.js";

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host */
export function practiseIn(at, host) {
  const { session, events, plot } = at;
  const queue = new Queue();
  const standing = new Standing();
  const place = /** @type {HTMLElement} */ (host.querySelector("[data-practice]"));
  const why = /** @type {HTMLElement} */ (host.querySelector(".practise-trouble"));
  /** Whether clicks are guesses. */
  let pointing = false;

  const complain = (/** @type {string} */ words) => {
    why.textContent = words;
    why.hidden = !words;
  };
  /** What is asked is about what is seen now. */
  const asked = (/** @type {object} */ more = {}) => ({ head: session.state.head, preview: at.sliders.edits(), view: plot.view, ...more });
  const change = (/** @type {any} */ edit) => {
    complain("");
    session.change({ edits: [edit] });
  };
  const writing = writingIn(at, host, { asked, change, complain });

  const refresh = () =>
    queue.run(async () => {
      const stands = standing.ask();
      try {
        const found = await send("POST", `/api/sheets/${session.key}/practice`, asked());
        if (!stands()) return;
        update(place, found.html);
        if (!found.covered) point(false);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
    });

  /** Send a try once, however often it has to be sent. @param {string} route @param {object} more */
  const tried = (route, more) =>
    queue.ask(async () => {
      complain("");
      try {
        const found = await send("POST", `/api/sheets/${session.key}/${route}`, { ...asked(more), change: randomName() });
        if (found.state) {
          session.accept(found.state, null);
          session.told.status();
        }
        at.asking.path();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
      refresh();
    });

  /** @param {HTMLFormElement} form @param {string} name */
  const value = (form, name) => /** @type {HTMLInputElement | null} */ (form.elements.namedItem(name))?.value ?? "";
  /** What a form of the page does when it is sent. @type {Record<string, (form: HTMLFormElement) => void>} */
  const SENT = {
    guess(form) {
      const typed = value(form, "typed").trim();
      if (!typed) complain("Type where you think it is, or point at it.");
      else tried("guess", { typed, ...looked() });
    },
    answer(form) {
      const question = /** @type {HTMLElement} */ (form.closest("[data-question]")).dataset.question ?? "";
      const rows = /** @type {HTMLInputElement[]} */ ([...form.querySelectorAll("[name=row]")]).map((row) => row.value);
      tried("answer", { question, text: new FormData(form).get("text") ?? "", rows });
    },
    async name(form) {
      complain("");
      try {
        const state = await send("POST", `/api/sheets/${session.key}/name`, { name: value(form, "name") });
        session.accept(state, null);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        complain(trouble.message);
      }
      refresh();
    },
  };
  host.addEventListener("submit", (event) => {
    const form = /** @type {HTMLFormElement} */ (event.target);
    const name = Object.keys(SENT).find((one) => one in form.dataset);
    if (!name) return;
    event.preventDefault();
    SENT[name](form);
  });
  place.addEventListener("change", (event) => {
    const form = /** @type {HTMLElement} */ (event.target).closest("form");
    if (!form || !("cover" in form.dataset)) return;
    const found = new FormData(form);
    change({ do: "set cover", cover: { on: found.has("on"), groups: found.getAll("groups"), lanes: found.getAll("lanes") } });
  });
  place.addEventListener("click", (event) => {
    const button = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest("button"));
    if (!button) return;
    const id = /** @type {HTMLElement | null} */ (button.closest("[data-question]"))?.dataset.question ?? "";
    const { hint, write, move } = button.dataset;
    if (hint !== undefined) tried("hint", { step: Number(hint), ...looked() });
    else if ("point" in button.dataset) point(!pointing);
    else if (write) writing.change(JSON.parse(write));
    else if (move) change({ do: "move question", id, by: Number(move) });
    else if ("remove" in button.dataset) change({ do: "remove question", id });
  });

  /** What is looked for: the kind and the lane that are chosen. */
  function looked() {
    const form = /** @type {HTMLFormElement | null} */ (place.querySelector("[data-guess]"));
    return { group: form ? value(form, "group") : "", lane: form ? value(form, "lane") : "" };
  }
  /** @param {boolean} on */
  function point(on) {
    pointing = on;
    place.querySelector("[data-point]")?.setAttribute("aria-pressed", String(on));
    plot.canvas.classList.toggle("is-pointing", on);
  }
  events.on("read", ({ x, put, y }) => {
    // The keys move the reading too, and only a click has a height.
    if (pointing && put && y !== undefined) tried("guess", { x, y, ...looked() });
  });
  at.acts.row_read = (/** @type {number} */ x) => pointing && tried("guess", { x, y: null, ...looked() });
  /** A strip belongs to a lane, and shows no height. @param {MouseEvent} event */
  const onStrip = (event) => {
    const strip = /** @type {HTMLElement} */ (event.target).closest(".strip");
    const lane = strip?.closest(".lane")?.getAttribute("data-lane");
    if (!pointing || !strip || !lane) return;
    const box = plot.canvas.getBoundingClientRect();
    const { left, right } = plot.view;
    const x = left + ((event.clientX - box.left) / box.width) * (right - left);
    tried("guess", { x, y: null, group: looked().group, lane });
  };
  document.getElementById("lanes")?.addEventListener("click", onStrip);

  events.on("changed", () => {
    writing.lanes();
    if (at.page === "practise") refresh();
  });

  return {
    open() {
      writing.lanes();
      return refresh();
    },
  };
}
