// @ts-check
/** How the plot looks: grid, axes, numbers, title, legend. */

import { typeset } from "../lanes/formulas.js";

/** How the plot looks. @param {import("../sheet/instrument.js").Instrument} at */
export function looksPart(at) {
  const { events, plot, session } = at;
  const start = at.start.ground;
  return {
    ground: { ...start.typed },
    xTicks: { ...start.typed.x_ticks },
    yTicks: { ...start.typed.y_ticks },
    hasHead: Boolean(start.title || start.yLabel),
    groundTrouble: "",

    init() {
      events.on("changed", ({ state }) => this.showGround(state.ground));
      events.on("refused", ({ trouble, change }) => {
        const edit = "edits" in change ? /** @type {any} */ (change.edits[0]) : {};
        if (edit.do === "set ground") this.groundRefused(trouble.message);
      });
      Object.assign(at.acts, { keys: () => this.openKeys(), "equal scale": () => this.toggleEqual(), "next grid": () => this.nextGrid() });
      this.showGround(start);
    },
    toggleEqual() {
      this.ground.equal = !this.ground.equal;
      this.setGround();
    },
    nextGrid() {
      const kinds = /** @type {("fine" | "coarse" | "polar" | "none")[]} */ (["fine", "coarse", "polar", "none"]);
      this.ground.grid = kinds[(kinds.indexOf(this.ground.grid) + 1) % kinds.length];
      this.setGround();
    },
    /** @param {import("../sheet/internal.js").ShownGround} found */
    showGround(found) {
      plot.ground = found;
      if (!dialog("looks").open) {
        this.ground = { ...found.typed };
        this.xTicks = { ...found.typed.x_ticks };
        this.yTicks = { ...found.typed.y_ticks };
      }
      for (const box of /** @type {NodeListOf<HTMLInputElement>} */ (document.querySelectorAll(".mark-kinds input"))) {
        box.checked = !(found.typed.without ?? []).includes(/** @type {any} */ (box.dataset.group));
      }
      this.hasHead = Boolean(found.title || found.yLabel);
      fill("plot-title", found.title);
      fill("y-label", found.yLabel);
      fill("x-label", found.xLabel);
      fill("legend", found.legend);
      placeLegend(found.typed);
      events.tell("grounded", null);
    },
    setGround() {
      const ground = { ...this.ground, x_ticks: { ...this.xTicks }, y_ticks: { ...this.yTicks } };
      this.groundTrouble = "";
      session.change({ edits: [{ do: "set ground", ground }] });
    },
    /** Which landmarks are marked on the plot. */
    setMarks() {
      const boxes = /** @type {HTMLInputElement[]} */ ([...document.querySelectorAll(".mark-kinds input")]);
      this.ground = { ...this.ground, without: /** @type {any} */ (boxes.filter((box) => !box.checked).map((box) => box.dataset.group)) };
      this.setGround();
    },
    get isPolar() {
      return this.ground.grid === "polar";
    },
    get marksLeft() {
      const left = this.ground.without?.length ?? 0;
      return left ? `: ${left} ${left === 1 ? "kind" : "kinds"} left out` : "";
    },
    /** @param {string} message */
    groundRefused(message) {
      this.groundTrouble = message;
      const typed = session.state.ground.typed;
      if (!dialog("looks").open) this.ground = { ...typed };
    },
    openLooks() {
      this.groundTrouble = "";
      dialog("looks").showModal();
    },
    closeLooks() {
      dialog("looks").close();
    },
    openKeys() {
      dialog("keys").showModal();
    },
    closeKeys() {
      dialog("keys").close();
    },
    /** The legend is dragged, or moved with the arrow keys. @param {PointerEvent} event */
    grabLegend(event) {
      if (event.button !== 0) return;
      const legend = byId("legend");
      const box = /** @type {HTMLElement} */ (legend.parentElement).getBoundingClientRect();
      const dx = event.clientX - legend.getBoundingClientRect().left;
      const dy = event.clientY - legend.getBoundingClientRect().top;
      legend.setPointerCapture(event.pointerId);
      const move = (/** @type {PointerEvent} */ now) => {
        const x = (now.clientX - dx - box.left) / box.width;
        const y = (now.clientY - dy - box.top) / box.height;
        this.ground = { ...this.ground, ...inside(x, y) };
        placeLegend(this.ground);
      };
      const drop = () => {
        legend.removeEventListener("pointermove", move);
        legend.removeEventListener("pointerup", drop);
        legend.removeEventListener("pointercancel", drop);
        this.setGround();
      };
      legend.addEventListener("pointermove", move);
      legend.addEventListener("pointerup", drop);
      legend.addEventListener("pointercancel", drop);
    },
    /** @param {KeyboardEvent} event */
    moveLegend(event) {
      const steps = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
      const step = steps[/** @type {keyof typeof steps} */ (event.key)];
      if (!step) return;
      event.preventDefault();
      this.ground = { ...this.ground, ...inside(this.ground.legend_x + step[0] * 0.02, this.ground.legend_y + step[1] * 0.02) };
      placeLegend(this.ground);
      this.setGround();
    },
    get stepsTyped() {
      return { x: this.xTicks.kind === "step", y: this.yTicks.kind === "step" };
    },
    get hasLegend() {
      return this.ground.legend;
    },
  };
}

/** @param {string} id @returns {HTMLElement} */
const byId = (id) => /** @type {HTMLElement} */ (document.getElementById(id));

/** @param {string} id */
const dialog = (id) => /** @type {HTMLDialogElement} */ (byId(id));

/** @param {string} id @param {string} html made by the server */
function fill(id, html) {
  const place = byId(id);
  if (place.dataset.shown === html) return;
  place.dataset.shown = html;
  place.innerHTML = html;
  typeset(place);
}

/** @param {number} x @param {number} y */
const inside = (x, y) => ({ legend_x: Math.min(Math.max(x, 0), 0.95), legend_y: Math.min(Math.max(y, 0), 0.95) });

/** @param {Record<string, any>} ground */
function placeLegend(ground) {
  const legend = byId("legend");
  legend.style.left = `${ground.legend_x * 100}%`;
  legend.style.top = `${ground.legend_y * 100}%`;
}
