// @ts-check
/** Draws each lane's strip on the x-axis of the plot, and lets its end brackets be dragged. */

import { CALM } from "../drawing/marks.js";
import { laneColour, shapeParts, token } from "../drawing/style.js";
import { Kept, element, keptIn, place } from "../drawing/svg.js";
import { fromPixelX, niceStep, rounded, toPixelX } from "../sheet/view.js";

const HEIGHT = 44;
const SNAP = 6; // pixels within which a bracket goes to a tick
/** How near a lane has to be for its strip to be drawn: it may be printed or scrolled to at once. The lanes scroll in a room of their own, or with the page. */
const NEAR = /** @type {IntersectionObserverInit} */ ({ rootMargin: "100% 0%", scrollMargin: "100% 0%" });

/**
 * @typedef {{id: string, low: number | null, high: number | null, lowClosed: boolean,
 *   highClosed: boolean, landmarks: import("../drawing/plot.js").Mark[],
 *   spans: [number, number, number, number][], counts: [number, number, number][], open: [number, number][],
 *   undefined: [number, number, string][]}} LanePath
 */

export class Strips {
  /**
   * @param {HTMLElement} list
   * @param {import("../drawing/plot.js").Plot} plot
   * @param {{preview: (id: string, end: string, value: number) => void,
   *   settle: (id: string, end: string, value: number) => void}} told
   */
  constructor(list, plot, told) {
    this.list = list;
    this.plot = plot;
    this.told = told;
    /** @type {Map<string, LanePath>} */
    this.paths = new Map();
    /** @type {Map<string, import("../drawing/plot.js").Mark[]>} */
    this.crossings = new Map();
    /** @type {null | {id: string, end: string, pointer: number}} */
    this.held = null;
    /** @type {import("../drawing/plot.js").Lane[]} */
    this.lanes = [];
    /** The strips of lanes, as looking for them takes long among very many. @type {Map<string, SVGSVGElement>} */
    this.svgs = new Map();
    /** Whether there are so many lanes that their intersections are drawn small. */
    this.many = false;
    /** Those parts of the strip that is being drawn which are there already. */
    this.kept = new Kept();
    /** Strips far out of sight, which are drawn when they come: measuring them would lay out the page. @type {WeakSet<Element>} */
    this.away = new WeakSet();
    this.watched = new IntersectionObserver((entries) => this.sighted(entries), NEAR);
  }

  /** Lanes have come near, or gone. @param {IntersectionObserverEntry[]} entries */
  sighted(entries) {
    for (const { target, isIntersecting } of entries) {
      const came = isIntersecting && this.away.delete(target);
      if (!isIntersecting) this.away.add(target);
      const lane = came && this.lanes.find(({ id }) => id === target.getAttribute("data-lane"));
      const svg = lane && this.svg(lane.id);
      if (svg) this.drawOne(svg, lane);
    }
  }

  /** @param {import("../drawing/plot.js").Lane[]} lanes */
  draw(lanes) {
    this.lanes = lanes;
    this.many = this.plot.shown().length >= CALM;
    const all = matchMedia("print").matches;
    for (const lane of lanes) {
      const svg = lane.strip === "path" || lane.strip === "ticks" ? this.svg(lane.id) : null;
      if (svg && (all || !this.away.has(/** @type {Element} */ (svg.closest(".lane"))))) this.drawOne(svg, lane);
    }
  }

  /** @param {string} id @returns {SVGSVGElement | null} */
  svg(id) {
    let svg = this.svgs.get(id);
    if (!svg?.isConnected) {
      svg = /** @type {SVGSVGElement | null} */ (this.list.querySelector(`.lane[data-lane="${id}"] .strip`)) ?? undefined;
      if (svg) {
        this.svgs.set(id, svg);
        this.watched.observe(/** @type {Element} */ (svg.closest(".lane")));
      }
    }
    return svg ?? null;
  }

  /** @param {SVGSVGElement} svg @param {import("../drawing/plot.js").Lane} lane */
  drawOne(svg, lane) {
    const focused = svg.contains(document.activeElement)
      ? document.activeElement?.getAttribute("data-end")
      : null;
    const width = this.plot.size.width;
    place(svg, { viewBox: `0 0 ${width} ${HEIGHT}` });
    const path = this.paths.get(lane.id);
    this.kept = keptIn(svg);
    const parts = path ? [...this.parts(lane, path), ...this.handles(lane, path)] : lane.strip === "ticks" ? this.ticks(lane) : [];
    this.kept.done();
    // While something moves most of a strip stays what it is, but for its places.
    if (parts.length !== svg.childNodes.length || parts.some((part, k) => part !== svg.childNodes[k])) svg.replaceChildren(...parts);
    if (focused) /** @type {SVGElement | null} */ (svg.querySelector(`[data-end="${focused}"]`))?.focus();
  }

