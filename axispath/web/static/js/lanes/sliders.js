// @ts-check
/** Sliders on the strips of number lanes: drag, keys, wheel, and play. */

import { token } from "../drawing/style.js";
import { element, place, write } from "../drawing/svg.js";
import { niceStep, rounded } from "../sheet/view.js";
import { Course, stepsAhead } from "./course.js";
import { Play } from "./play.js";
import { cancel, soon } from "../sheet/underway.js";

const HEIGHT = 44;
export const MARGIN = 16;
const REST = 400; // ms after the last key or wheel until the value is kept

/**
 * @typedef {{low: number, high: number, step: number, value: number, play: string, speed: string, inset?: number, words?: string, low_text: string, high_text: string}} Slider
 * @typedef {{id: string, name: string, colour: number, slider: Slider | null}} SliderLane
 */

export class Sliders {
  /**
   * @param {HTMLElement} list
   * @param {{width: () => number, move: () => void, coming: () => void, ready: (edits: Slide[]) => boolean, waiting: () => boolean, settle: (slides: {id: string, value: number}[]) => void}} told
   */
  constructor(list, told) {
    this.list = list;
    this.told = told;
    /** @type {SliderLane[]} */
    this.lanes = [];
    /** Values that have been moved and are not kept yet. @type {Map<string, number>} */
    this.moved = new Map();
    /** Those of them that are still being moved. @type {Set<string>} */
    this.unkept = new Set();
    this.playing = new Play({
      lane: (id) => this.lane(id),
      allowed: (lane, wanted) => this.allowed(lane, wanted),
      moved: this.moved,
      ready: (moved) => told.ready(slides(moved)),
      stepped: (ended) => this.stepped(ended),
    });
    /** The slider under the hand, and where it goes. @type {null | {id: string, course: Course}} */
    this.held = null;
    /** The last step by a key. @type {null | {id: string, by: number}} */
    this.pressed = null;
    /** @type {number | undefined} */
    this.resting = undefined;
  }

  /** @param {SliderLane[]} lanes */
  show(lanes) {
    this.lanes = lanes.filter((lane) => lane.slider);
    for (const [id, value] of [...this.moved]) {
      // An answer to something else must not take back what has been moved since.
      if (this.playing.has(id) || this.unkept.has(id)) continue;
      if (this.lane(id)?.slider?.value === value || !this.told.waiting()) this.moved.delete(id);
    }
    for (const id of [...this.playing.going.keys()]) {
      if (!this.lane(id)) this.playing.stop(id);
    }
    this.draw();
  }

  /** @param {string} id */
  lane(id) {
    return this.lanes.find((lane) => lane.id === id);
  }

  /** Edits that show what is being moved. */
  edits() {
    return slides(this.moved);
  }

  /** Such edits as they will be in the milliseconds to come, nearest first. @param {number} ms @returns {Step[]} */
  coming(ms) {
    if (this.playing.any) return [...this.playing.coming(ms)].map(({ moved, beat }) => ({ slides: slides(moved), beat }));
    if (this.held) return this.places(this.held.id, this.held.course.coming(ms));
    const { pressed } = this;
    const lane = pressed && this.lane(pressed.id);
    // Each step by a key is asked for: `beat` 0 is one of every so many, whatever their number.
    return lane ? stepsAhead(this.value(lane), pressed.by).map((value) => ({ slides: this.with(lane, value), beat: 0 })) : [];
  }

  /** Edits of places right behind the hand, whose pictures may stand for its own while it moves. */
  beside() {
    return this.held ? this.places(this.held.id, this.held.course.beside()) : [];
  }

  /** Edits of places that play has just passed: landmarks of all of them are not asked for. @returns {Slide[][]} */
  passed() {
    return this.playing.any ? this.playing.passed.map(slides) : [];
  }

  /** The picture of one of these places is shown, or that of the hand's own. @param {Step} [shown] */
  seen(shown) {
    if (this.held) this.held.course.shown = shown?.beat ?? this.held.course.px;
  }

