// @ts-check
/** Strips of curves: the parameter from start to end, with its landmarks, and ends that can be dragged. */

import { laneColour, shapeParts, token } from "../drawing/style.js";
import { element } from "../drawing/svg.js";
import { niceStep, rounded, short } from "../sheet/view.js";
import { MARGIN } from "./sliders.js";

const HEIGHT = 44;
const SNAP = 6; // pixels within which an end goes to a part of π
const PARTS = 12; // of π

/** @typedef {import("../drawing/plot.js").Plot} Plot */
/** @typedef {import("../drawing/plot.js").Lane} Lane */
/** @typedef {import("../drawing/plot.js").Mark} Mark */
/** @typedef {import("./sliders.js").Slider} Slider */
/** @typedef {Lane & {slider: Slider, variable: string}} CurveLane */

export class Alongs {
  /**
   * @param {HTMLElement} list
   * @param {Plot} plot
   * @param {import("./strips.js").Strips} strips where landmarks are kept
   * @param {{degrees: () => boolean, preview: (id: string, end: string, text: string) => void, settle: (id: string, end: string, text: string) => void}} told
   */
  constructor(list, plot, strips, told) {
    this.list = list;
    this.plot = plot;
    this.strips = strips;
    this.told = told;
    /** An end under the hand, and where it is. @type {null | {id: string, end: string, value: number}} */
    this.held = null;
  }

  /** @param {Lane[]} lanes */
  draw(lanes) {
    for (const lane of lanes) {
      const svg = lane.strip === "curve" ? this.list.querySelector(`.lane[data-lane="${lane.id}"] .strip`) : null;
      if (svg) this.drawOne(/** @type {SVGSVGElement} */ (svg), /** @type {CurveLane} */ (lane));
    }
  }

  /** @param {SVGSVGElement} svg @param {CurveLane} lane */
  drawOne(svg, lane) {
    const focused = svg.querySelector(".handle:focus")?.getAttribute("data-end");
    svg.querySelector(".along")?.remove();
    const group = element("g", { class: "along" });
    const path = this.strips.paths.get(lane.id);
    const own = path?.landmarks ?? [];
    const met = (this.strips.crossings.get(lane.id) ?? []).filter((mark) => mark.key.startsWith(lane.id));
    for (const [low, high, sign] of path?.spans ?? []) if (sign < 0) group.append(this.stretch(lane, low, high, "strip-negative", "r is negative here"));
    for (const [low, high] of path?.open ?? []) group.append(this.stretch(lane, low, high, "strip-open", "not settled here"));
    for (const [low, high, why] of path?.undefined ?? []) group.append(this.stretch(lane, low, high, "strip-undefined", why || "no point here"));
    for (const mark of [...own, ...met]) group.append(...this.marks(lane, mark));
    for (const end of ["low", "high"]) group.append(this.handle(lane, end));
    svg.append(group);
    if (focused) /** @type {SVGElement | null} */ (svg.querySelector(`[data-end="${focused}"]`))?.focus();
  }

  /** @param {CurveLane} lane @param {number} t */
  px(lane, t) {
    const { low, high, inset = 0 } = lane.slider;
    const width = this.plot.size.width;
    const room = MARGIN + inset * width;
    return room + ((t - low) / (high - low)) * (width - 2 * room);
  }

  /** @param {CurveLane} lane @param {number} low @param {number} high @param {string} kind @param {string} title */
  stretch(lane, low, high, kind, title) {
    const from = this.px(lane, low);
    const rect = element("rect", { x: from, y: 20, width: Math.max(3, this.px(lane, high) - from), height: 20, class: kind });
    rect.append(element("title", {}, title));
    return rect;
  }

  /** A landmark at each of its parameters. @param {CurveLane} lane @param {Mark} mark */
  marks(lane, mark) {
    const { low, high } = lane.slider;
    const places = mark.t === undefined ? [] : [mark.t, ...(mark.also ?? [])];
    const colour = mark.kind === "intersection" ? token("ink") : laneColour(lane);
    return places
      .filter((t) => t >= low - 1e-9 * (high - low) && t <= high + 1e-9 * (high - low))
      .map((t) => {
        const group = element("g", {
          transform: `translate(${this.px(lane, t)} 34) scale(.8)`,
          class: mark.key === this.plot.selected ? "strip-mark is-selected" : "strip-mark",
          "data-key": mark.key,
          "data-kind": mark.kind,
          "data-x": mark.x,
        });
        group.append(element("rect", { x: -9, y: -9, width: 18, height: 18, fill: "transparent" }));
        if (mark.key === this.plot.selected) group.append(element("circle", { r: 10, class: "strip-ring" }));
        for (const part of shapeParts(mark.kind, mark.closed, colour)) {
          group.append(element("path", { d: part.path, fill: part.fill, stroke: part.stroke, "stroke-width": 1.75 }));
        }
        group.append(element("title", {}, `${mark.kind.replaceAll("-", " ")} at ${lane.variable} = ${Number(t.toPrecision(6))}`));
        return group;
      });
  }

