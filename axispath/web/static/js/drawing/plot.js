// @ts-check
/** The plot and the rail on canvas: what is shown, and in which order. Knows nothing of the server or of gestures. */

import { drawArea, drawCurve, drawFlags, drawTangent, drawTrails } from "./curves.js";
import { drawPoints, drawStrokes } from "./steps.js";
import { drawAxes, drawGrid, drawNumbers, drawRail } from "./ground.js";
import { LOOK } from "./look.js";
import { drawLabels, drawMarks, groupMarks } from "./marks.js";
import { laneColour, token } from "./style.js";
import { AUTOMATIC, apart, spaced } from "./ticks.js";
import { toPixelX, toPixelY } from "../sheet/view.js";
import { nextFrame } from "../sheet/underway.js";

/** @typedef {import("../sheet/view.js").View} View */
/**
 * @typedef {{own: string, thickness: string, dash: string, markers: string, flag: boolean, trail: string, place: boolean, joined: boolean}} Style
 * @typedef {{id: string, name: string, colour: number, hidden: boolean, kind: string, strip: string, can: string[],
 *   style: Style, sampled: boolean, places: [number, number][], ticks: number[], residuals: [number, number][], free: boolean, label: string, variable: string, own: null | {light: string, dark: string}}} Lane
 */
/**
 * @typedef {{key: string, kind: string, group?: string, x: number, y: number | null, left: number | null,
 *   right: number | null, closed: boolean, label: string, t?: number, also?: number[]}} Mark
 * @typedef {{as: "stroke" | "band" | "dots" | "patch" | "label", rows: Float32Array, faint: boolean, pale?: boolean, dashed?: boolean, handle?: boolean, large?: boolean, small?: boolean, hollow?: boolean, border?: "" | "closed" | "open", open?: boolean, tint?: number, text?: string}} Shape
 * @typedef {{view: View, shapes: Map<string, Shape[]>, cut: string[], told: Record<string, {words: string, at: number}>, shows?: object[], about?: string}} Picture
 * @typedef {{view: View, lanes: {id: string, shapes: Shape[]}[], marks: {id: string, x: number, y: number}[], cut: string[]}} Trails
 * @typedef {import("../sheet/internal.js").ShownGround} Ground
 */

const BARE = /** @type {any} */ ({ grid: "fine", axes: "origin", equal: false, without: [] });
const MANY = 24; // lanes, from which on their curves are not drawn anew with every movement
const { across: ACROSS, upwards: UPWARDS } = LOOK.ticks;

export class Plot {
  /** @param {HTMLCanvasElement} canvas @param {HTMLCanvasElement} rail */
  constructor(canvas, rail) {
    this.canvas = canvas;
    this.rail = rail;
    this.size = { width: 0, height: 0 };
    /** @type {View} */
    this.view = { left: -10, right: 10, bottom: -7, top: 7 };
    /** @type {Ground} */
    this.ground = { typed: BARE, ticks: { x: AUTOMATIC, y: AUTOMATIC }, degrees: false, title: "", xLabel: "", yLabel: "", legend: "" };
    /** @type {null | Picture} */
    this.picture = null;
    /** @type {null | Trails} */
    this.trails = null;
    /** @type {Lane[]} */
    this.lanes = [];
    /** @type {Map<string, Mark[]>} */
    this.marks = new Map();
    /** @type {Mark[]} */
    this.crossings = [];
    /** Landmarks as they were drawn last, in groups of those too close together. @type {import("./marks.js").Cluster[]} */
    this.clusters = [];
    /** Where the pointer is, for groups to open. @type {{x: number, y: number} | null} */
    this.pointed = null;
    /** The lane in focus: its intersections come first. @type {string | null} */
    this.chosen = null;
    /** @type {number | null} */
    this.reading = null;
    /** A second reading, that differences are taken from. @type {number | null} */
    this.held = null;
    /** @type {{id: string, x: number, y: number}[]} */
    this.readingPoints = [];
    /** What other parts draw besides. @type {((context: CanvasRenderingContext2D) => void)[]} */
    this.also = [];
    /** @type {null | {id: string, x: number, y: number, slope: number}} */
    this.tangent = null;
    /** @type {null | {low: number, high: number, id: string, against: string}} */
    this.area = null;
    /** Solutions of an equation. @type {Mark[]} */
    this.solutions = [];
    /** The solution set of an inequality: from, to (null for infinity), and whether they belong to it. @type {[number | null, number | null, boolean, boolean][]} */
    this.solved = [];
    /** What the steps of a method draw, in terms of the axes; null for the edge. @type {{lines: [number, number | null][][], now: boolean}[]} */
    this.strokes = [];
    /** Where the step shown is. @type {number | null} */
    this.strokeAt = null;
    /** Rows of tables. @type {{id: string, x: number[], y: number[]}[]} */
    this.points = [];
    /** A box being drawn, in pixels. @type {null | {x: number, y: number, toX: number, toY: number}} */
    this.box = null;
    /** Whether it is being dragged. */
    this.underHand = false;
    /** Whether the next drag draws a box to zoom into, or chooses a part of the axis. */
    this.boxing = false;
    this.restricting = false;
    /** Whether a click puts a point. */
    this.putting = false;
    /** Where the numbers of the y-axis end, in pixels. */
    this.numbersRight = 0;
    /** Pixels of the screen to one of the page. */
    this.ratio = 0;
    this.asked = false;
    this.below = document.createElement("canvas");
    /** The curves of very many lanes as they were drawn last. @type {{canvas: HTMLCanvasElement, picture: Picture | null, known: string, view: View}} */
    this.kept = { canvas: document.createElement("canvas"), picture: null, known: "", view: this.view };
    this.groundKnown = "";
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
    const rail = this.rail.getBoundingClientRect();
    this.rail.width = rail.width * ratio;
    this.rail.height = rail.height * ratio;
    return true;
  }

