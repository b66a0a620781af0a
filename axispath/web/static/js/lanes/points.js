// @ts-check
/** Points under the hand: on their strips and on the plot, by the pointer and by the arrow keys. */

import { laneColour, token } from "../drawing/style.js";
import { element, place } from "../drawing/svg.js";
import { apart } from "../drawing/ticks.js";
import { fromPixelX, fromPixelY, niceStep, rounded } from "../sheet/view.js";

const HEIGHT = 44;
const REACH = 12; // pixels around a point that belong to it
const FINER = 5; // parts of the way between two numbers that points are snapped to

/** @typedef {import("../drawing/plot.js").Plot} Plot */
/** @typedef {import("../drawing/plot.js").Lane} Lane */
/** @typedef {{x: number, y: number}} Place */

export class Points {
  /**
   * @param {HTMLElement} list
   * @param {Plot} plot
   * @param {{move: (id: string, x: number, y: number) => void, settle: (id: string, x: number, y: number) => void,
   *   along: (id: string, x: number, y: number, done: boolean) => void,
   *   row: (id: string, row: number, at: Place, done: boolean) => void, chosen: (id: string, row: number) => void}} told
   */
  constructor(list, plot, told) {
    this.list = list;
    this.plot = plot;
    this.told = told;
    /** Whether what is moved or put goes to the grid. */
    this.snapping = false;
    list.addEventListener("pointerdown", (event) => this.grab(event));
    list.addEventListener("keydown", (event) => this.pressed(event));
  }

  /** @param {Lane[]} lanes */
  draw(lanes) {
    for (const lane of lanes) {
      const svg = lane.strip === "point" ? this.list.querySelector(`.lane[data-lane="${lane.id}"] .strip`) : null;
      if (svg) this.drawOne(/** @type {SVGSVGElement} */ (svg), lane);
    }
  }

  /** @param {SVGSVGElement} svg @param {Lane} lane */
  drawOne(svg, lane) {
    const { width } = this.plot.size;
    const focused = svg.contains(document.activeElement);
    place(svg, { viewBox: `0 0 ${width} ${HEIGHT}` });
    const colour = laneColour(lane);
    const parts = [element("line", { x1: 0, x2: width, y1: HEIGHT / 2, y2: HEIGHT / 2, stroke: colour, "stroke-width": 1, opacity: 0.35 })];
    for (const [x, y] of lane.places) {
      const px = this.plot.px(x);
      if (px < -20 || px > width + 20) continue;
      const group = element("g", { transform: `translate(${px} ${HEIGHT / 2})`, "data-x": x });
      if (lane.free) {
        group.setAttribute("class", "thumb point-thumb");
        const label = `${lane.name}: arrow keys move it, up and down its height`;
        for (const [name, value] of Object.entries({ tabindex: "0", role: "slider", "aria-label": label, "aria-valuenow": String(x), "aria-valuetext": `(${x}, ${y})` })) group.setAttribute(name, value);
        group.append(element("rect", { x: -13, y: -20, width: 26, height: 40, fill: "transparent" }));
      }
      group.append(element("path", { d: "M0 -15V15", stroke: colour, "stroke-width": 2 }), element("circle", { r: 5, fill: colour, stroke: token("card"), "stroke-width": 1.5 }));
      const tells = lane.free ? "drag it, or move it with the arrow keys" : "it follows what it is made of, and moves with that";
      group.append(element("title", {}, `(${x}, ${y}): ${tells}`));
      parts.push(group);
    }
    svg.replaceChildren(...parts);
    if (focused) /** @type {SVGElement | null} */ (svg.querySelector(".point-thumb"))?.focus();
  }

  /** What a point is moved to at a pixel. @param {number} px @param {number} py @returns {Place} */
  at(px, py) {
    const { view, size } = this.plot;
    const [across, upwards] = this.snapping ? this.grid() : [niceStep((view.right - view.left) / size.width), niceStep((view.top - view.bottom) / size.height)];
    return { x: rounded(fromPixelX(view, size, px), across), y: rounded(fromPixelY(view, size, py), upwards) };
  }

  /** The steps of the grid that points are snapped to. */
  grid() {
    const { x, y } = this.plot.ground.ticks;
    const parts = this.plot.parts();
    return [apart(x, parts.x) / FINER, apart(y, parts.y) / FINER];
  }

