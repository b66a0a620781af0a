// @ts-check
/** A polar grid: circles about the pole, and rays at parts of a turn with their angles. */

import { LOOK } from "./look.js";
import { token } from "./style.js";
import { apart, numbers } from "./ticks.js";

/** @typedef {import("./plot.js").Plot} Plot */
const { rays: RAYS, named: NAMED, closest: CLOSEST, most: MOST, room: ROOM } = LOOK.polar;
const FULL = 2 * Math.PI;

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawPolarGrid(plot, context) {
  const step = apart(plot.ground.ticks.x, plot.parts().x);
  const [x, y] = [plot.px(0), plot.py(0)];
  const far = farthest(plot, x, y);
  circles(plot, context, step / 2, "grid-minor", x, y, far);
  rays(context, RAYS, "grid-minor", x, y, far);
  circles(plot, context, step, "grid", x, y, far);
  rays(context, NAMED, "grid", x, y, far);
}

/** The angles at the rays, on the widest circle about the pole that the view holds. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {(text: string, x: number, y: number) => void} write */
export function drawAngles(plot, context, write) {
  const { width, height } = plot.size;
  const [x, y] = [plot.px(0), plot.py(0)];
  const reach = Math.min(x, width - x, y, height - y) - ROOM;
  if (reach < 3 * ROOM) return;
  context.textAlign = "center";
  const degrees = plot.ground.degrees;
  const sign = degrees ? "°" : "π";
  const unit = degrees ? 1 : Math.PI;
  const part = /** @type {[number, number]} */ (degrees ? [360 / NAMED, 1] : [2, NAMED]);
  const told = numbers({ part, unit, sign, free: true }, part, 0, degrees ? 359 : FULL - 0.1);
  for (const [k, { text }] of told.entries()) {
    const angle = (k / NAMED) * FULL;
    // Along the axes there are numbers already.
    if ((k * 4) % NAMED) write(text, x + reach * Math.cos(angle), y - reach * Math.sin(angle));
  }
}

/** @param {Plot} plot @param {CanvasRenderingContext2D} context @param {number} step @param {string} colour @param {number} x @param {number} y @param {number} far */
function circles(plot, context, step, colour, x, y, far) {
  const gap = plot.px(step) - x;
  if (gap < CLOSEST) return;
  const down = y - plot.py(step);
  const first = Math.max(1, Math.floor(nearest(plot, x, y) / gap));
  context.strokeStyle = token(colour);
  context.beginPath();
  for (let k = first; k * Math.min(gap, down) <= far && k < first + MOST; k += 1) {
    context.moveTo(x + k * gap, y);
    context.ellipse(x, y, k * gap, k * down, 0, 0, FULL);
  }
  context.stroke();
}

/** @param {CanvasRenderingContext2D} context @param {number} count @param {string} colour @param {number} x @param {number} y @param {number} far */
function rays(context, count, colour, x, y, far) {
  context.strokeStyle = token(colour);
  context.beginPath();
  for (let k = 0; k < count; k += 1) {
    const angle = (k / count) * FULL;
    context.moveTo(x, y);
    context.lineTo(x + far * Math.cos(angle), y - far * Math.sin(angle));
  }
  context.stroke();
}

/** How far a corner of the view is from the pole, at most, in pixels. @param {Plot} plot @param {number} x @param {number} y */
const farthest = (plot, x, y) => Math.hypot(Math.max(Math.abs(x), Math.abs(plot.size.width - x)), Math.max(Math.abs(y), Math.abs(plot.size.height - y)));

/** And at least: 0 where the pole is in view. @param {Plot} plot @param {number} x @param {number} y */
const nearest = (plot, x, y) => Math.hypot(Math.max(0, -x, x - plot.size.width), Math.max(0, -y, y - plot.size.height));
