// @ts-check
/** Landmarks on the plot: their shapes, their labels, and which is under a pixel. */

import { laneColour, shapeParts, token } from "./style.js";

/** @typedef {import("./plot.js").Plot} Plot */
/** @typedef {import("./plot.js").Mark} Mark */
const REACH = 13; // pixels around a landmark that belong to it

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawMarks(plot, context) {
  for (const lane of plot.shown()) {
    for (const mark of plot.marks.get(lane.id) ?? []) drawMark(plot, context, mark, laneColour(lane));
  }
  for (const mark of [...plot.crossings, ...plot.solutions]) drawMark(plot, context, mark, token("ink"));
}

/** @type {Map<string, Path2D>} */
const paths = new Map();

/** @param {string} d */
function pathOf(d) {
  const known = paths.get(d) ?? new Path2D(d);
  paths.set(d, known);
  return known;
}

/** All landmarks that show. @param {Plot} plot @returns {Mark[]} */
const all = (plot) => [...plot.marks.values(), plot.crossings, plot.solutions].flat();

/** Away from its point, so that the curve stays visible. @param {string} kind */
const lifted = (kind) => (kind === "maximum" ? -9 : kind === "minimum" ? 9 : 0);

/** @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
function drawMark(plot, context, mark, colour) {
  if (mark.kind === "pole") {
    drawAsymptote(plot, context, mark, colour);
    return;
  }
  const { width, height } = plot.size;
  for (const { y, closed, kind } of placesOf(mark)) {
    const px = plot.px(mark.x);
    const py = plot.py(y);
    if (px < -8 || px > width + 8 || py < -8 || py > height + 8) continue;
    context.save();
    context.translate(px, py + lifted(kind));
    context.lineWidth = kind === "intersection" ? 2.25 : 1.75;
    if (mark.key === plot.selected) ring(context);
    for (const part of shapeParts(kind, closed, colour)) {
      const path = pathOf(part.path);
      if (part.fill !== "none") {
        context.fillStyle = part.fill;
        context.fill(path);
      }
      if (part.stroke !== "none") {
        context.strokeStyle = part.stroke;
        context.stroke(path);
      }
    }
    context.restore();
  }
}

/** A pole's asymptote: a broken vertical line. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
function drawAsymptote(plot, context, mark, colour) {
  const px = Math.round(plot.px(mark.x)) + 0.5;
  if (px < 0 || px > plot.size.width) return;
  context.save();
  context.strokeStyle = colour;
  context.lineWidth = mark.key === plot.selected ? 2.5 : 1.25;
  context.setLineDash([7, 6]);
  context.beginPath();
  context.moveTo(px, 0);
  context.lineTo(px, plot.size.height);
  context.stroke();
  context.restore();
}

/** The landmark under a pixel. @param {Plot} plot @param {number} px @param {number} py @returns {Mark | null} */
export function markAt(plot, px, py) {
  /** @type {Mark | null} */
  let best = null;
  let nearest = REACH;
  for (const mark of all(plot)) {
    for (const { y, kind } of placesOf(mark)) {
      const away = Math.hypot(plot.px(mark.x) - px, plot.py(y) + lifted(kind) - py);
      if (away < nearest) {
        nearest = away;
        best = mark;
      }
    }
  }
  return best;
}

/** The x of the landmark nearest to a pixel column, where one is within reach. @param {Plot} plot @param {number} px @param {number} reach @returns {number | null} */
export function landmarkNear(plot, px, reach) {
  let best = null;
  let nearest = reach;
  for (const mark of all(plot)) {
    const away = Math.abs(plot.px(mark.x) - px);
    if (away < nearest) {
      nearest = away;
      best = mark.x;
    }
  }
  return best;
}

/** Labels that were asked for, none over another. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {{x: number, y: number, w: number, h?: number}[]} taken */
export function drawLabels(plot, context, taken) {
  if (!plot.pinned.size) return;
  const { width, height } = plot.size;
  context.font = `13px ${token("font")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  for (const mark of all(plot)) {
    if (!plot.pinned.has(mark.key)) continue;
    const px = plot.px(mark.x);
    const py = plot.py(mark.y ?? mark.left ?? mark.right ?? 0);
    if (px < 0 || px > width || py < 0 || py > height) continue;
    const w = context.measureText(mark.label).width + 12;
    const place = freePlace(px, py, w, taken, plot.size);
    taken.push({ ...place, w, h: 20 });
    context.fillStyle = token("card");
    context.strokeStyle = token("rule-strong");
    context.lineWidth = 1;
    context.beginPath();
    context.roundRect(place.x - w / 2, place.y - 10, w, 20, 4);
    context.fill();
    context.stroke();
    context.fillStyle = token("ink");
    context.fillText(mark.label, place.x, place.y + 0.5);
  }
}

/** Where a landmark shows: at its point, or at the ends of both branches of a jump. @param {Mark} mark */
function placesOf(mark) {
  if (mark.kind === "y-intercept") return [];
  if (mark.kind !== "jump") return mark.y === null ? [] : [{ y: mark.y, closed: mark.closed, kind: mark.kind }];
  const near = (/** @type {number} */ y) => mark.closed && mark.y !== null && Math.abs(mark.y - y) <= 1e-9 * (1 + Math.abs(y));
  const sides = [mark.left, mark.right].filter((y) => y !== null);
  const places = sides.map((y) => ({ y: /** @type {number} */ (y), closed: near(/** @type {number} */ (y)), kind: "end" }));
  if (mark.closed && mark.y !== null && !places.some((place) => place.closed)) places.push({ y: mark.y, closed: true, kind: "end" });
  return places;
}

/** The sign of the selected landmark. @param {CanvasRenderingContext2D} context */
function ring(context) {
  context.save();
  context.strokeStyle = token("signal");
  context.lineWidth = 2;
  context.beginPath();
  context.arc(0, 0, 11, 0, 2 * Math.PI);
  context.stroke();
  context.restore();
}

/**
 * A place for a label beside a point that covers no other.
 * @param {number} px @param {number} py @param {number} w
 * @param {{x: number, y: number, w: number, h?: number}[]} taken
 * @param {import("./view.js").Size} size
 */
function freePlace(px, py, w, taken, size) {
  const away = [
    [0, -24],
    [0, 24],
    [w / 2 + 12, 0],
    [-w / 2 - 12, 0],
    [w / 2 + 8, -20],
    [-w / 2 - 8, -20],
    [w / 2 + 8, 20],
    [-w / 2 - 8, 20],
    [0, -46],
    [0, 46],
    [0, -68],
    [0, 68],
  ];
  const places = away.map(([dx, dy]) => ({
    x: Math.min(Math.max(px + dx, w / 2 + 2), size.width - w / 2 - 2),
    y: Math.min(Math.max(py + dy, 12), size.height - 12),
  }));
  const free = places.find((p) => taken.every((t) => Math.abs(t.y - p.y) > 21 || Math.abs(t.x - p.x) > (t.w + w) / 2 + 2));
  return free ?? places[0];
}
