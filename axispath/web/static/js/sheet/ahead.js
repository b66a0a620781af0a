// @ts-check
/**
 * Answers ahead of the hand: pictures and landmarks. Where sliders are going is known, and one request
 * brings the answers of many states; what was foreseen wrongly is never shown. So that nothing is
 * shown out of order an answer is only ever taken from here for the state that sliders are in now.
 */

import { quietly } from "./queue.js";

const LEAST = 6; // answers that are asked for together, while others are there to be shown
const PAUSE = 1500; // ms without a request after one that failed
const MARGIN = 250; // ms that are looked ahead beside the way to the server and back

/** @typedef {import("../lanes/sliders.js").Slide} Slide */
/** @typedef {import("../lanes/sliders.js").Step} Step */

/**
 * What is asked for ahead. `fetch` gives the answers of some states, perhaps of the first ones only,
 * `weigh` is how much one takes, and `kept` how much is kept. Of the states to come every so many
 * `beats` one is asked for, up to `most` together and up to `running` requests at a time.
 * @template Found
 * @typedef {{fetch: (states: Slide[][]) => Promise<Found[]>, weigh: (found: Found) => number, arrived: () => void,
 *   kept: number, beats: number, first: number, most: number, running: number}} Kind
 */

/** @template Found */
export class Ahead {
  /** @param {import("./instrument.js").Instrument} at @param {Kind<Found>} kind */
  constructor(at, kind) {
    this.at = at;
    this.kind = kind;
    /** @type {Map<string, Found>} */
    this.known = new Map();
    this.weight = 0;
    /** What is on its way. @type {Set<string>} */
    this.asked = new Set();
    this.running = 0;
    /** How long a request takes, in ms. */
    this.took = 60;
    /** How many answers the server gives at a time. */
    this.most = kind.first;
    this.about = "";
    /** What it was made of. @type {unknown[]} */
    this.parts = [];
    /** Until when nothing is asked, after the server gave no answer. */
    this.rests = 0;
  }

  /** All that shapes an answer, but for the sliders. What is known of anything else is forgotten. */
  subject() {
    const { plot, session, temporary, asking } = this.at;
    const { low, high, along, unfolded } = asking.only;
    const parts = [session.key, session.state.head, plot.view, plot.view.chosen, plot.size, temporary.edits, low, high, along, unfolded.length];
    // It is looked at in every frame: most of the time nothing is another than before.
    if (parts.every((part, k) => part === this.parts[k])) return;
    this.parts = parts;
    const about = JSON.stringify([...parts, unfolded]);
    if (about !== this.about) {
      this.about = about;
      this.known.clear();
      this.asked.clear();
      this.weight = 0;
    }
  }

  /** The answer for this state, or for the first that is known of some right beside it. @param {Slide[]} slides @param {Slide[][]} [beside] */
  find(slides, beside = []) {
    this.subject();
    for (const one of [slides, ...beside]) {
      const found = this.known.get(JSON.stringify(one));
      if (found) return found;
    }
    return null;
  }

  /** Whether a state is known or on its way. @param {Slide[]} slides */
  settled(slides) {
    const key = JSON.stringify(slides);
    return this.known.has(key) || this.asked.has(key);
  }

  /** Ask for what is to come, and for now. Gives whether now is known, or on its way. @param {Slide[]} now */
  foresee(now) {
    const { plot, sliders } = this.at;
    if (!plot.size.width || !plot.size.height) return false;
    this.subject();
    if (!this.running && performance.now() < this.rests) return false;
    const { beats, running } = this.kind;
    const coming = sliders.coming(this.took + MARGIN).filter(({ beat }) => beat % beats === 0);
    /** @type {Map<string, Slide[]>} */
    const wanted = new Map();
    const due = beats === 1 && now.length ? [now] : [];
    for (const slides of [...due, ...coming.map((step) => step.slides)]) {
      if (slides.length && !this.settled(slides)) wanted.set(JSON.stringify(slides), slides);
    }
    const urgent = due.some((slides) => !this.settled(slides)) || this.lacking(coming);
    if (wanted.size && this.running < running && (urgent || wanted.size >= LEAST)) this.ask([...wanted].slice(0, this.most));
    return this.settled(now);
  }

  /** Whether what is known lasts no longer than a request takes. @param {Step[]} coming */
  lacking(coming) {
    const soon = Math.ceil((coming.length * this.took) / (this.took + MARGIN)) + 1;
    return coming.slice(0, soon).some(({ slides }) => !this.settled(slides));
  }

  /** @param {[string, Slide[]][]} wanted */
  async ask(wanted) {
    const { about, kind } = this;
    const begun = performance.now();
    for (const [key] of wanted) this.asked.add(key);
    this.running += 1;
    let came = false;
    await quietly(async () => {
      const found = await kind.fetch(wanted.map(([, slides]) => slides));
      came = true;
      this.took += (performance.now() - begun - this.took) / 3;
      this.most = found.length < wanted.length ? Math.max(1, found.length) : Math.min(kind.most, 2 * Math.max(this.most, found.length));
      if (about === this.about) found.forEach((one, k) => this.keep(wanted[k][0], one));
    });
    this.running -= 1;
    // However long it took to fail: until then single answers are asked for.
    this.rests = came ? 0 : performance.now() + PAUSE;
    if (about === this.about) for (const [key] of wanted) this.asked.delete(key);
    kind.arrived();
  }

  /** @param {string} key @param {Found} found */
  keep(key, found) {
    this.known.set(key, found);
    this.weight += this.kind.weigh(found);
    for (const [oldest, one] of this.known) {
      if (this.weight <= this.kind.kept) break;
      this.known.delete(oldest);
      this.weight -= this.kind.weigh(one);
    }
  }
}
