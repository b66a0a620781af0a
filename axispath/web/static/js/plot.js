// @ts-check
/** Draws the plot and the rail on canvas. Knows nothing of the server or of gestures. */

import { DASHES, curveColour, shapeParts, token } from "./style.js";
import { niceStep, tickLabel, ticks, toPixelX, toPixelY } from "./view.js";

/** @typedef {import("./view.js").View} View */
/** @typedef {{id: string, name: string, colour: number, hidden: boolean, plottable: boolean}} Lane */
/**
 * @typedef {{key: string, kind: string, x: number, y: number | null, left: number | null,
 *   right: number | null, closed: boolean, label: string}} Mark
 */

const TURN_STEPS = [10, 15, 30, 45, 90, 180, 360];

export class Plot {
  /** @param {HTMLCanvasElement} canvas @param {HTMLCanvasElement} rail */
  constructor(canvas, rail) {
    this.canvas = canvas;
    this.rail = rail;
    this.size = { width: 0, height: 0 };
    /** @type {View} */
    this.view = { left: -10, right: 10, bottom: -7, top: 7 };
    /** @type {null | {view: View, curves: Map<string, Float32Array>}} */
    this.picture = null;
    /** @type {Lane[]} */
    this.lanes = [];
    /** @type {Map<string, Mark[]>} */
    this.marks = new Map();
    /** @type {Mark[]} */
    this.crossings = [];
    /** @type {number | null} */
    this.reading = null;
    /** @type {{x: number, y: number, colour: number}[]} */
    this.readingPoints = [];
    this.asked = false;
    this.unit = "rad";
    /** @type {string | null} */
    this.selected = null;
    /** @type {Set<string>} */
    this.pinned = new Set();
    /** @type {{low: number, high: number} | null} */
    this.only = null;
  }

  /** Fit the canvases to their boxes. Gives whether the size changed. */
  fit() {
    const box = this.canvas.getBoundingClientRect();
    const width = Math.round(box.width);
    const height = Math.round(box.height);
    const ratio = window.devicePixelRatio || 1;
    if (width === this.size.width && height === this.size.height && ratio === this.ratio) return false;
    this.size = { width, height };
    this.ratio = ratio;
    this.canvas.width = width * ratio;
    this.canvas.height = height * ratio;
    this.rail.width = this.rail.getBoundingClientRect().width * ratio;
    this.rail.height = this.rail.getBoundingClientRect().height * ratio;
    return true;
  }

  /** Ask for a drawing in the next frame. */
  ask() {
    if (this.asked) return;
    this.asked = true;
    requestAnimationFrame(() => {
      this.asked = false;
      this.draw();
    });
  }

  /** Step between labelled ticks of x and y. */
  steps() {
    const { left, right, bottom, top } = this.view;
    const least = ((right - left) / Math.max(this.size.width, 1)) * 70;
    // Where angles are degrees, large steps are parts of a turn.
    const turn = this.unit === "deg" && least > 5 ? TURN_STEPS.find((step) => step >= least) : undefined;
    return {
      x: turn ?? niceStep(least),
      y: niceStep(((top - bottom) / Math.max(this.size.height, 1)) * 45),
    };
  }

  draw() {
    const context = this.canvas.getContext("2d");
    if (!context || !this.size.width) return;
    const { width, height } = this.size;
    context.setTransform(this.ratio ?? 1, 0, 0, this.ratio ?? 1, 0, 0);
    context.fillStyle = token("plot-ground");
    context.fillRect(0, 0, width, height);
    this.drawGrid(context);
    this.drawReadingLine(context);
    for (const lane of this.lanes) {
      if (lane.plottable && !lane.hidden) this.drawCurve(context, lane);
    }
    this.drawMarks(context);
    for (const point of this.readingPoints) this.drawReadingPoint(context, point);
    const taken = this.drawFlags(context);
    this.drawLabels(context, taken);
    this.drawRail();
  }