  /** @param {string} id */
  lane(id) {
    return this.lanes.find((lane) => lane.id === id);
  }

  /** Whether so many curves are shown that they are not drawn anew with every movement. */
  get isHeavy() {
    return this.shown().length >= MANY;
  }

  /** Lanes that are drawn. */
  shown() {
    return this.lanes.filter((lane) => lane.can.includes("drawn") && !lane.hidden);
  }

  /** @param {number} x */
  px(x) {
    return toPixelX(this.view, this.size, x);
  }

  /** @param {number} y */
  py(y) {
    return toPixelY(this.view, this.size, y);
  }

  /** Ask for a drawing in the next frame. */
  ask() {
    if (this.asked) return;
    this.asked = true;
    nextFrame(() => {
      this.asked = false;
      this.draw();
      this.tell();
    });
  }

  /** For whoever waits for curves, or measures: what is on the canvas now. */
  tell() {
    const { shows = [], shapes = new Map() } = this.picture ?? {};
    window.dispatchEvent(new CustomEvent("axispath-drawn", { detail: { shows, curves: shapes.size } }));
  }

  /** The fractions between written numbers of both axes. */
  parts() {
    const { left, right, bottom, top } = this.view;
    const { x, y } = this.ground.ticks;
    return {
      x: spaced(x, ((right - left) / Math.max(this.size.width, 1)) * ACROSS),
      y: spaced(y, ((top - bottom) / Math.max(this.size.height, 1)) * UPWARDS),
    };
  }

  /** How far apart the written numbers of the x-axis are. */
  stepAcross() {
    return apart(this.ground.ticks.x, this.parts().x);
  }

  /** Grid and axes, drawn anew only when the view or their looks have changed: most movements change neither. */
  groundBelow() {
    const { width, height } = this.size;
    const { left, right, bottom, top } = this.view;
    const known = JSON.stringify([left, right, bottom, top, width, height, this.ratio, this.ground.typed, this.ground.ticks, token("plot-ground")]);
    if (known !== this.groundKnown) {
      this.groundKnown = known;
      this.below.width = this.canvas.width;
      this.below.height = this.canvas.height;
      const context = /** @type {CanvasRenderingContext2D} */ (this.below.getContext("2d"));
      context.setTransform(this.ratio || 1, 0, 0, this.ratio || 1, 0, 0);
      context.fillStyle = token("plot-ground");
      context.fillRect(0, 0, width, height);
      drawGrid(this, context);
      drawAxes(this, context);
    }
    return this.below;
  }