  /** @param {number} x */
  px(x) {
    const at = toPixelX(this.plot.view, this.plot.size, x);
    return Math.min(Math.max(at, -50), this.plot.size.width + 50);
  }

  /** @param {import("../drawing/plot.js").Lane} lane @param {LanePath} path */
  parts(lane, path) {
    const colour = laneColour(lane);
    const view = this.plot.view;
    const parts = [];
    const marks = [...path.landmarks, ...(this.crossings.get(lane.id) ?? [])].filter((mark) => mark.kind !== "y-intercept");
    const low = Math.max(path.low ?? view.left, view.left);
    const high = Math.min(path.high ?? view.right, view.right);
    if (low < high) {
      const [from, to] = [this.px(low), this.px(high)];
      const band = { x: from, y: 4, width: to - from, height: HEIGHT - 8 };
      parts.push(this.kept.part("band", "rect", { ...band, fill: colour, opacity: 0.08 }));
      for (const stretch of path.counts) parts.push(...this.counted(stretch, colour));
      parts.push(...this.spans(path, colour, low, high, marks));
      for (const stretch of path.undefined) parts.push(this.blank(stretch, low, high));
      for (const stretch of path.open) parts.push(this.unsettled(stretch));
      const middle = { x1: from, x2: to, y1: HEIGHT / 2, y2: HEIGHT / 2 };
      parts.push(this.kept.part("middle", "line", { ...middle, stroke: colour, "stroke-width": 1, opacity: 0.5 }));
    }
    parts.push(...this.residuals(lane));
    for (const mark of marks) {
      if (mark.x < view.left || mark.x > view.right || (mark.kind === "end" && this.isBracket(path, mark.x))) continue;
      parts.push(this.mark(mark, mark.kind === "intersection" ? token("ink") : colour));
    }
    if (this.plot.reading !== null) {
      const at = this.px(this.plot.reading);
      const line = { x1: at, x2: at, y1: 0, y2: HEIGHT, stroke: token("reading"), "stroke-width": 1.25 };
      parts.push(this.kept.part("reading", "line", { ...line, class: "strip-reading" }));
    }
    return parts;
  }

  /** A line for every value of a data set. @param {import("../drawing/plot.js").Lane} lane */
  ticks(lane) {
    const colour = laneColour(lane);
    const at = (lane.ticks ?? []).map((x) => this.px(x));
    return at.map((x, k) => element("line", { "data-tick": lane.ticks[k],  x1: x, x2: x, y1: 6, y2: HEIGHT - 6, stroke: colour, "stroke-width": 1.5, opacity: 0.75 }));
  }

  /** What a fit leaves over at each point, above and below the middle. @param {import("../drawing/plot.js").Lane} lane */
  residuals(lane) {
    const rows = lane.residuals ?? [];
    const most = Math.max(...rows.map(([, rest]) => Math.abs(rest)), 0) || 1;
    const colour = laneColour(lane);
    return rows.map(([x, rest]) => {
      const at = this.px(x);
      return element("line", { x1: at, x2: at, y1: HEIGHT / 2, y2: HEIGHT / 2 - (rest / most) * (HEIGHT / 2 - 3), stroke: colour, "stroke-width": 2.5 });
    });
  }

  /** How many points of a relation lie over a stretch. @param {[number, number, number]} stretch @param {string} colour */
  counted([start, stop, many], colour) {
    const [from, to] = [this.px(start), this.px(stop)];
    if (!many || to <= 0 || from >= this.plot.size.width) return [];
    const height = Math.min(HEIGHT - 8, 9 * many);
    const parts = [element("rect", { x: from, y: (HEIGHT - height) / 2, width: to - from, height, fill: colour, opacity: 0.22 })];
    if (to - from < 24) return parts;
    const text = element("text", { x: (Math.max(from, 0) + Math.min(to, this.plot.size.width)) / 2, y: 14, "font-size": 12.5, "text-anchor": "middle", fill: token("ink") });
    text.textContent = String(many);
    return [...parts, text];
  }

  /**
   * Above and below zero as tints, rising and falling as arrows.
   * @param {LanePath} path @param {string} colour @param {number} low @param {number} high
   * @param {import("../drawing/plot.js").Mark[]} marks
   */
  spans(path, colour, low, high, marks) {
    const parts = [];
    for (const [start, stop, sign, direction] of path.spans) {
      const from = this.px(Math.max(start, low));
      const to = this.px(Math.min(stop, high));
      if (to <= from) continue;
      if (sign) {
        const y = sign > 0 ? 4 : HEIGHT / 2;
        const half = { x: from, y, width: to - from, height: HEIGHT / 2 - 4 };
        parts.push(element("rect", { ...half, fill: colour, opacity: 0.2 }));
      }
      // An arrow keeps clear of the landmarks, or is left out.
      const clear = (/** @type {number} */ x) => marks.every((mark) => Math.abs(this.px(mark.x) - x) > 18);
      const middle = [0.5, 0.35, 0.65, 0.22, 0.78].map((share) => from + (to - from) * share).find(clear);
      if (direction && to - from > 34 && middle !== undefined) parts.push(this.arrow(middle, direction, colour));
    }
    return parts;
  }

