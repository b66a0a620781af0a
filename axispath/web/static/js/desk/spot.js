// @ts-check
/** One place of the plane on the Reading card: a second reading at y, and what lanes are there. */

import { token } from "../drawing/style.js";
import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing } from "../sheet/queue.js";
import { update } from "../sheet/update.js";

const FORM = `<form class="reading-x"><label for="reading-y"><var>y</var></label>
  <input id="reading-y" autocomplete="off" maxlength="200" placeholder="type a y, or click"></form>
  <p class="why" role="alert" hidden></p><div class="spot-rows" aria-live="polite"></div>`;

/** @param {import("../sheet/instrument.js").Instrument} at @param {HTMLElement} host */
export function spotIn(at, host) {
  const { plot, session, events } = at;
  const queue = new Queue();
  const standing = new Standing();
  /** @type {number | null} */
  let y = null;
  let typed = "";
  /** The place as it was answered last: an answer that comes while the field has the focus waits. */
  let answered = "";

  host.innerHTML = FORM;
  const [form, why, rows] = /** @type {HTMLElement[]} */ ([...host.children]);
  const field = /** @type {HTMLInputElement} */ (host.querySelector("input"));

  const complain = (/** @type {string} */ words) => {
    why.textContent = words;
    why.hidden = !words;
  };
  const ask = () => {
    const x = plot.reading;
    if (x === null || (y === null && !typed)) return;
    const stands = standing.ask();
    const wanted = { head: session.state.head, preview: at.sliders.edits(), view: plot.view, x, y: y ?? 0, typed };
    queue.run(async () => {
      try {
        const found = await send("POST", `/api/sheets/${session.key}/spot`, wanted);
        if (!stands()) return;
        if (typed && typed === wanted.typed) typed = "";
        y = found.y;
        answered = found.shown;
        if (document.activeElement !== field) field.value = answered;
        update(rows, found.html);
        complain("");
        plot.ask();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (stands()) complain(trouble.message);
      }
    });
  };
  const take = () => {
    if (!field.value.trim()) return;
    typed = field.value;
    if (plot.reading === null) events.tell("read", { x: (plot.view.left + plot.view.right) / 2, put: true });
    ask();
  };
  form.addEventListener("submit", (event) => {
    event.preventDefault();
    field.blur();
  });
  field.addEventListener("change", take);
  field.addEventListener("blur", () => {
    // What was changed is on its way by now, and its answer will stand here.
    if (!typed && answered && why.hidden) field.value = answered;
  });
  rows.addEventListener("click", (event) => {
    const line = /** @type {HTMLElement} */ (event.target).closest("[data-line]")?.getAttribute("data-line");
    if (line) session.change({ edits: [{ do: "add lane", text: line }] });
  });
  events.on("reading", ({ y: there, put }) => {
    if (put && there !== undefined) y = there;
    ask();
  });
  events.on("refresh", ask);
  events.on("sliding", (how) => how === "often" && ask());
  plot.also.push((context) => {
    if (y === null || !rows.childElementCount) return;
    const py = Math.round(plot.py(y)) + 0.5;
    context.strokeStyle = token("reading");
    context.lineWidth = 1.25;
    context.setLineDash([2, 4]);
    context.beginPath();
    context.moveTo(0, py);
    context.lineTo(plot.size.width, py);
    context.stroke();
    context.setLineDash([]);
  });

  return {
    /** Shown while there is something that lies in the plane. @param {boolean} shown */
    show(shown) {
      host.hidden = !shown;
      if (!shown) {
        rows.replaceChildren();
        y = null;
      }
    },
  };
}