  /** @param {string} id @param {{px: number, beat: number}[]} places @returns {Step[]} */
  places(id, places) {
    const lane = this.lane(id);
    return lane ? places.map(({ px, beat }) => ({ slides: this.with(lane, this.valueAt(lane, px)), beat })) : [];
  }

  /** What is moved, and one slider at another value. @param {SliderLane} lane @param {number} value */
  with(lane, value) {
    return slides(new Map(this.moved).set(lane.id, this.allowed(lane, value)));
  }

  /** @param {SliderLane} lane */
  value(lane) {
    return this.moved.get(lane.id) ?? /** @type {Slider} */ (lane.slider).value;
  }

  /** Where a point is that moves along a curve, and in words. @param {string} id @param {number} value @param {string} words */
  showAt(id, value, words) {
    const slider = this.lane(id)?.slider;
    if (!slider) return;
    slider.words = words;
    if (!this.moved.has(id)) slider.value = value;
    this.draw();
  }

  /** Colours have changed. */
  restyle() {
    for (const svg of this.list.querySelectorAll(".slider")) if (svg.childNodes.length) svg.replaceChildren();
    this.draw();
  }

  draw() {
    for (const lane of this.lanes) {
      const svg = /** @type {SVGSVGElement | null} */ (this.list.querySelector(`.lane[data-lane="${lane.id}"] .slider`));
      if (svg) this.drawOne(svg, lane);
      const button = this.list.querySelector(`.lane[data-lane="${lane.id}"] [data-act="play"]`);
      const pressed = String(this.playing.has(lane.id));
      if (button?.getAttribute("aria-pressed") !== pressed) button?.setAttribute("aria-pressed", pressed);
    }
  }

  /** @param {SVGSVGElement} svg @param {SliderLane} lane */
  drawOne(svg, lane) {
    const { low, high } = /** @type {Slider} */ (lane.slider);
    const width = this.told.width();
    const value = this.value(lane);
    const at = this.px(lane, value, width);
    place(svg, { viewBox: `0 0 ${width} ${HEIGHT}` });
    // What else a strip holds comes after the slider.
    if (!svg.querySelector(".thumb")) this.make(svg, lane);
    const [track, passed, from, to, thumb, shown] = /** @type {SVGElement[]} */ ([...svg.children]);
    const y = HEIGHT / 2 + 5;
    const room = roomOf(lane, width);
    place(track, { x1: room, x2: width - room, y1: y, y2: y });
    place(passed, { x1: room, x2: at, y1: y, y2: y });
    // Beside the brackets of a range there is room for its ends as they are written.
    const ranged = Boolean(/** @type {Slider} */ (lane.slider).inset);
    place(from, ranged ? { x: room - 12, y: y + 4, "text-anchor": "end" } : { x: room, y: 15 });
    place(to, ranged ? { x: width - room + 12, y: y + 4, "text-anchor": "start" } : { x: width - room, y: 15 });
    const { low_text: start, high_text: stop } = /** @type {Slider} */ (lane.slider);
    write(from, ranged ? start : label(low));
    write(to, ranged ? stop : label(high));
    place(thumb, { transform: `translate(${at} ${y})`, "aria-valuenow": value, "aria-valuemin": low, "aria-valuemax": high, "aria-valuetext": /** @type {Slider} */ (lane.slider).words || label(value) });
    const words = /** @type {Slider} */ (lane.slider).words || label(value);
    write(shown, words);
    const half = Math.min(width / 2 - MARGIN, words.length * 3.8);
    place(shown, { x: Math.min(Math.max(at, MARGIN + Math.max(half, room + 44)), width - MARGIN - Math.max(half, room + 44)), y: 15 });
  }