  /**
   * What a drag on the plot does where it begins on a point that a hand can take; null elsewhere.
   * @param {Place} from
   * @returns {null | ((now: Place, done: boolean) => void)}
   */
  hold(from) {
    const { plot } = this;
    const lane = plot.shown().find((one) => one.free && one.places.some(([x, y]) => Math.hypot(plot.px(x) - from.x, plot.py(y) - from.y) < REACH));
    if (!lane) return null;
    return (now, done) => {
      const { x, y } = this.at(now.x, now.y);
      if (done) this.told.settle(lane.id, x, y);
      else this.told.move(lane.id, x, y);
    };
  }

  /**
   * The same where it begins on the moving point of a curve.
   * @param {Place} from
   * @returns {null | ((now: Place, done: boolean) => void)}
   */
  holdAlong(from) {
    const { plot } = this;
    const { view, size, picture } = plot;
    if (!picture) return null;
    const at = plot.mapping(picture.view);
    const lane = plot.shown().find((one) => one.strip === "curve" && (picture.shapes.get(one.id) ?? []).some((shape) => shape.handle && Math.hypot(at.across(shape.rows[0]) - from.x, at.down(shape.rows[1]) - from.y) < REACH));
    if (!lane) return null;
    return (now, done) => this.told.along(lane.id, fromPixelX(view, size, now.x), fromPixelY(view, size, now.y), done);
  }

  /**
   * The same where it begins on a point of a data set.
   * @param {Place} from
   * @returns {null | ((now: Place, done: boolean) => void) & {click: () => void}}
   */
  holdRow(from) {
    const { picture } = this.plot;
    if (!picture) return null;
    const at = this.plot.mapping(picture.view);
    for (const lane of this.plot.shown()) {
      const shape = lane.strip === "ticks" ? (picture.shapes.get(lane.id) ?? []).find((one) => one.handle) : null;
      for (let k = 0; shape && k < shape.rows.length; k += 2) {
        if (Math.hypot(at.across(shape.rows[k]) - from.x, at.down(shape.rows[k + 1]) - from.y) >= REACH / 2) continue;
        const drag = (/** @type {Place} */ now, /** @type {boolean} */ done) => this.told.row(lane.id, k / 2, this.at(now.x, now.y), done);
        return Object.assign(drag, { click: () => this.told.chosen(lane.id, k / 2) });
      }
    }
    return null;
  }

  /** Along its strip a point moves in x alone. @param {PointerEvent} event */
  grab(event) {
    const thumb = /** @type {Element} */ (event.target).closest(".point-thumb");
    const found = thumb && this.of(thumb);
    if (!thumb || !found || event.button !== 0) return;
    event.preventDefault();
    /** @type {SVGElement} */ (thumb).focus();
    const { lane, svg, y } = found;
    const left = svg.getBoundingClientRect().left;
    let last = found.x;
    let moved = false;
    const move = (/** @type {PointerEvent} */ now) => {
      if (now.pointerId !== event.pointerId) return;
      moved = true;
      last = this.at(now.clientX - left, 0).x;
      this.told.move(lane.id, last, y);
    };
    const drop = (/** @type {PointerEvent} */ now) => {
      if (now.pointerId !== event.pointerId) return;
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", drop);
      window.removeEventListener("pointercancel", drop);
      if (moved) this.told.settle(lane.id, last, y);
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", drop);
    window.addEventListener("pointercancel", drop);
  }

  /** The lane and the place of a thumb. @param {Element} thumb */
  of(thumb) {
    const svg = /** @type {SVGSVGElement | null} */ (thumb.closest("svg"));
    const lane = this.plot.lane(thumb.closest(".lane")?.getAttribute("data-lane") ?? "");
    if (!lane || !svg || !lane.places.length) return null;
    const [x, y] = lane.places[0];
    return { lane, svg, x, y };
  }

  /** @param {KeyboardEvent} event */
  pressed(event) {
    const thumb = /** @type {Element} */ (event.target).closest(".point-thumb");
    const found = thumb && this.of(thumb);
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!found || !way || event.altKey) return;
    event.preventDefault();
    const { view } = this.plot;
    const parts = event.shiftKey ? 1000 : 100;
    const across = this.snapping ? this.grid()[0] : niceStep((view.right - view.left) / parts);
    const upwards = this.snapping ? this.grid()[1] : niceStep((view.top - view.bottom) / parts);
    this.told.settle(found.lane.id, rounded(found.x + way[0] * across, across), rounded(found.y + way[1] * upwards, upwards));
  }
}
