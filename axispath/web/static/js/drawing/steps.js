// @ts-check
/** Steps of a method, and rows of tables, on the plot. */

import { laneColour, token } from "./style.js";

/** @typedef {import("./plot.js").Plot} Plot */
const MOST = 24; // steps that are still told apart

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawStrokes(plot, context) {
  context.save();
  context.strokeStyle = token("signal");
  context.fillStyle = token("signal");
  for (const { lines, now } of plot.strokes.slice(-MOST)) {
    context.globalAlpha = now ? 1 : 0.45;
    context.lineWidth = now ? 2 : 1.25;
    for (const line of lines) {
      context.beginPath();
      line.forEach(([x, y], k) => {
        // Without a height the line runs from edge to edge.
        const py = y === null ? (k ? 0 : plot.size.height) : Math.min(Math.max(plot.py(y), -1e5), 1e5);
        context.lineTo(plot.px(x), py);
      });
      context.stroke();
    }
  }
  context.globalAlpha = 1;
  if (plot.strokes.length && plot.strokeAt !== null) {
    context.beginPath();
    context.arc(plot.px(plot.strokeAt), plot.py(0), 4.5, 0, 2 * Math.PI);
    context.fill();
  }
  context.restore();
}

/** Rows of tables as small diamonds. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawPoints(plot, context) {
  for (const { id, x, y } of plot.points) {
    const lane = plot.lane(id);
    if (lane?.hidden) continue;
    context.fillStyle = lane ? laneColour(lane) : token("ink");
    for (let k = 0; k < x.length; k += 1) {
      const px = plot.px(x[k]);
      const py = plot.py(y[k]);
      if (px < -5 || px > plot.size.width + 5 || py < -5 || py > plot.size.height + 5) continue;
      context.beginPath();
      context.moveTo(px, py - 4.5);
      context.lineTo(px + 4.5, py);
      context.lineTo(px, py + 4.5);
      context.lineTo(px - 4.5, py);
      context.fill();
    }
  }
}
