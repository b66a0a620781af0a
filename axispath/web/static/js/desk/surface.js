// @ts-check
/** A function of two variables as a surface in place of the plot, turned by hand and by keys. */

import { laneColour, token } from "../drawing/style.js";
import { Trouble, send } from "../sheet/api.js";
import { Standing } from "../sheet/queue.js";
import { during, nextFrame } from "../sheet/underway.js";

const USUAL = { around: -30, above: 30, tall: 0.6 };

/** @param {import("../sheet/instrument.js").Instrument} at */
export function surfacePart(at) {
  const { events, plot, session } = at;
  const standing = new Standing();
  /** @type {import("../drawing/surface.js").Surface | null} */
  let surface = null;
  /** @type {{x: number, y: number} | null} */
  let hand = null;
  /** @type {typeof import("../drawing/surface.js") | null} */
  let kit = null;
  let asked = false;
  let arriving = false;

  return {
    surfaceOn: false,
    surfaceTrouble: "",
    surfaceId: "",
    turn: { ...USUAL },

    init() {
      at.acts.surface = (/** @type {string} */ id) => this.openSurface(id);
      events.on("changed", () => this.askSurface());
      events.on("grounded", () => this.drawSoon());
      addEventListener("resize", () => this.drawSoon());
      addEventListener("axispath-theme", () => this.drawSoon());
    },
    /** @param {string} id */
    openSurface(id) {
      this.surfaceId = id;
      this.surfaceOn = true;
      this.askSurface();
      arriving = true;
    },
    closeSurface() {
      this.surfaceOn = false;
      surface = null;
      plot.canvas.focus();
    },
    async askSurface() {
      if (!this.surfaceOn) return;
      const stands = standing.ask();
      try {
        // With the first surface only: most sheets have none.
        kit ??= await during(import("../drawing/surface.js"));
        const body = { head: session.state.head, preview: at.sliders.edits(), view: plot.view, lane: this.surfaceId };
        const found = await send("POST", `/api/sheets/${session.key}/surface`, body);
        if (!stands()) return;
        surface = found;
        this.surfaceTrouble = "";
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (stands()) this.surfaceTrouble = trouble.message;
      }
      this.drawSoon();
    },
    canvas() {
      return /** @type {HTMLCanvasElement} */ (document.getElementById("surface"));
    },
    drawSoon() {
      if (asked || !this.surfaceOn) return;
      asked = true;
      nextFrame(() => {
        asked = false;
        this.drawNow();
      });
    },
    drawNow() {
      const canvas = this.canvas();
      // Only what is shown by now can take the focus.
      if (arriving) canvas.focus();
      arriving = false;
      const context = canvas.getContext("2d");
      if (!context || !surface || !this.surfaceOn) return;
      const [width, height] = [canvas.clientWidth, canvas.clientHeight];
      const ratio = devicePixelRatio || 1;
      canvas.width = width * ratio;
      canvas.height = height * ratio;
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      const colourOf = (/** @type {string} */ id) => {
        const lane = plot.lane(id);
        return lane ? laneColour(lane) : token("ink");
      };
      kit?.drawSurface(context, surface, this.turn, { width, height }, colourOf);
    },
    /** @param {Partial<typeof USUAL>} change */
    turnTo(change) {
      this.turn = kit?.turned(this.turn, change) ?? this.turn;
      this.drawSoon();
    },
    /** @param {Event} event */
    lookFrom(event) {
      this.turnTo(kit?.FROM[/** @type {HTMLElement} */ (event.currentTarget).dataset.from ?? ""] ?? USUAL);
    },
    /** @param {Event} event */
    stretch(event) {
      this.turnTo({ tall: Number(/** @type {HTMLInputElement} */ (event.target).value) });
    },
    /** @param {PointerEvent} event */
    grasp(event) {
      if (event.button !== 0) return;
      this.canvas().setPointerCapture(event.pointerId);
      hand = { x: event.clientX, y: event.clientY };
    },
    /** @param {PointerEvent} event */
    drag(event) {
      if (!hand) return;
      const [dx, dy] = [event.clientX - hand.x, event.clientY - hand.y];
      hand = { x: event.clientX, y: event.clientY };
      this.turnTo({ around: this.turn.around + dx / 2, above: this.turn.above + dy / 2 });
    },
    drop() {
      hand = null;
    },
    /** @param {KeyboardEvent} event */
    surfaceKey(event) {
      const change = event.key === "Home" ? USUAL : kit?.keyed(event.key, this.turn);
      if ((!change && event.key !== "Escape") || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      if (change) this.turnTo(change);
      else this.closeSurface();
    },
    get turnText() {
      return `turned by ${Math.round(this.turn.around)}°, from ${Math.round(this.turn.above)}° above`.replace("-", "−");
    },
  };
}