  /** @param {CurveLane} lane @param {string} end */
  handle(lane, end) {
    const held = this.held?.id === lane.id && this.held.end === end ? this.held.value : null;
    const value = held ?? (end === "low" ? lane.slider.low : lane.slider.high);
    const inward = end === "low" ? 8 : -8;
    const group = element("g", {
      transform: `translate(${this.px(lane, value)} 0)`,
      class: "handle",
      tabindex: 0,
      role: "slider",
      "data-end": end,
      "aria-label": `${end === "low" ? "Start" : "End"} of the range of ${lane.variable} on ${lane.name}`,
      "aria-valuenow": value,
      "aria-valuetext": this.text(value),
    });
    group.append(element("rect", { x: -12, y: 0, width: 24, height: HEIGHT, fill: "transparent" }));
    group.append(element("path", { d: `M${inward} 4H0V${HEIGHT - 4}H${inward}`, fill: "none", stroke: token("ink"), "stroke-width": 2.25 }));
    group.addEventListener("pointerdown", (event) => this.grab(/** @type {PointerEvent} */ (event), lane, end));
    group.addEventListener("keydown", (event) => this.nudge(/** @type {KeyboardEvent} */ (event), lane, end, value));
    return group;
  }

  /** @param {PointerEvent} event @param {CurveLane} lane @param {string} end */
  grab(event, lane, end) {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    const svg = /** @type {Element} */ (event.target).closest("svg");
    if (!svg) return;
    let last = "";
    const move = (/** @type {PointerEvent} */ at) => {
      if (at.pointerId !== event.pointerId) return;
      const value = this.snapped(lane, end, at.clientX - svg.getBoundingClientRect().left);
      last = this.text(value);
      this.held = { id: lane.id, end, value };
      this.told.preview(lane.id, end, last);
    };
    const drop = (/** @type {PointerEvent} */ at) => {
      if (at.pointerId !== event.pointerId) return;
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", drop);
      window.removeEventListener("pointercancel", drop);
      this.held = null;
      if (last) this.told.settle(lane.id, end, last);
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", drop);
    window.addEventListener("pointercancel", drop);
  }

  /** An end at a pixel: at a part of π or a step where one is near, and never past the other end. @param {CurveLane} lane @param {string} end @param {number} px */
  snapped(lane, end, px) {
    const { low, high, inset = 0 } = lane.slider;
    const width = this.plot.size.width;
    const room = MARGIN + inset * width;
    const pixel = (high - low) / (width - 2 * room);
    const wanted = low + (Math.min(Math.max(px, 0), width) - room) * pixel;
    const part = this.told.degrees() ? 15 : Math.PI / PARTS;
    const near = Math.round(wanted / part) * part;
    const value = Math.abs(near - wanted) < SNAP * pixel ? near : rounded(wanted, niceStep(pixel));
    const least = 4 * pixel;
    return end === "low" ? Math.min(value, high - least) : Math.max(value, low + least);
  }

  /** An end as it would be typed: parts of π as such. @param {number} value */
  text(value) {
    const parts = (value / Math.PI) * PARTS;
    const count = Math.round(parts);
    if (this.told.degrees() || !count || Math.abs(parts - count) > 1e-9) return short(value, 1e-12);
    const common = gcd(Math.abs(count), PARTS);
    const [top, bottom] = [Math.abs(count) / common, PARTS / common];
    return `${count < 0 ? "-" : ""}${top === 1 ? "" : top}π${bottom === 1 ? "" : `/${bottom}`}`;
  }

  /** @param {KeyboardEvent} event @param {CurveLane} lane @param {string} end @param {number} value */
  nudge(event, lane, end, value) {
    const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? niceStep((lane.slider.high - lane.slider.low) / 1000) : this.told.degrees() ? 15 : Math.PI / PARTS;
    this.told.settle(lane.id, end, this.text(Math.round((value + way * step) / step) * step));
  }
}

/** @param {number} a @param {number} b @returns {number} */
const gcd = (a, b) => (b ? gcd(b, a % b) : a);
