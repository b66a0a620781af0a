// @ts-check
/** Hearing a curve: what is played and how, asked for by a button or a key; off otherwise. */

import { Trouble, send } from "../sheet/api.js";
import { courseOf, pitchOf } from "./course.js";
import { SHAPES, chordOf, schedule } from "./sound.js";
import { nextFrame, pause, soon } from "../sheet/underway.js";

const BETWEEN = 0.5; // seconds between two lanes that are compared
const WORDS = 1600; // ms for which the sound waits while a landmark is spoken
const AHEAD = 0.06; // seconds from asking to the first sound

/** @param {import("../sheet/instrument.js").Instrument} at */
export function hearPart(at) {
  const { events, plot, session } = at;
  /** @type {AudioContext | null} */
  let context = null;
  /** @type {(() => void)[]} */
  let stops = [];
  /** What is asked for has a number: what comes too late for it does nothing. */
  let turn = 0;
  /** @type {ReturnType<typeof chordOf> | null} */
  let chord = null;
  const lanes = () => session.state.lanes.filter((/** @type {any} */ lane) => lane.kind === "function" && !lane.hidden);

  return {
    hearOn: false,
    hearLane: "",
    hearThen: "",
    hearSpeed: "usual",
    hearBackwards: false,
    hearStops: true,
    hearSpan: "view",
    hearing: false,
    hearWords: "",
    hearTrouble: "",
    hearLanes: /** @type {{id: string, name: string}[]} */ ([]),
    chordOn: false,

    init() {
      at.acts.hear = () => (this.hearOn ? this.hearKey() : this.openHear());
      events.on("changed", () => this.listLanes());
    },
    listLanes() {
      this.hearLanes = lanes().map((/** @type {any} */ { id, name }) => ({ id, name }));
      if (!this.hearLanes.some(({ id }) => id === this.hearLane)) this.hearLane = this.hearLanes[0]?.id ?? "";
      if (!this.hearLanes.some(({ id }) => id === this.hearThen)) this.hearThen = "";
    },
    openHear() {
      this.listLanes();
      if (plot.chosen && this.hearLanes.some(({ id }) => id === plot.chosen)) this.hearLane = plot.chosen;
      this.hearOn = true;
      this.hearTrouble = this.hearLanes.length ? "" : "There is no function to be heard yet.";
      // It is shown a moment later, and only then takes the focus.
      nextFrame(() => soon(() => document.getElementById("hear-play")?.focus()));
      if (this.hearLanes.length) this.hear();
    },
    closeHear() {
      this.stopHearing();
      this.stopChord();
      this.hearOn = false;
      plot.canvas.focus();
    },
    hearKey() {
      if (this.hearing) this.stopHearing();
      else this.hear();
    },
    /** A context that sounds; a sentence where this browser has none. */
    async sounding() {
      try {
        context ??= new AudioContext();
        await context.resume();
        return context;
      } catch {
        this.hearTrouble = "This browser has no sound, or does not let the page use it. What would be heard is written on the page Landmarks.";
        return null;
      }
    },
    async hear() {
      this.stopHearing();
      const mine = ++turn;
      this.hearTrouble = "";
      const audio = await this.sounding();
      if (!audio) return;
      this.hearing = true;
      try {
        const wanted = [this.hearLane, this.hearThen].filter(Boolean);
        for (const [number, lane] of wanted.entries()) {
          const heard = await send("POST", `/api/sheets/${session.key}/hear`, { head: session.state.head, preview: at.sliders.edits(), view: plot.view, lane, ...this.span() });
          if (mine !== turn) return;
          if (wanted.length > 1) this.hearWords = heard.name;
          await this.playOne(audio, heard, SHAPES[number % SHAPES.length], mine);
          if (mine !== turn) return;
          if (number + 1 < wanted.length) await pause(BETWEEN * 1000);
        }
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.hearTrouble = trouble.message;
      }
      if (mine === turn) this.stopHearing();
    },
    /** The view, or from the reading that is held to this one. */
    span() {
      const { held, reading } = plot;
      if (this.hearSpan !== "span" || held === null || reading === null || held === reading) return {};
      return { low: Math.min(held, reading), high: Math.max(held, reading) };
    },
    /** @param {AudioContext} audio @param {import("./course.js").Heard} heard @param {OscillatorType} shape @param {number} mine */
    async playOne(audio, heard, shape, mine) {
      const course = courseOf(heard, plot.view, { speed: /** @type {any} */ (this.hearSpeed), backwards: this.hearBackwards });
      const from = audio.currentTime + AHEAD;
      stops.push(schedule(audio, course, from, shape));
      const x = (/** @type {number} */ seconds) => heard.low + (heard.high - heard.low) * (this.hearBackwards ? 1 - seconds / course.seconds : seconds / course.seconds);
      const ticks = [...course.ticks];
      for (;;) {
        await new Promise((done) => nextFrame(done));
        if (mine !== turn) return;
        const now = audio.currentTime - from;
        if (now >= course.seconds) return;
        if (now >= 0) events.tell("read", { x: x(now), put: false });
        const tick = ticks[0];
        if (!tick || now < tick.at) continue;
        ticks.shift();
        this.hearWords = tick.words;
        if (!this.hearStops) continue;
        await audio.suspend();
        await pause(WORDS);
        if (mine !== turn) return;
        await audio.resume();
      }
    },
    stopHearing() {
      turn += 1;
      for (const stop of stops) stop();
      stops = [];
      this.hearing = false;
      context?.resume().catch(() => null);
    },
    /** All lanes at the reading at once, for as long as it is on: a slider that plays is heard as a chord. */
    async toggleChord() {
      if (this.chordOn) {
        this.stopChord();
        return;
      }
      const audio = await this.sounding();
      if (!audio) return;
      this.chordOn = true;
      chord = chordOf(audio);
      if (plot.reading === null) events.tell("read", { x: (plot.view.left + plot.view.right) / 2, put: true });
      const follow = () => {
        if (!this.chordOn || !chord) return;
        chord.sound(new Map(plot.readingPoints.filter(({ y }) => Number.isFinite(y)).map(({ id, y }) => [id, pitchOf(y, plot.view)])));
        nextFrame(follow);
      };
      follow();
    },
    stopChord() {
      this.chordOn = false;
      chord?.stop();
      chord = null;
    },
    /** @param {string} id */
    isHearLane(id) {
      return id === this.hearLane;
    },
    get hearFace() {
      return this.hearing ? "Stop" : "Hear it";
    },
  };
}