  /** @param {CanvasRenderingContext2D} context */
  drawGrid(context) {
    const { width, height } = this.size;
    const step = this.steps();
    const view = this.view;
    context.lineWidth = 1;
    const lines = (minor) => {
      context.strokeStyle = token(minor ? "grid-minor" : "grid");
      context.beginPath();
      for (const x of ticks(view.left, view.right, minor ? step.x / (step.x % 45 ? 5 : 3) : step.x)) {
        const px = Math.round(toPixelX(view, this.size, x)) + 0.5;
        context.moveTo(px, 0);
        context.lineTo(px, height);
      }
      for (const y of ticks(view.bottom, view.top, minor ? step.y / 5 : step.y)) {
        const py = Math.round(toPixelY(view, this.size, y)) + 0.5;
        context.moveTo(0, py);
        context.lineTo(width, py);
      }
      context.stroke();
    };
    lines(true);
    lines(false);
    this.drawAxes(context, step);
  }

  /** @param {CanvasRenderingContext2D} context @param {{x: number, y: number}} step */
  drawAxes(context, step) {
    const { width, height } = this.size;
    const view = this.view;
    const zeroX = Math.round(toPixelX(view, this.size, 0)) + 0.5;
    const zeroY = Math.round(toPixelY(view, this.size, 0)) + 0.5;
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
    context.font = `12px ${token("font")}`;
    context.fillStyle = token("muted");
    context.textBaseline = "middle";
    // The numbers of y stay in sight when the axis leaves the view.
    const labels = ticks(view.bottom, view.top, step.y).map((y) => ({ y, text: tickLabel(y, step.y) }));
    const widest = Math.max(0, ...labels.map((l) => context.measureText(l.text).width));
    const right = Math.min(Math.max(zeroX - 7, widest + 7), width - 8);
    context.textAlign = "right";
    for (const { y, text } of labels) {
      const py = toPixelY(view, this.size, y);
      if (py < 9 || py > height - 9 || (y === 0 && zeroX > 0 && zeroX < width)) continue;
      halo(context, text, right, py);
    }
  }

  /** @param {CanvasRenderingContext2D} context @param {Lane} lane */
  drawCurve(context, lane) {
    const points = this.picture?.curves.get(lane.id);
    if (!points || !this.picture) return;
    const { across, down } = this.pictureMapping();
    context.strokeStyle = curveColour(lane.colour);
    context.lineWidth = 2.25;
    context.lineJoin = "round";
    context.setLineDash(DASHES[lane.colour]);
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
    context.setLineDash([]);
  }

  /** From the coordinates of the picture, which may be of an earlier view, to pixels now. */
  pictureMapping() {
    const from = this.picture?.view ?? this.view;
    const x0 = toPixelX(this.view, this.size, from.left);
    const x1 = toPixelX(this.view, this.size, from.right);
    const y0 = toPixelY(this.view, this.size, from.bottom);
    const y1 = toPixelY(this.view, this.size, from.top);
    return {
      across: (/** @type {number} */ x) => x0 + x * (x1 - x0),
      down: (/** @type {number} */ y) => y0 + y * (y1 - y0),
    };
  }

  /** @param {CanvasRenderingContext2D} context */
  drawMarks(context) {
    for (const lane of this.lanes) {
      if (!lane.plottable || lane.hidden) continue;
      for (const mark of this.marks.get(lane.id) ?? []) {
        this.drawMark(context, mark, curveColour(lane.colour));
      }
    }
    for (const mark of this.crossings) this.drawMark(context, mark, token("ink"));
  }

