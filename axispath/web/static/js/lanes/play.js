// @ts-check
/** Sliders that play: in whole steps of a clock, so that where they will be is known beforehand. */

import { nextFrame } from "../sheet/underway.js";

const SECONDS = 8; // for one way at speed 1
const RATE = 60; // steps a second
const NEAR = 0.75; // steps that a refresh of the screen may come early or late
const MOST = 6; // steps at once, after the page was held up
const BEHIND = 4; // steps back that are remembered
const PATIENT = 400; // ms that play waits for its pictures; then it goes on without

/**
 * @typedef {import("./sliders.js").SliderLane} SliderLane
 * @typedef {import("./sliders.js").Slider} Slider
 * @typedef {{direction: number, at: number, ended: boolean}} Going
 * @typedef {{lane: (id: string) => SliderLane | undefined, allowed: (lane: SliderLane, wanted: number) => number,
 *   moved: Map<string, number>, ready: (moved: Map<string, number>) => boolean, stepped: (ended: string[]) => void}} Told
 */

export class Play {
  /** @param {Told} told */
  constructor(told) {
    this.told = told;
    /** @type {Map<string, Going>} */
    this.going = new Map();
    this.frame = 0;
    this.since = 0;
    this.done = 0;
    this.held = 0;
    /** What was moved at the last steps, the latest first. @type {Map<string, number>[]} */
    this.passed = [];
  }

  get any() {
    return this.going.size > 0;
  }

  /** @param {string} id */
  has(id) {
    return this.going.has(id);
  }

  /** @param {string} id */
  stop(id) {
    return this.going.delete(id);
  }

  clear() {
    this.going.clear();
  }

  /** @param {string} id @param {number} at */
  start(id, at) {
    this.going.set(id, { direction: 1, at, ended: false });
    if (!this.frame) this.frame = nextFrame((now) => this.begin(now));
  }

  /** @param {number} now */
  begin(now) {
    this.since = now;
    this.done = 0;
    this.held = 0;
    this.passed = [];
    this.tick(now, now);
  }

  /** @param {number} before @param {number} now */
  tick(before, now) {
    this.frame = 0;
    const steps = this.due(now);
    if (steps && this.held < PATIENT && !this.told.ready(this.after(steps))) {
      // Its pictures are on their way: the clock stands still until they are there.
      this.since += now - before;
      this.held += now - before;
      this.told.stepped([]);
    } else if (steps) {
      if (this.told.ready(this.after(steps))) this.held = 0;
      this.done += steps;
      this.step(steps);
    }
    if (this.going.size && !this.frame) this.frame = nextFrame((next) => this.tick(now, next));
  }

  /** How many steps to go now: one with each refresh, however unevenly these come. @param {number} now */
  due(now) {
    const due = ((now - this.since) * RATE) / 1000 - this.done;
    if (due > MOST) this.done += Math.floor(due) - MOST;
    return Math.abs(due - 1) < NEAR ? 1 : Math.min(Math.max(Math.round(due), 0), MOST);
  }

  /** @param {number} steps */
  step(steps) {
    const { moved } = this.told;
    /** @type {string[]} */
    const ended = [];
    for (let k = 0; k < steps; k += 1) {
      for (const [id, going] of this.going) {
        const lane = this.told.lane(id);
        if (!lane) continue;
        const next = advanced(lane, going, 1);
        moved.set(id, this.told.allowed(lane, next.at));
        if (next.ended) {
          this.going.delete(id);
          ended.push(id);
        } else {
          this.going.set(id, next);
        }
      }
      this.passed = [new Map(moved), ...this.passed].slice(0, BEHIND);
    }
    this.told.stepped(ended);
  }

  /** What will be moved after so many steps. @param {number} steps */
  after(steps) {
    const moved = new Map(this.told.moved);
    for (const [id, going] of this.going) {
      const lane = this.told.lane(id);
      if (lane) moved.set(id, this.told.allowed(lane, advanced(lane, going, steps).at));
    }
    return moved;
  }

  /** What will be moved in so many milliseconds to come, step by step. @param {number} ms */
  *coming(ms) {
    const going = new Map(this.going);
    const moved = new Map(this.told.moved);
    for (let k = 0; k < (ms * RATE) / 1000; k += 1) {
      for (const [id, one] of going) {
        const lane = this.told.lane(id);
        if (!lane || one.ended) continue;
        const next = advanced(lane, one, 1);
        going.set(id, next);
        moved.set(id, this.told.allowed(lane, next.at));
      }
      yield { moved: new Map(moved), beat: this.done + k + 1 };
    }
  }
}

/** @param {SliderLane} lane @param {Going} going @param {number} steps @returns {Going} */
function advanced(lane, going, steps) {
  const { low, high, play, speed } = /** @type {Slider} */ (lane.slider);
  const [top, bottom] = speed.split("/").map(Number);
  let { direction, at, ended } = going;
  for (let k = 0; k < steps && !ended; k += 1) {
    at += (direction * (top / (bottom || 1)) * (high - low)) / (SECONDS * RATE);
    if (at < high && at > low) continue;
    const beyond = at >= high;
    if (play === "round") at = beyond ? low : high;
    else at = beyond ? high : low;
    if (play === "there and back") direction = beyond ? -1 : 1;
    ended = play === "once";
  }
  return { direction, at, ended };
}
