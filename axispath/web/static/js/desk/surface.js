// @ts-check
/** A function of two variables as a surface in place of the plot, turned by hand and by keys. */

import { laneColour } from "../drawing/style.js";
import { Trouble, send } from "../sheet/api.js";
import { Standing } from "../sheet/queue.js";

const USUAL = { around: -30, above: 30, tall: 0.6 };
const STEP = 5; // degrees of a key
const LIMITS = { above: [0, 90], tall: [0.1, 1.6] };
/** Standard directions. @type {Record<string, {around: number, above: number}>} */
const FROM = { front: { around: 0, above: 15 }, side: { around: -90, above: 15 }, above: { around: 0, above: 90 } };

/** @param {import("../sheet/instrument.js").Instrument} at */
export function surfacePart(at) {
  const { events, plot, session } = at;
  const standing = new Standing();
  /** @type {import("../drawing/surface.js").Surface | null} */
  let surface = null;
  /** @type {{x: number, y: number} | null} */
  let hand = null;
  /** @type {typeof import("../drawing/surface.js").drawSurface | null} */
  let draw = null;
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
        draw ??= (await import("../drawing/surface.js")).drawSurface;
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
      requestAnimationFrame(() => {
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
      const lane = plot.lane(surface.id);
      if (lane) draw?.(context, surface, this.turn, { width, height }, laneColour(lane));
    },
    /** @param {Partial<typeof USUAL>} change */
    turnTo(change) {
      const next = { ...this.turn, ...change };
      next.around = ((((next.around + 180) % 360) + 360) % 360) - 180;
      for (const side of /** @type {const} */ (["above", "tall"])) next[side] = Math.min(Math.max(next[side], LIMITS[side][0]), LIMITS[side][1]);
      this.turn = next;
      this.drawSoon();
    },
    /** @param {Event} event */
    lookFrom(event) {
      const name = /** @type {HTMLElement} */ (event.currentTarget).dataset.from ?? "";
      this.turnTo(name in FROM ? FROM[name] : USUAL);
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
      const { around, above, tall } = this.turn;
      /** @type {Record<string, () => void>} */
      const keys = {
        ArrowLeft: () => this.turnTo({ around: around - STEP }),
        ArrowRight: () => this.turnTo({ around: around + STEP }),
        ArrowUp: () => this.turnTo({ above: above + STEP }),
        ArrowDown: () => this.turnTo({ above: above - STEP }),
        "+": () => this.turnTo({ tall: tall + 0.1 }),
        "-": () => this.turnTo({ tall: tall - 0.1 }),
        Home: () => this.turnTo(USUAL),
        Escape: () => this.closeSurface(),
      };
      if (!(event.key in keys) || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      keys[event.key]();
    },
    get turnText() {
      return `turned by ${Math.round(this.turn.around)}°, from ${Math.round(this.turn.above)}° above`.replace("-", "−");
    },
  };
}
