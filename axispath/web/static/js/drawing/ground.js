// @ts-check
/** Grid, axes and their numbers, and the rail. */

import { drawAngles, drawPolarGrid } from "./polar.js";
import { token } from "./style.js";
import { apart, numbers } from "./ticks.js";

const CLOSEST = 7; // pixels between lines of the fine grid
/** @typedef {import("./plot.js").Plot} Plot */

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawGrid(plot, context) {
  const { grid } = plot.ground.typed;
  if (grid === "none") return;
  context.lineWidth = 1;
  if (grid === "polar") {
    drawPolarGrid(plot, context);
    return;
  }
  const parts = plot.parts();
  const { x, y } = plot.ground.ticks;
  if (grid === "fine") {
    const minorX = finer(x, parts.x, plot.px(apart(x, parts.x)) - plot.px(0));
    const minorY = finer(y, parts.y, plot.py(0) - plot.py(apart(y, parts.y)));
    lines(plot, context, "grid-minor", minorX, minorY);
  }
  lines(plot, context, "grid", parts.x, parts.y);
}

/** The step between numbers divided so that it stays a plain one. @param {import("./ticks.js").Step} step @param {[number, number]} part @param {number} pixels @returns {[number, number]} */
function finer(step, part, pixels) {
  const thirds = step.sign === "°" && part[0] % 45 !== 0 && part[0] >= 15;
  const halves = step.sign === "π" && part[0] === 1 && part[1] > 1;
  const leading = Number(part[0].toPrecision(1).replace(/[.0]|e.*/g, ""));
  const shares = halves ? 2 : thirds ? 3 : leading === 2 ? 4 : 5;
  const count = pixels / shares >= CLOSEST ? shares : pixels / 2 >= CLOSEST ? 2 : 1;
  return [part[0], part[1] * count];
}

/** @param {Plot} plot @param {CanvasRenderingContext2D} context @param {string} colour @param {[number, number]} across @param {[number, number]} upwards */
function lines(plot, context, colour, across, upwards) {
  const { width, height } = plot.size;
  const { left, right, bottom, top } = plot.view;
  context.strokeStyle = token(colour);
  context.beginPath();
  for (const { at } of numbers(plot.ground.ticks.x, across, left, right)) {
    const px = Math.round(plot.px(at)) + 0.5;
    context.moveTo(px, 0);
    context.lineTo(px, height);
  }
  for (const { at } of numbers(plot.ground.ticks.y, upwards, bottom, top)) {
    const py = Math.round(plot.py(at)) + 0.5;
    context.moveTo(0, py);
    context.lineTo(width, py);
  }
  context.stroke();
}

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawAxes(plot, context) {
  const { width, height } = plot.size;
  const edge = plot.ground.typed.axes === "edge";
  const zeroX = edge ? 0.5 : Math.round(plot.px(0)) + 0.5;
  const zeroY = edge ? height - 0.5 : Math.round(plot.py(0)) + 0.5;
  context.strokeStyle = token("ink");
  context.lineWidth = 1.25;
  context.beginPath();
  if (zeroX >= 0 && zeroX <= width) {
    context.moveTo(zeroX, 0);
    context.lineTo(zeroX, height);
  }
  if (zeroY >= 0 && zeroY <= height) {
    context.moveTo(0, zeroY);
    context.lineTo(width, zeroY);
  }
  context.stroke();
}

/** The numbers of the y-axis; one that would run into a landmark goes to the other side of the axis, or away. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawNumbers(plot, context) {
  const { width, height } = plot.size;
  const edge = plot.ground.typed.axes === "edge";
  const zeroX = edge ? 0.5 : Math.round(plot.px(0)) + 0.5;
  context.font = `12px ${token("font")}`;
  context.fillStyle = token("muted");
  context.textBaseline = "middle";
  if (plot.ground.typed.grid === "polar") drawAngles(plot, context, (text, x, y) => halo(context, text, x, y));
  context.textAlign = "right";
  // The numbers of y stay in sight when the axis leaves the view.
  const labels = numbers(plot.ground.ticks.y, plot.parts().y, plot.view.bottom, plot.view.top);
  const right = numbersAt(plot, context, labels, zeroX);
  plot.numbersRight = right;
  for (const { at, text } of labels) {
    const py = plot.py(at);
    if (py < 9 || py > height - 9 || (at === 0 && !edge && zeroX > 0 && zeroX < width)) continue;
    const wide = context.measureText(text).width;
    const [left, beyond] = [right - wide, zeroX + 7];
    if (isFree(plot, left, right, py)) halo(context, text, right, py);
    else if (beyond + wide < width && isFree(plot, beyond, beyond + wide, py)) halo(context, text, beyond + wide, py);
  }
}

const MARK = 7; // pixels around the middle of a landmark that it fills

/** Whether no landmark is where a number would stand. @param {Plot} plot @param {number} left @param {number} right @param {number} y */
const isFree = (plot, left, right, y) => !plot.clusters.some((cluster) => cluster.x > left - MARK && cluster.x < right + MARK && Math.abs(cluster.y - y) < MARK + 5);

