// @ts-check
/** Landmarks on the plot: their shapes, their labels, and which is under a pixel. */

import { LOOK } from "./look.js";
import { laneColour, shapeParts, token } from "./style.js";

/** @typedef {import("./plot.js").Plot} Plot */
/** @typedef {import("./plot.js").Mark} Mark */
const REACH = 13; // pixels around a landmark that belong to it

/** A landmark where it shows. @typedef {{mark: Mark, kind: string, closed: boolean, colour: string, x: number, y: number, size: number}} Spot */
/** Landmarks that are too close together to be told apart. @typedef {{x: number, y: number, spots: Spot[]}} Cluster */

/** What is too close together is one mark with a number. @param {Plot} plot */
export function groupMarks(plot) {
  plot.clusters = clusters(spotsOf(plot), plot.selected);
}

/** Landmarks on the plot, as they are grouped. @param {Plot} plot @param {CanvasRenderingContext2D} context */
export function drawMarks(plot, context) {
  for (const mark of marked(plot)) if (mark.kind === "pole") drawAsymptote(plot, context, mark, colourOf(plot, mark));
  let open = null;
  for (const cluster of plot.clusters) {
    if (cluster.spots.length === 1) drawSpot(plot, context, cluster.spots[0]);
    else if (cluster === opened(plot)) open = cluster;
    else drawCount(plot, context, cluster);
  }
  if (open) for (const spot of fan(open, plot.size)) drawLed(plot, context, open, spot);
}

/** What is marked on the plot: of the kinds that a person wants to see, and what is selected or labelled. @param {Plot} plot @returns {Mark[]} */
function marked(plot) {
  const { without = [] } = plot.ground.typed;
  // Among very many curves the landmarks of all would cover one another and the curves.
  const seen = plot.isHeavy ? all(plot).filter((mark) => concerns(mark, plot.chosen) || mark.key === plot.selected || plot.pinned.has(mark.key)) : all(plot);
  return seen.filter((mark) => !without.includes(/** @type {any} */ (mark.group)) || mark.key === plot.selected || plot.pinned.has(mark.key));
}

/** The colour of a landmark's lane; of what belongs to two, ink. @param {Plot} plot @param {Mark} mark */
function colourOf(plot, mark) {
  const lane = mark.group === "intersections" ? undefined : plot.lane(mark.key.split(":")[0]);
  return lane ? laneColour(lane) : token("ink");
}

export const CALM = 4; // curves from which on intersections are drawn smaller
const SMALL = 0.7;

/** Where landmarks show in the plot. @param {Plot} plot @returns {Spot[]} */
function spotsOf(plot) {
  const { width, height } = plot.size;
  const calm = plot.shown().length >= CALM;
  const found = [];
  for (const mark of marked(plot)) {
    if (mark.kind === "pole") continue;
    const size = calm && mark.group === "intersections" && !concerns(mark, plot.chosen) ? SMALL : 1;
    for (const { y, closed, kind } of placesOf(mark)) {
      const at = { x: plot.px(mark.x), y: plot.py(y) + lifted(kind) };
      if (at.x < -8 || at.x > width + 8 || at.y < -8 || at.y > height + 8) continue;
      found.push({ mark, kind, closed, size, colour: colourOf(plot, mark), ...at });
    }
  }
  return found;
}

/** Whether an intersection is one of the lane that is chosen. @param {Mark} mark @param {string | null} lane */
const concerns = (mark, lane) => lane !== null && mark.key.split(":")[0].split("+").includes(lane);

/** A landmark that is several things at once shows as the first of these. */
const RANK = ["zero", "maximum", "minimum", "end", "hole", "kink", "intersection", "inflection"];
const rank = (/** @type {Spot} */ spot) => (RANK.indexOf(spot.kind) + 1 || RANK.length + 1) + (spot.size < 1 ? 0.5 : 0);
const MERGED = 10; // pixels between two marks from which on both can be seen
const SAME = 1e-9; // of x: two landmarks that are no farther apart are one point

/**
 * Landmarks in groups of those that cover one another. One that is selected stays by itself.
 * @param {Spot[]} spots @param {string | null} selected @returns {Cluster[]}
 */
export function clusters(spots, selected) {
  const ordered = [...spots].sort((a, b) => a.x - b.x || a.y - b.y);
  /** @type {Cluster[]} */
  const found = [];
  /** Groups that a spot further right may still belong to. @type {Cluster[]} */
  let near = [];
  for (const spot of ordered) {
    if (spot.mark.key === selected) {
      found.push({ x: spot.x, y: spot.y, spots: [spot] });
      continue;
    }
    near = near.filter((cluster) => spot.x - cluster.spots[cluster.spots.length - 1].x < MERGED);
    const into = near.find((cluster) => cluster.spots.some((other) => Math.hypot(other.x - spot.x, other.y - spot.y) < MERGED * Math.min(1, spot.size + other.size - 1)));
    if (into) {
      into.spots.push(spot);
    } else {
      const cluster = { x: spot.x, y: spot.y, spots: [spot] };
      found.push(cluster);
      near.push(cluster);
    }
  }
  return found.map(together);
}

/** Whether two landmarks are the same point, such as a zero that is an inflection too. @param {Spot} one @param {Spot} other */
const isSame = (one, other) => Math.abs(one.mark.x - other.mark.x) <= SAME * (1 + Math.abs(one.mark.x)) && Math.abs(one.y - lifted(one.kind) - other.y + lifted(other.kind)) < 1;