  /** @param {SVGSVGElement} svg @param {SliderLane} lane */
  make(svg, lane) {
    const colour = token("ink");
    const text = { "font-size": 12.5, fill: token("muted") };
    const thumb = element("g", { class: "thumb", tabindex: 0, role: "slider", "aria-label": lane.name });
    thumb.append(element("circle", { r: 20, fill: "transparent" }));
    thumb.append(element("path", { d: "M-7 -9H7V3L0 11L-7 3Z", fill: token("signal"), stroke: token("card"), "stroke-width": 1.5 }));
    svg.prepend(
      element("line", { stroke: token("rule-strong"), "stroke-width": 3, "stroke-linecap": "round" }),
      element("line", { stroke: colour, "stroke-width": 3, "stroke-linecap": "round" }),
      element("text", { ...text, "text-anchor": "start" }),
      element("text", { ...text, "text-anchor": "end" }),
      thumb,
      element("text", { ...text, fill: colour, "font-weight": 700, "text-anchor": "middle", class: "slider-value" }),
    );
    const id = lane.id;
    svg.onpointerdown = (event) => this.grab(event, svg, id);
    thumb.addEventListener("keydown", (event) => this.key(/** @type {KeyboardEvent} */ (event), id));
    thumb.addEventListener("wheel", (event) => this.wheel(/** @type {WheelEvent} */ (event), id), { passive: false });
  }

  /** @param {SliderLane} lane @param {number} value @param {number} width */
  px(lane, value, width) {
    const { low, high } = /** @type {Slider} */ (lane.slider);
    const share = Math.min(Math.max((value - low) / (high - low), 0), 1);
    const room = roomOf(lane, width);
    return room + share * (width - 2 * room);
  }

  /** The value at a pixel of the track, however far off. @param {SliderLane} lane @param {number} px */
  valueAt(lane, px) {
    const { low, high } = /** @type {Slider} */ (lane.slider);
    const width = this.told.width();
    const room = roomOf(lane, width);
    return low + ((px - room) / (width - 2 * room)) * (high - low);
  }

  /** The value that a slider may have next to this one. @param {SliderLane} lane @param {number} wanted @param {boolean} [fine] */
  allowed(lane, wanted, fine = false) {
    const { low, high, step } = /** @type {Slider} */ (lane.slider);
    const held = Math.min(Math.max(wanted, low), high);
    if (held === low || (held === high && !step)) return held;
    if (step) return Math.min(low + Math.round((held - low) / step) * step, high);
    const grain = niceStep((high - low) / (fine ? 20000 : 1000));
    return Math.min(Math.max(rounded(held, grain), low), high);
  }

  /** @param {string} id @param {number} value @param {boolean} [fine] */
  set(id, value, fine = false) {
    const lane = this.lane(id);
    if (!lane) return;
    this.moved.set(id, this.allowed(lane, value, fine));
    this.unkept.add(id);
    this.draw();
    this.told.move();
  }

  keep() {
    cancel(this.resting);
    const slides = [...this.moved].filter(([id]) => !this.playing.has(id)).map(([id, value]) => ({ id, value }));
    this.unkept.clear();
    if (slides.length) this.told.settle(slides);
  }
  /** Without waiting for rest. */
  keepNow() {
    if (this.unkept.size) this.keep();
  }
  keepLater() {
    cancel(this.resting);
    this.resting = soon(() => this.keep(), REST);
  }