  draw() {
    const context = this.canvas.getContext("2d");
    if (!context || !this.size.width) return;
    const { width, height } = this.size;
    context.setTransform(this.ratio || 1, 0, 0, this.ratio || 1, 0, 0);
    context.drawImage(this.groundBelow(), 0, 0, width, height);
    groupMarks(this);
    drawNumbers(this, context);
    drawArea(this, context);
    drawTrails(this, context);
    for (const x of [this.held, this.reading]) this.drawReadingLine(context, x);
    for (const draw of this.also) draw(context);
    drawTangent(this, context);
    this.drawCurves(context);
    drawPoints(this, context);
    drawStrokes(this, context);
    drawMarks(this, context);
    for (const point of this.readingPoints) this.drawReadingPoint(context, point);
    drawLabels(this, context, drawFlags(this, context));
    this.drawBox(context);
    drawRail(this);
    this.canvas.dataset.merged = String(this.clusters.filter((cluster) => cluster.spots.length > 1).length);
  }

  /** The curves; of very many lanes they are kept, and moved as they are while the view is. @param {CanvasRenderingContext2D} context */
  drawCurves(context) {
    const lanes = this.shown();
    for (const lane of lanes) if (this.picture?.shapes.has(`aim ${lane.id}`)) drawCurve(this, context, { ...lane, id: `aim ${lane.id}` });
    if (lanes.length < MANY || !this.picture) {
      for (const lane of lanes) drawCurve(this, context, lane);
      return;
    }
    const { width, height } = this.size;
    const { left, right, bottom, top } = this.view;
    const known = JSON.stringify([(right - left).toPrecision(9), (top - bottom).toPrecision(9), width, height, this.ratio, token("plot-ground"), lanes.map(({ id, colour, style }) => [id, colour, style])]);
    if (this.kept.picture !== this.picture || this.kept.known !== known) {
      const { canvas } = this.kept;
      canvas.width = this.canvas.width;
      canvas.height = this.canvas.height;
      const own = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d", { willReadFrequently: true }));
      own.setTransform(this.ratio || 1, 0, 0, this.ratio || 1, 0, 0);
      for (const lane of lanes) drawCurve(this, own, lane);
      this.kept = { canvas, picture: this.picture, known, view: this.view };
    }
    const { view } = this.kept;
    context.drawImage(this.kept.canvas, this.px(view.left), this.py(view.top), width, height);
  }

  /** From the coordinates of a picture, which may be of an earlier view, to pixels now. @param {View} from */
  mapping(from) {
    const x0 = this.px(from.left);
    const x1 = this.px(from.right);
    const y0 = this.py(from.bottom);
    const y1 = this.py(from.top);
    return {
      across: (/** @type {number} */ x) => x0 + x * (x1 - x0),
      down: (/** @type {number} */ y) => y0 + y * (y1 - y0),
    };
  }

  /** @param {CanvasRenderingContext2D} context @param {number | null} x */
  drawReadingLine(context, x) {
    if (x === null) return;
    const px = Math.round(this.px(x)) + 0.5;
    if (px < 0 || px > this.size.width) return;
    context.strokeStyle = token("reading");
    context.lineWidth = 1.25;
    context.setLineDash(x === this.held ? [5, 4] : []);
    context.beginPath();
    context.moveTo(px, 0);
    context.lineTo(px, this.size.height);
    context.stroke();
    context.setLineDash([]);
  }

  /** @param {CanvasRenderingContext2D} context @param {{id: string, x: number, y: number}} point */
  drawReadingPoint(context, point) {
    const lane = this.lane(point.id);
    if (!lane) return;
    context.fillStyle = laneColour(lane);
    context.strokeStyle = token("plot-ground");
    context.lineWidth = 2;
    context.beginPath();
    context.arc(this.px(point.x), this.py(point.y), 5, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
  }

  /** The box to zoom into. @param {CanvasRenderingContext2D} context */
  drawBox(context) {
    if (!this.box) return;
    const { x, y, toX, toY } = this.box;
    context.fillStyle = token("signal");
    context.globalAlpha = 0.12;
    context.fillRect(x, y, toX - x, toY - y);
    context.globalAlpha = 1;
    context.strokeStyle = token("signal");
    context.lineWidth = 1.5;
    context.strokeRect(x, y, toX - x, toY - y);
  }
}