/** A group in its middle; several landmarks at the very same point of it are one to look at. @param {Cluster} cluster @returns {Cluster} */
function together(cluster) {
  const spots = [...cluster.spots].sort((a, b) => rank(a) - rank(b));
  const apart = spots.filter((spot, k) => !spots.slice(0, k).some((other) => isSame(spot, other)));
  if (apart.length === 1) return { x: spots[0].x, y: spots[0].y, spots: [spots[0]] };
  const middle = (/** @type {"x" | "y"} */ axis) => apart.reduce((sum, spot) => sum + spot[axis], 0) / apart.length;
  return { x: middle("x"), y: middle("y"), spots: apart };
}

/** The group under the pointer, or the one that holds the selected landmark. @param {Plot} plot @returns {Cluster | null} */
function opened(plot) {
  const at = plot.pointed;
  if (!at) return null;
  const several = plot.clusters.filter((cluster) => cluster.spots.length > 1);
  return several.find((cluster) => Math.hypot(cluster.x - at.x, cluster.y - at.y) < REACH || overFan(cluster, at, plot.size)) ?? null;
}

const APART = 24; // pixels between the marks of an opened group

/** Where the landmarks of an opened group stand: side by side above it, or below where there is no room. @param {Cluster} cluster @param {import("../sheet/view.js").Size} size @returns {Spot[]} */
function fan(cluster, size) {
  const half = ((cluster.spots.length - 1) * APART) / 2;
  const middle = Math.min(Math.max(cluster.x, half + 14), size.width - half - 14);
  const y = cluster.y > 46 ? cluster.y - 32 : cluster.y + 32;
  const ordered = [...cluster.spots].sort((a, b) => a.x - b.x || b.y - a.y);
  return ordered.map((spot, k) => ({ ...spot, x: middle - half + k * APART, y, size: 1 }));
}

/** Whether a pixel is on an opened group, or on the way from its number to its marks. @param {Cluster} cluster @param {{x: number, y: number}} at @param {import("../sheet/view.js").Size} size */
function overFan(cluster, at, size) {
  const spots = fan(cluster, size);
  const [low, high] = [Math.min(cluster.y, spots[0].y) - 14, Math.max(cluster.y, spots[0].y) + 14];
  return at.y > low && at.y < high && at.x > spots[0].x - 14 && at.x < spots[spots.length - 1].x + 14;
}

/** A landmark of an opened group, with a line to its point. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Cluster} cluster @param {Spot} spot */
function drawLed(plot, context, cluster, spot) {
  const from = cluster.spots.find((other) => other.mark === spot.mark) ?? cluster;
  context.strokeStyle = token("rule-strong");
  context.lineWidth = 1;
  context.beginPath();
  context.moveTo(from.x, from.y);
  context.lineTo(spot.x, spot.y);
  context.stroke();
  context.fillStyle = token("card");
  context.beginPath();
  context.arc(spot.x, spot.y, 10.5, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
  drawSpot(plot, context, spot);
}

/** A group as a number. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Cluster} cluster */
function drawCount(plot, context, { x, y, spots }) {
  const colours = new Set(spots.map((spot) => spot.colour));
  const colour = colours.size === 1 ? spots[0].colour : token("ink");
  const text = String(spots.length);
  const wide = text.length > 1 ? 10 : 7.5;
  context.fillStyle = token("plot-ground");
  context.strokeStyle = colour;
  context.lineWidth = 1.5;
  context.beginPath();
  context.roundRect(x - wide, y - 7.5, 2 * wide, 15, 7.5);
  context.fill();
  context.stroke();
  context.fillStyle = colour;
  context.font = `700 11px ${token("font")}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.fillText(text, x, y + 0.5);
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
const lifted = (kind) => LOOK.lifted[kind] ?? 0;

/** @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Spot} spot */
function drawSpot(plot, context, { mark, kind, closed, colour, size, x, y }) {
  context.save();
  context.translate(x, y);
  context.scale(size, size);
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

/** A pole's asymptote: a broken vertical line. @param {Plot} plot @param {CanvasRenderingContext2D} context @param {Mark} mark @param {string} colour */
function drawAsymptote(plot, context, mark, colour) {
  const px = Math.round(plot.px(mark.x)) + 0.5;
  if (px < 0 || px > plot.size.width) return;
  context.save();
  context.strokeStyle = colour;
  context.lineWidth = mark.key === plot.selected ? 2.5 : 1.25;
  context.setLineDash(LOOK.asymptote);
  context.beginPath();
  context.moveTo(px, 0);
  context.lineTo(px, plot.size.height);
  context.stroke();
  context.restore();
}

/** The landmark under a pixel; of a group that is open, the one that the pixel is on. @param {Plot} plot @param {number} px @param {number} py @returns {Mark | null} */
export function markAt(plot, px, py) {
  const open = plot.clusters.find((cluster) => cluster === opened(plot));
  const spots = open ? fan(open, plot.size) : plot.clusters.flatMap((cluster) => cluster.spots);
  let best = null;
  let nearest = REACH;
  for (const spot of spots) {
    const away = Math.hypot(spot.x - px, spot.y - py);
    if (away < nearest) {
      nearest = away;
      best = spot.mark;
    }
  }
  return best;
}

/** The pointer is elsewhere; gives whether a group has opened or closed by that. @param {Plot} plot @param {{x: number, y: number} | null} at */
export function pointTo(plot, at) {
  const before = opened(plot);
  plot.pointed = at;
  return opened(plot) !== before;
}

/** The x of the landmark nearest to a pixel column, where one is within reach. @param {Plot} plot @param {number} px @param {number} reach @returns {number | null} */
export function landmarkNear(plot, px, reach) {
  let best = null;
  let nearest = reach;
  for (const mark of marked(plot)) {
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
 * @param {import("../sheet/view.js").Size} size
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