  /** @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
  drawMark(context, mark, colour) {
    if (mark.kind === "pole") return this.drawAsymptote(context, mark, colour);
    const places = placesOf(mark);
    for (const { y, closed, kind } of places) {
      const px = toPixelX(this.view, this.size, mark.x);
      const py = toPixelY(this.view, this.size, y);
      if (px < -8 || px > this.size.width + 8 || py < -8 || py > this.size.height + 8) continue;
      const lift = kind === "maximum" ? -9 : kind === "minimum" ? 9 : 0;
      context.save();
      context.translate(px, py + lift);
      context.lineWidth = kind === "intersection" ? 2.25 : 1.75;
      if (mark.key === this.selected) ring(context);
      for (const part of shapeParts(kind, closed, colour)) {
        const path = new Path2D(part.path);
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
    return undefined;
  }

  /** A pole's asymptote: a broken vertical line. @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
  drawAsymptote(context, mark, colour) {
    const px = Math.round(toPixelX(this.view, this.size, mark.x)) + 0.5;
    if (px < 0 || px > this.size.width) return;
    context.save();
    context.strokeStyle = colour;
    context.lineWidth = mark.key === this.selected ? 2.5 : 1.25;
    context.setLineDash([7, 6]);
    context.beginPath();
    context.moveTo(px, 0);
    context.lineTo(px, this.size.height);
    context.stroke();
    context.restore();
  }

  /** The landmark under a pixel. @param {number} px @param {number} py @returns {Mark | null} */
  markAt(px, py) {
    /** @type {Mark | null} */
    let best = null;
    let nearest = 13;
    for (const mark of [...this.marks.values(), this.crossings].flat()) {
      for (const { y, kind } of placesOf(mark)) {
        const lift = kind === "maximum" ? -9 : kind === "minimum" ? 9 : 0;
        const away = Math.hypot(toPixelX(this.view, this.size, mark.x) - px, toPixelY(this.view, this.size, y) + lift - py);
        if (away < nearest) {
          nearest = away;
          best = mark;
        }
      }
    }
    return best;
  }

