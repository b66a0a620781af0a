// @ts-check
/** Curves, bands, samples, markers, trails, tangent, area and the flags with names. */

import { LOOK } from "./look.js";
import { dashOf, laneColour, token, widthOf } from "./style.js";

/** @typedef {import("./plot.js").Plot} Plot */
/** @typedef {import("./plot.js").Lane} Lane */
/** @typedef {import("./plot.js").Shape} Shape */
const FLAG = LOOK.flag;

/** The shapes of a lane in its colour, dash and width. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Lane} lane */
export function drawCurve(plot, context, lane) {
  const shapes = plot.picture?.shapes.get(lane.id);
  if (!shapes || !plot.picture) return;
  const mapping = plot.mapping(plot.picture.view);
  context.strokeStyle = context.fillStyle = laneColour(lane);
  context.lineJoin = "round";
  for (const shape of shapes) {
    context.globalAlpha = shape.faint ? LOOK.faint : shape.pale ? LOOK.pale : 1;
    context.lineWidth = shape.dashed ? widthOf(lane) : LOOK.joining;
    context.setLineDash(shape.border ? (shape.border === "open" ? LOOK.border : []) : shape.dashed ? dashOf(lane) : []);
    if (shape.as === "label") written(context, shape, mapping);
    else if (shape.as === "patch") fillPatch(context, shape, mapping, hatchOf(lane));
    else DRAW[shape.as](context, shape.rows, mapping, shape.large ? LOOK.point : shape.small ? LOOK.speck : LOOK.dot, shape.hollow);
  }
  context.setLineDash([]);
  context.globalAlpha = 1;
  if (lane.style.markers !== "none") for (const rows of lines(shapes)) drawMarkers(plot, context, lane, rows, mapping);
}

/** The lines of a lane, without those that only join its samples. @param {Shape[] | undefined} shapes */
const lines = (shapes) => (shapes ?? []).filter((shape) => shape.as === "stroke" && shape.dashed).map((shape) => shape.rows);

/** @typedef {{across: (x: number) => number, down: (y: number) => number}} Mapping */

/** @param {CanvasRenderingContext2D} context @param {Float32Array} points @param {Mapping} mapping */
function strokes(context, points, { across, down }) {
  context.beginPath();
  let pen = false;
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i];
    if (Number.isNaN(x)) {
      pen = false;
    } else if (pen) {
      context.lineTo(across(x), down(points[i + 1]));
    } else {
      context.moveTo(across(x), down(points[i + 1]));
      pen = true;
    }
  }
  context.stroke();
}

/** Where a curve is denser than pixels: pairs (x, lowest), (x, highest), column by column. @param {CanvasRenderingContext2D} context @param {Float32Array} points @param {Mapping} mapping */
function fillBand(context, points, { across, down }) {
  if (!points.length) return;
  const before = context.globalAlpha;
  context.globalAlpha = before * LOOK.band;
  for (let i = 0; i < points.length; ) {
    let end = i;
    while (end < points.length && !Number.isNaN(points[end])) end += 4;
    context.beginPath();
    for (let k = i; k < end; k += 4) context.lineTo(across(points[k]), down(points[k + 1]));
    for (let k = end - 4; k >= i; k -= 4) context.lineTo(across(points[k + 2]), down(points[k + 3]));
    context.fill();
    i = end + 4;
  }
  context.globalAlpha = before;
}

const MANY = 6000; // numbers of dots, from which on they are squares, which are drawn faster

/** @param {CanvasRenderingContext2D} context @param {Float32Array} points @param {Mapping} mapping @param {number} radius @param {boolean} [hollow] */
function dots(context, points, { across, down }, radius, hollow = false) {
  for (let i = 0; i < points.length; i += 2) {
    if (Number.isNaN(points[i])) continue;
    if (points.length > MANY) {
      context.fillRect(across(points[i]) - radius, down(points[i + 1]) - radius, 2 * radius, 2 * radius);
      continue;
    }
    context.beginPath();
    context.arc(across(points[i]), down(points[i + 1]), radius, 0, 2 * Math.PI);
    if (hollow) context.stroke();
    else context.fill();
  }
}

/** Rectangles in one piece, so that no seams show. @param {CanvasRenderingContext2D} context @param {Shape} shape @param {Mapping} mapping @param {number} angle */
export function fillPatch(context, { rows, open, tint }, { across, down }, angle) {
  context.save();
  context.beginPath();
  for (let i = 0; i < rows.length; i += 4) {
    const left = across(rows[i]);
    const top = down(rows[i + 3]);
    context.rect(left, top, across(rows[i + 2]) - left, down(rows[i + 1]) - top);
  }
  context.globalAlpha *= open ? LOOK.unsettled : tint ? LOOK.tint * tint : LOOK.shade;
  context.fill();
  if (!open && !tint) hatch(context, angle);
  context.restore();
}