/** Where the numbers of the y-axis end. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {{text: string}[]} labels @param {number} zeroX */
function numbersAt(plot, context, labels, zeroX) {
  const widest = Math.max(0, ...labels.map((l) => context.measureText(l.text).width));
  return Math.min(Math.max(zeroX - 7, widest + 7), plot.size.width - 8);
}

/** Text that stays readable over lines. @param {CanvasRenderingContext2D} context @param {string} text @param {number} x @param {number} y */
function halo(context, text, x, y) {
  context.strokeStyle = token("plot-ground");
  context.lineWidth = 4;
  context.lineJoin = "round";
  context.strokeText(text, x, y);
  context.fillText(text, x, y);
}

/** @param {Plot} plot */
export function drawRail(plot) {
  const context = plot.rail.getContext("2d");
  if (!context) return;
  const ratio = plot.ratio || 1;
  const height = plot.rail.height / ratio;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, plot.size.width, height);
  context.strokeStyle = token("ink");
  context.fillStyle = token("ink");
  context.font = `12.5px ${token("font")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.lineWidth = 1;
  context.beginPath();
  for (const { at, text } of numbers(plot.ground.ticks.x, plot.parts().x, plot.view.left, plot.view.right)) {
    const px = Math.round(plot.px(at)) + 0.5;
    context.moveTo(px, 0);
    context.lineTo(px, 5);
    const half = context.measureText(text).width / 2;
    if (px - half > 2 && px + half < plot.size.width - 2) context.fillText(text, px, height / 2 + 3);
  }
  context.stroke();
  drawOnly(plot, context, height);
  drawSolved(plot, context, height);
  for (const x of [plot.held, plot.reading]) {
    if (x !== null) pointer(context, plot.px(x), x === plot.held);
  }
}

/** @param {CanvasRenderingContext2D} context @param {number} px @param {boolean} hollow */
function pointer(context, px, hollow) {
  context.fillStyle = token(hollow ? "rail" : "signal");
  context.strokeStyle = token("signal");
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(px, 1);
  context.lineTo(px - 6, 9);
  context.lineTo(px + 6, 9);
  context.closePath();
  context.fill();
  context.stroke();
}

/** The solution set of an inequality, with its ends filled or hollow. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {number} height */
function drawSolved(plot, context, height) {
  const y = height - 6;
  context.strokeStyle = context.fillStyle = token("spruce");
  context.lineWidth = 4;
  for (const [low, high] of plot.solved) {
    const from = low === null ? -8 : Math.max(plot.px(low), -8);
    const to = high === null ? plot.size.width + 8 : Math.min(plot.px(high), plot.size.width + 8);
    if (to < from) continue;
    context.beginPath();
    context.moveTo(from, y);
    context.lineTo(to, y);
    context.stroke();
  }
  context.lineWidth = 2;
  for (const [low, high, lowClosed, highClosed] of plot.solved) {
    for (const [x, closed] of /** @type {[number | null, boolean][]} */ ([[low, lowClosed], [high, highClosed]])) {
      if (x === null) continue;
      context.beginPath();
      context.arc(plot.px(x), y, 4, 0, 2 * Math.PI);
      context.fillStyle = token(closed ? "spruce" : "rail");
      context.fill();
      context.stroke();
    }
  }
}

/** The part of the axis that landmarks are looked for on. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {number} height */
function drawOnly(plot, context, height) {
  if (!plot.only) return;
  const from = plot.px(plot.only.low);
  const to = plot.px(plot.only.high);
  const start = Math.max(from, 0);
  context.fillStyle = token("signal");
  context.globalAlpha = 0.22;
  context.fillRect(start, 0, Math.min(to, plot.size.width) - start, height);
  context.globalAlpha = 1;
  for (const x of [from, to]) context.fillRect(x - 1, 0, 2, height);
}