  /** Labels that were asked for, none over another. @param {CanvasRenderingContext2D} context @param {{x: number, y: number, w: number, h?: number}[]} taken */
  drawLabels(context, taken) {
    if (!this.pinned.size) return;
    context.font = `13px ${token("font")}`;
    context.textAlign = "center";
    context.textBaseline = "middle";
    for (const mark of [...this.marks.values(), this.crossings].flat()) {
      if (!this.pinned.has(mark.key)) continue;
      const px = toPixelX(this.view, this.size, mark.x);
      const py = toPixelY(this.view, this.size, mark.y ?? mark.left ?? mark.right ?? 0);
      if (px < 0 || px > this.size.width || py < 0 || py > this.size.height) continue;
      const w = context.measureText(mark.label).width + 12;
      const place = freePlace(px, py, w, taken, this.size);
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

  /** @param {CanvasRenderingContext2D} context */
  drawReadingLine(context) {
    if (this.reading === null) return;
    const px = Math.round(toPixelX(this.view, this.size, this.reading)) + 0.5;
    if (px < 0 || px > this.size.width) return;
    context.strokeStyle = token("reading");
    context.lineWidth = 1.25;
    context.beginPath();
    context.moveTo(px, 0);
    context.lineTo(px, this.size.height);
    context.stroke();
  }

  /** @param {CanvasRenderingContext2D} context @param {{x: number, y: number, colour: number}} point */
  drawReadingPoint(context, point) {
    context.fillStyle = curveColour(point.colour);
    context.strokeStyle = token("plot-ground");
    context.lineWidth = 2;
    context.beginPath();
    const x = toPixelX(this.view, this.size, point.x);
    const y = toPixelY(this.view, this.size, point.y);
    context.arc(x, y, 5, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
  }

  /** Names on small flags at the right end of each curve, kept apart. Gives where they are. @param {CanvasRenderingContext2D} context */
  drawFlags(context) {
    if (!this.picture) return [];
    const { across, down } = this.pictureMapping();
    context.font = `italic 700 14px ${token("font-math")}`;
    context.textAlign = "center";
    context.textBaseline = "middle";
    /** @type {{x: number, y: number, w: number}[]} */
    const taken = [];
    for (const lane of this.lanes) {
      const points = lane.plottable && !lane.hidden && this.picture.curves.get(lane.id);
      if (!points) continue;
      const end = lastVisible(points, across, down, this.size);
      if (!end) continue;
      const w = Math.max(20, context.measureText(lane.name).width + 12);
      const place = clear(end, w, taken, this.size);
      taken.push({ ...place, w });
      context.fillStyle = curveColour(lane.colour);
      context.beginPath();
      context.roundRect(place.x - w / 2, place.y - 10, w, 20, 4);
      context.fill();
      context.fillStyle = token("plot-ground");
      context.fillText(lane.name, place.x, place.y + 0.5);
    }
    return taken;
  }

  /** The part of the axis that landmarks are looked for on. @param {CanvasRenderingContext2D} context @param {number} height */
  drawOnly(context, height) {
    if (!this.only) return;
    const from = toPixelX(this.view, this.size, this.only.low);
    const to = toPixelX(this.view, this.size, this.only.high);
    context.fillStyle = token("signal");
    context.globalAlpha = 0.22;
    context.fillRect(Math.max(from, 0), 0, Math.min(to, this.size.width) - Math.max(from, 0), height);
    context.globalAlpha = 1;
    for (const x of [from, to]) context.fillRect(x - 1, 0, 2, height);
  }

  drawRail() {
    const context = this.rail.getContext("2d");
    if (!context) return;
    const ratio = this.ratio ?? 1;
    const height = this.rail.height / ratio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, this.size.width, height);
    const step = this.steps().x;
    context.strokeStyle = token("ink");
    context.fillStyle = token("ink");
    context.font = `12.5px ${token("font")}`;
    context.textAlign = "center";
    context.textBaseline = "middle";
    context.lineWidth = 1;
    context.beginPath();
    for (const x of ticks(this.view.left, this.view.right, step)) {
      const px = Math.round(toPixelX(this.view, this.size, x)) + 0.5;
      context.moveTo(px, 0);
      context.lineTo(px, 5);
      const label = tickLabel(x, step);
      const half = context.measureText(label).width / 2;
      if (px - half > 2 && px + half < this.size.width - 2) context.fillText(label, px, height / 2 + 3);
    }
    context.stroke();
    this.drawOnly(context, height);
    if (this.reading === null) return;
    const px = toPixelX(this.view, this.size, this.reading);
    context.fillStyle = token("signal");
    context.beginPath();
    context.moveTo(px, 0);
    context.lineTo(px - 6, 9);
    context.lineTo(px + 6, 9);
    context.fill();
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

/** Text that stays readable over lines. @param {CanvasRenderingContext2D} context @param {string} text @param {number} x @param {number} y */
function halo(context, text, x, y) {
  context.strokeStyle = token("plot-ground");
  context.lineWidth = 4;
  context.lineJoin = "round";
  context.strokeText(text, x, y);
  context.fillText(text, x, y);
}

/**
 * The rightmost point of a curve inside the plot.
 * @param {Float32Array} points
 * @param {(x: number) => number} across
 * @param {(y: number) => number} down
 * @param {import("./view.js").Size} size
 */
function lastVisible(points, across, down, size) {
  for (let i = points.length - 2; i >= 0; i -= 2) {
    const x = across(points[i]);
    const y = down(points[i + 1]);
    if (x >= 4 && x <= size.width + 1 && y >= 4 && y <= size.height - 4) return { x, y };
  }
  return null;
}

/**
 * A place for a flag near `end` that covers no other flag.
 * @param {{x: number, y: number}} end
 * @param {number} w
 * @param {{x: number, y: number, w: number}[]} taken
 * @param {import("./view.js").Size} size
 */
function clear(end, w, taken, size) {
  const x = Math.min(end.x + 4 + w / 2, size.width - w / 2 - 3);
  for (const shift of [0, -24, 24, -48, 48, -72, 72]) {
    const y = Math.min(Math.max(end.y + shift, 14), size.height - 14);
    if (taken.every((t) => Math.abs(t.y - y) > 21 || Math.abs(t.x - x) > (t.w + w) / 2 + 2)) return { x, y };
  }
  return { x, y: end.y };
}