/** A number on its line. @param {CanvasRenderingContext2D} context @param {Shape} shape @param {Mapping} mapping */
function written(context, { rows, text = "" }, { across, down }) {
  context.font = `${LOOK.label}px ${token("font")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  const [x, y] = [across(rows[0]), down(rows[1])];
  const ink = context.strokeStyle;
  context.strokeStyle = token("plot-ground");
  context.lineWidth = 4;
  context.setLineDash([]);
  context.strokeText(text, x, y);
  context.strokeStyle = ink;
  context.fillText(text, x, y);
}

/** Lines through what is to be filled, at an angle of so many degrees. @param {CanvasRenderingContext2D} context @param {number} angle */
function hatch(context, angle) {
  const { alpha, width, gap } = LOOK.hatch;
  const ratio = context.getTransform().a;
  const size = Math.hypot(context.canvas.width, context.canvas.height) / ratio;
  context.clip();
  context.globalAlpha = (context.globalAlpha / LOOK.shade) * alpha * 0.5;
  context.lineWidth = width;
  context.setLineDash([]);
  const turn = (angle * Math.PI) / 180;
  const [along, aside] = [Math.cos(turn), Math.sin(turn)];
  context.beginPath();
  for (let at = -size; at <= size; at += gap) {
    const [x, y] = [aside * at, along * at];
    context.moveTo(x - along * size, y + aside * size);
    context.lineTo(x + along * size, y - aside * size);
  }
  context.stroke();
}

/** @param {Lane} lane */
const hatchOf = (lane) => LOOK.hatch.angles[(lane.colour ?? 0) % LOOK.hatch.angles.length];

/** How each shape is drawn, but for patches. @type {Record<Exclude<Shape["as"], "patch" | "label">, (context: CanvasRenderingContext2D, rows: Float32Array, mapping: Mapping, radius: number, hollow?: boolean) => void>} */
const DRAW = { stroke: strokes, band: fillBand, dots };

/** Marks on the curve at every half step of the axis, so that they stay put while the view moves. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Lane} lane @param {Float32Array} points @param {Mapping} mapping */
function drawMarkers(plot, context, lane, points, { across, down }) {
  const step = plot.stepAcross() / 2;
  const gap = plot.px(step) - plot.px(0);
  let before = Number.NaN;
  context.lineWidth = 2;
  for (let i = 0; i + 1 < points.length; i += 2) {
    const px = across(points[i]);
    const at = Math.floor((px - plot.px(0)) / gap);
    if (at !== before && !Number.isNaN(before) && !Number.isNaN(px)) marker(context, lane.style.markers, px, down(points[i + 1]));
    before = Number.isNaN(px) ? Number.NaN : at;
  }
}

/** @param {CanvasRenderingContext2D} context @param {string} kind @param {number} x @param {number} y */
function marker(context, kind, x, y) {
  context.beginPath();
  if (kind === "discs") context.arc(x, y, 4, 0, 2 * Math.PI);
  else if (kind === "squares") context.rect(x - 3.5, y - 3.5, 7, 7);
  else context.rect(x - 1, y - 6, 2, 12);
  context.fill();
}

/** What curves left behind while a slider moved. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawTrails(plot, context) {
  if (!plot.trails) return;
  const mapping = plot.mapping(plot.trails.view);
  context.globalAlpha = LOOK.faint;
  context.lineWidth = LOOK.trail;
  for (const { id, shapes } of plot.trails.lanes) {
    const lane = plot.lane(id);
    if (!lane || lane.hidden) continue;
    context.strokeStyle = context.fillStyle = laneColour(lane);
    for (const shape of shapes) if (shape.as !== "patch" && shape.as !== "label") DRAW[shape.as](context, shape.rows, mapping, LOOK.dot);
  }
  context.globalAlpha = 0.7;
  for (const { id, x, y } of plot.trails.marks) {
    const lane = plot.lane(id);
    if (!lane || lane.hidden) continue;
    context.fillStyle = laneColour(lane);
    context.beginPath();
    context.arc(plot.px(x), plot.py(y), 2.5, 0, 2 * Math.PI);
    context.fill();
  }
  context.globalAlpha = 1;
}

/** @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawTangent(plot, context) {
  const line = plot.tangent;
  const lane = line && plot.lane(line.id);
  if (!lane || lane.hidden) return;
  const { left, right } = plot.view;
  context.strokeStyle = laneColour(lane);
  context.lineWidth = 1.25;
  context.setLineDash([3, 3]);
  context.beginPath();
  context.moveTo(0, plot.py(line.y + line.slope * (left - line.x)));
  context.lineTo(plot.size.width, plot.py(line.y + line.slope * (right - line.x)));
  context.stroke();
  context.setLineDash([]);
}

/** The area between a curve and the axis, or another curve. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawArea(plot, context) {
  const area = plot.area;
  const lane = area && plot.lane(area.id);
  const [curve] = area ? lines(plot.picture?.shapes.get(area.id)) : [];
  if (!area || !lane || lane.hidden || !curve || !plot.picture) return;
  const mapping = plot.mapping(plot.picture.view);
  const [other] = area.against ? lines(plot.picture.shapes.get(area.against)) : [];
  if (area.against && !other) return;
  const from = Math.max(plot.px(area.low), 0);
  const to = Math.min(plot.px(area.high), plot.size.width);
  const above = pixels(curve, mapping, from, to);
  const below = other ? pixels(other, mapping, from, to) : [];
  const floor = plot.py(0);
  context.save();
  context.beginPath();
  context.rect(from, 0, Math.max(0, to - from), plot.size.height);
  context.clip();
  context.fillStyle = laneColour(lane);
  context.globalAlpha = 0.2;
  context.beginPath();
  for (const [x, y] of above) context.lineTo(x, y);
  if (other) for (const [x, y] of below.reverse()) context.lineTo(x, y);
  else if (above.length) {
    context.lineTo(above[above.length - 1][0], floor);
    context.lineTo(above[0][0], floor);
  }
  context.fill("evenodd");
  context.restore();
}

/** The pixels of a curve between two others. @param {Float32Array} points @param {Mapping} mapping @param {number} from @param {number} to @returns {[number, number][]} */
function pixels(points, { across, down }, from, to) {
  /** @type {[number, number][]} */
  const found = [];
  for (let i = 0; i < points.length; i += 2) {
    const x = across(points[i]);
    const next = across(points[i + 2]);
    const before = across(points[i - 2]);
    if (Number.isNaN(x)) continue;
    // One point beyond either side, so that the shading reaches the readings.
    if ((x >= from && x <= to) || (x < from && next >= from) || (x > to && before <= to)) found.push([x, down(points[i + 1])]);
  }
  return found;
}

/** Names on small flags at the right end of each curve, kept apart. Gives where they are. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawFlags(plot, context) {
  /** @type {{x: number, y: number, w: number}[]} */
  const taken = [];
  if (!plot.picture) return taken;
  const mapping = plot.mapping(plot.picture.view);
  context.font = `italic 16px ${token("font-name")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  for (const lane of plot.shown()) {
    const shapes = lane.style.flag ? plot.picture.shapes.get(lane.id) : null;
    const end = shapes && lastVisible(shapes, mapping, plot.size);
    if (!end) continue;
    const w = Math.max(FLAG, context.measureText(lane.label).width + 12);
    const place = clear(end, w, taken, plot.size);
    taken.push({ ...place, w });
    context.fillStyle = laneColour(lane);
    context.beginPath();
    context.roundRect(place.x - w / 2, place.y - FLAG / 2, w, FLAG, 4);
    context.fill();
    context.fillStyle = token("plot-ground");
    context.fillText(lane.label, place.x, place.y + 0.5);
  }
  return taken;
}

/**
 * The rightmost point of a lane inside the plot.
 * @param {Shape[]} shapes
 * @param {Mapping} mapping
 * @param {import("../sheet/view.js").Size} size
 */
function lastVisible(shapes, { across, down }, size) {
  let best = null;
  for (const { as, rows: points } of shapes) {
    if (as === "patch" || as === "label") continue;
    for (let i = points.length - 2; i >= 0; i -= 2) {
      const x = across(points[i]);
      const y = down(points[i + 1]);
      if (!(x >= 4 && x <= size.width + 1 && y >= 4 && y <= size.height - 4)) continue;
      if (!best || x > best.x) best = { x, y };
    }
  }
  return best;
}

/**
 * A place for a flag near `end` that covers no other flag.
 * @param {{x: number, y: number}} end
 * @param {number} w
 * @param {{x: number, y: number, w: number}[]} taken
 * @param {import("../sheet/view.js").Size} size
 */
function clear(end, w, taken, size) {
  const x = Math.min(end.x + 4 + w / 2, size.width - w / 2 - 3);
  for (const shift of [0, -24, 24, -48, 48, -72, 72]) {
    const y = Math.min(Math.max(end.y + shift, 14), size.height - 14);
    if (taken.every((t) => Math.abs(t.y - y) > 21 || Math.abs(t.x - x) > (t.w + w) / 2 + 2)) return { x, y };
  }
  return { x, y: end.y };
}
