// @ts-check
/** Trails: the states that sliders passed, and what lanes left behind in them. */

import { Trouble, fetchTrails } from "../sheet/api.js";
import { Queue } from "../sheet/queue.js";
import { read, write } from "../sheet/session.js";

const MOST = 60; // states; when there are more, every other one is forgotten

export class Trails {
  /**
   * @param {import("./plot.js").Plot} plot
   * @param {{key: () => string, head: () => number, slow: (ids: string[]) => void}} told
   */
  constructor(plot, told) {
    this.plot = plot;
    this.told = told;
    /** @type {{do: string, id: string, value: number}[][]} */
    this.states = [];
    this.requests = new Queue();
  }

  get name() {
    return `axispath trails ${this.told.key()}`;
  }

  recall() {
    this.states = read(this.name) ?? [];
    this.ask();
  }

  /** A state of the sliders was passed. @param {any[]} slides */
  pass(slides) {
    if (!slides.length || !this.plot.lanes.some((lane) => lane.style.trail !== "none")) return;
    const last = JSON.stringify(this.states[this.states.length - 1]);
    if (JSON.stringify(slides) === last) return;
    this.states.push(slides);
    if (this.states.length > MOST) this.states = this.states.filter((_, k) => k % 2 === 0 || k === this.states.length - 1);
    this.ask();
  }

  keep() {
    write(this.name, this.states.length ? this.states : null);
  }

  clear() {
    this.states = [];
    this.plot.trails = null;
    this.keep();
    this.plot.ask();
  }

  ask() {
    if (!this.states.length || !this.plot.size.width) return;
    this.requests.run(async () => {
      const wanted = { head: this.told.head(), preview: [], view: this.plot.view, ...this.plot.size, states: this.states };
      try {
        this.plot.trails = await fetchTrails(this.told.key(), wanted);
        this.told.slow(this.plot.trails.cut);
        this.plot.ask();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
      }
    });
  }
}