  /** @param {number} x @param {number} direction @param {string} colour */
  arrow(x, direction, colour) {
    const y = HEIGHT / 2;
    const tip = direction > 0 ? -6 : 6;
    const back = direction > 0 ? 1 : -1;
    const d = `M${x - 10} ${y - tip}L${x + 10} ${y + tip}m-6 ${-1.2 * back}l6 ${1.2 * back}l-3.2 ${5.2 * back}`;
    const line = { d, fill: "none", stroke: colour, "stroke-width": 1.6, "stroke-linecap": "round" };
    const arrow = element("path", line);
    arrow.append(element("title", {}, direction > 0 ? "rising" : "falling"));
    return arrow;
  }

  /** @param {[number, number, string]} stretch @param {number} low @param {number} high */
  blank([start, stop, why], low, high) {
    const from = this.px(Math.max(start, low));
    const to = this.px(Math.min(stop, high));
    const box = { x: from, y: 4, width: Math.max(0, to - from), height: HEIGHT - 8 };
    const rect = element("rect", { ...box, class: "strip-undefined" });
    rect.append(element("title", {}, why ? `undefined here: ${why}` : "undefined here"));
    const group = element("g", {});
    group.append(rect);
    for (let x = Math.ceil(from / 9) * 9; x < to + HEIGHT && x < this.plot.size.width + HEIGHT; x += 9) {
      const a = Math.max(from, x - (HEIGHT - 8));
      const b = Math.min(to, x);
      if (b > a) group.append(element("line", { x1: a, y1: 4 + x - a, x2: b, y2: 4 + x - b, class: "strip-hatch" }));
    }
    return group;
  }

  /** Whether an end is one that can be dragged. @param {LanePath} path @param {number} x */
  isBracket(path, x) {
    return x === path.low || x === path.high;
  }

  /** @param {[number, number]} stretch */
  unsettled([start, stop]) {
    const from = this.px(start);
    const width = Math.max(3, this.px(stop) - from);
    const x = width === 3 ? (from + this.px(stop)) / 2 - 1.5 : from;
    const rect = element("rect", { x, y: 4, width, height: HEIGHT - 8, class: "strip-open" });
    rect.append(element("title", {}, "not settled here"));
    return rect;
  }

  /** @param {import("../drawing/plot.js").Mark} mark @param {string} colour */
  mark(mark, colour) {
    const heights = { maximum: 11, minimum: HEIGHT - 11 };
    const y = heights[/** @type {keyof typeof heights} */ (mark.kind)] ?? HEIGHT / 2;
    const at = toPixelX(this.plot.view, this.plot.size, mark.x);
    const small = mark.kind === "intersection" && mark.key !== this.plot.selected && this.many;
    const selected = mark.key === this.plot.selected;
    const attributes = {
      transform: `translate(${at} ${y})${small ? " scale(.7)" : ""}`,
      class: selected ? "strip-mark is-selected" : "strip-mark",
      "data-key": mark.key,
      "data-kind": mark.kind,
      "data-x": mark.x,
    };
    return this.kept.part(`${mark.key} ${mark.closed} ${colour} ${selected}`, "g", attributes, (group) => {
      group.append(element("rect", { x: -9, y: -11, width: 18, height: 22, fill: "transparent" }));
      if (selected) group.append(element("circle", { r: 10, class: "strip-ring" }));
      for (const part of shapeParts(mark.kind, mark.closed, colour)) {
        group.append(element("path", { d: part.path, fill: part.fill, stroke: part.stroke, "stroke-width": 1.75 }));
      }
      group.append(element("title", {}, mark.kind));
    });
  }

  /** @param {import("../drawing/plot.js").Lane} lane @param {LanePath} path */
  handles(lane, path) {
    const handles = [];
    for (const end of ["low", "high"]) {
      const x = end === "low" ? path.low : path.high;
      if (x === null && this.svg(lane.id)?.closest(".lane")?.querySelector(`.end[data-end="${end}"]:enabled`)) handles.push(this.start(lane, end));
      if (x === null || x < this.plot.view.left || x > this.plot.view.right) continue;
      const closed = end === "low" ? path.lowClosed : path.highClosed;
      handles.push(this.handle(lane, end, x, closed));
    }
    return handles;
  }