  /** @param {PointerEvent} event @param {SVGSVGElement} svg @param {string} id */
  grab(event, svg, id) {
    const lane = this.lane(id);
    const other = /** @type {Element} */ (event.target).closest(".handle, .strip-mark");
    if (!lane || event.button !== 0 || other) return;
    event.preventDefault();
    /** @type {HTMLElement | null} */ (svg.querySelector(".thumb"))?.focus();
    svg.setPointerCapture(event.pointerId);
    this.playing.stop(id);
    const { left } = svg.getBoundingClientRect();
    const room = roomOf(lane, this.told.width());
    const ends = { low: Math.floor(room), high: Math.ceil(this.told.width() - room) };
    const course = new Course(Math.round(event.clientX - left), event.timeStamp, ends);
    this.held = { id, course };
    this.pressed = null;
    const to = (/** @type {PointerEvent} */ at) => {
      // In whole pixels, whose pictures can be asked for beforehand.
      const px = at.shiftKey ? at.clientX - left : Math.round(at.clientX - left);
      course.to(px, at.timeStamp);
      this.set(id, this.valueAt(this.lane(id) ?? lane, px), at.shiftKey);
    };
    const drop = () => {
      this.held = null;
      svg.removeEventListener("pointermove", to);
      svg.removeEventListener("pointerup", drop);
      svg.removeEventListener("pointercancel", drop);
      this.keep();
    };
    svg.addEventListener("pointermove", to);
    svg.addEventListener("pointerup", drop);
    svg.addEventListener("pointercancel", drop);
    to(event);
  }

  /** @param {KeyboardEvent} event @param {string} id */
  key(event, id) {
    const lane = this.lane(id);
    if (!lane || event.altKey || event.ctrlKey || event.metaKey) return;
    const { low, high, step } = /** @type {Slider} */ (lane.slider);
    const one = step || niceStep((high - low) / (event.shiftKey ? 1000 : 100));
    const steps = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 };
    const by = steps[/** @type {keyof typeof steps} */ (event.key)];
    if (by) this.press(lane, by * one, event.shiftKey);
    else if (event.key === "Home") this.set(id, low);
    else if (event.key === "End") this.set(id, high);
    else if (event.key === " ") this.toggle(id);
    else return;
    event.preventDefault();
    if (event.key !== " ") this.keepLater();
  }

  /** @param {WheelEvent} event @param {string} id */
  wheel(event, id) {
    const lane = this.lane(id);
    if (!lane || document.activeElement !== event.currentTarget) return;
    event.preventDefault();
    const { low, high, step } = /** @type {Slider} */ (lane.slider);
    const one = step || niceStep((high - low) / (event.shiftKey ? 1000 : 100));
    this.press(lane, -Math.sign(event.deltaY) * one, event.shiftKey);
    this.keepLater();
  }

  /** A step by a key or the wheel; more of them may follow. @param {SliderLane} lane @param {number} by @param {boolean} fine */
  press(lane, by, fine) {
    this.pressed = { id: lane.id, by };
    this.set(lane.id, this.value(lane) + by, fine);
  }

  // Play

  /** @param {string} id */
  toggle(id) {
    const lane = this.lane(id);
    if (!lane) return;
    if (this.playing.stop(id)) {
      this.keep();
    } else {
      const { low, high } = /** @type {Slider} */ (lane.slider);
      const value = this.value(lane);
      this.pressed = null;
      this.playing.start(id, value >= high ? low : value);
      this.told.coming();
    }
    this.draw();
  }

  /** All sliders play, or all that play stop. */
  toggleAll() {
    if (this.pause()) return;
    for (const lane of this.lanes) this.toggle(lane.id);
  }

  /** All that play stop where they are. */
  pause() {
    if (!this.playing.any) return false;
    this.playing.clear();
    this.keep();
    this.draw();
    return true;
  }

  /** A step of those that play; some may have come to their end. @param {string[]} ended */
  stepped(ended) {
    if (ended.length) this.keepLater();
    if (this.moved.size) {
      this.draw();
      this.told.move();
    }
  }
}

/** @typedef {{do: "slide", id: string, value: number}} Slide */
/** A state to come; the `beat` counts states along the way. @typedef {{slides: Slide[], beat: number}} Step */

/** @param {Map<string, number>} moved @returns {Slide[]} */
const slides = (moved) => [...moved].map(([id, value]) => ({ do: "slide", id, value }));

/** How far from the edges of its strip a track ends. @param {SliderLane} lane @param {number} width */
const roomOf = (lane, width) => MARGIN + (lane.slider?.inset ?? 0) * width;

/** @param {number} value */
function label(value) {
  return String(Number(value.toPrecision(6)) + 0).replace("-", "−");
}