  /**
   * Where a domain has no end, a hand can take hold of one at the edge of the view; keys have the field.
   * @param {import("../drawing/plot.js").Lane} lane @param {string} end
   */
  start(lane, end) {
    const inward = end === "low" ? 1 : -1;
    const at = end === "low" ? 0 : this.plot.size.width;
    return this.kept.part(`start ${end}`, "g", { transform: `translate(${at} 0)`, class: "handle is-start", "data-start": end }, (group) => {
      group.append(element("rect", { x: end === "low" ? 0 : -20, y: 0, width: 20, height: HEIGHT, fill: "transparent" }));
      group.append(element("path", { d: `M${9 * inward} 3H${2 * inward}V${HEIGHT - 3}H${9 * inward}`, fill: "none", stroke: token("ink"), "stroke-width": 2 }));
      group.append(element("title", {}, `drag: the ${end === "low" ? "start" : "end"} of a domain`));
      group.addEventListener("pointerdown", (event) => this.grab(/** @type {PointerEvent} */ (event), lane.id, end));
    });
  }

  /** @param {import("../drawing/plot.js").Lane} lane @param {string} end @param {number} x @param {boolean} closed */
  handle(lane, end, x, closed) {
    const inward = end === "low" ? 8 : -8;
    const group = element("g", {
      transform: `translate(${this.px(x)} 0)`,
      class: "handle",
      tabindex: 0,
      role: "slider",
      "data-end": end,
      "aria-label": `${end === "low" ? "Start" : "End"} of the domain of ${lane.name}`,
      "aria-valuenow": x,
      "aria-valuemin": this.plot.view.left,
      "aria-valuemax": this.plot.view.right,
    });
    const bracket = closed
      ? `M${inward} 2H0V${HEIGHT - 2}H${inward}`
      : `M${inward} 2Q0 2 0 10V${HEIGHT - 10}Q0 ${HEIGHT - 2} ${inward} ${HEIGHT - 2}`;
    group.append(element("rect", { x: -12, y: 0, width: 24, height: HEIGHT, fill: "transparent" }));
    group.append(element("path", { d: bracket, fill: "none", stroke: token("ink"), "stroke-width": 2.5 }));
    group.addEventListener("pointerdown", (event) => this.grab(/** @type {PointerEvent} */ (event), lane.id, end));
    group.addEventListener("keydown", (event) => this.nudge(/** @type {KeyboardEvent} */ (event), lane.id, end, x));
    return group;
  }

  /** @param {PointerEvent} event @param {string} id @param {string} end */
  grab(event, id, end) {
    if (event.button !== 0) return;
    event.preventDefault();
    const svg = this.svg(id);
    if (!svg) return;
    const pointer = event.pointerId;
    let last = 0;
    let moved = false;
    const move = (/** @type {PointerEvent} */ at) => {
      if (at.pointerId !== pointer) return;
      last = this.snapped(at.clientX - svg.getBoundingClientRect().left, id, end);
      moved = true;
      const path = this.paths.get(id);
      if (path) this.paths.set(id, { ...path, [end]: last });
      this.told.preview(id, end, last);
    };
    const drop = (/** @type {PointerEvent} */ at) => {
      if (at.pointerId !== pointer) return;
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", drop);
      window.removeEventListener("pointercancel", drop);
      document.body.classList.remove("is-dragging");
      this.held = null;
      if (moved) this.told.settle(id, end, last);
    };
    this.held = { id, end, pointer };
    document.body.classList.add("is-dragging");
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", drop);
    window.addEventListener("pointercancel", drop);
  }

  /** A bracket's x at a pixel: a tick where one is near, and never past the other bracket. @param {number} px @param {string} id @param {string} end */
  snapped(px, id, end) {
    const { view, size } = this.plot;
    const pixel = (view.right - view.left) / size.width;
    const step = niceStep(pixel);
    // A bracket may be dragged out of the view, up to half a view beyond its edge.
    const held = Math.min(Math.max(px, -size.width / 2), size.width * 1.5);
    let x = rounded(fromPixelX(view, size, held), step);
    const apart = this.plot.stepAcross();
    const tick = rounded(x, apart);
    if (Math.abs(tick - x) < SNAP * pixel) x = tick;
    const path = this.paths.get(id);
    const gap = niceStep(4 * pixel);
    if (end === "low" && typeof path?.high === "number") x = Math.min(x, rounded(path.high - gap, step));
    if (end === "high" && typeof path?.low === "number") x = Math.max(x, rounded(path.low + gap, step));
    return x;
  }

  /** @param {KeyboardEvent} event @param {string} id @param {string} end @param {number} x */
  nudge(event, id, end, x) {
    const direction = event.key === "ArrowLeft" ? -1 : event.key === "ArrowRight" ? 1 : 0;
    if (!direction) return;
    event.preventDefault();
    const step = niceStep((this.plot.view.right - this.plot.view.left) / 200) * (event.shiftKey ? 10 : 1);
    this.told.settle(id, end, rounded(x + direction * step, step));
  }
}
