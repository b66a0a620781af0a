// @ts-check
/** Courses as sound: on any audio context, one that is heard or one that only renders. */

import { GAP, tickOf } from "./course.js";

/** @typedef {import("./course.js").Course} Course */

const LOUD = 0.16;
const BREATH = 0.025; // noise where there is no value
const SOFT = 0.008; // seconds in which a sound comes and goes, so that nothing clicks
const TICK = 0.07; // seconds
const TICK_LOUD = 0.14;
export const SHAPES = /** @type {OscillatorType[]} */ (["triangle", "sine", "sawtooth"]);

/** A breath of noise, the same each time. @param {BaseAudioContext} context */
function noiseOf(context) {
  const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
  const data = buffer.getChannelData(0);
  let state = 1;
  for (let k = 0; k < data.length; k += 1) {
    state = (state * 48271) % 2147483647;
    data[k] = (2 * state) / 2147483647 - 1;
  }
  return buffer;
}

/**
 * Schedule a course from a moment on. Gives what stops it.
 * @param {BaseAudioContext} context @param {Course} course @param {number} from seconds of the context @param {OscillatorType} [shape]
 */
export function schedule(context, course, from, shape = "triangle") {
  const tone = context.createOscillator();
  const breath = context.createBufferSource();
  const [loud, soft, side] = [context.createGain(), context.createGain(), context.createStereoPanner()];
  tone.type = shape;
  breath.buffer = noiseOf(context);
  breath.loop = true;
  tone.connect(loud).connect(side);
  breath.connect(soft).connect(side);
  side.connect(context.destination);
  loud.gain.setValueAtTime(0, from);
  soft.gain.setValueAtTime(0, from);
  const first = course.tones.find(({ pitch }) => pitch !== null)?.pitch ?? 440;
  tone.frequency.setValueAtTime(first, from);
  side.pan.setValueAtTime(course.tones[0]?.pan ?? 0, from);
  const to = (/** @type {AudioParam} */ param, /** @type {number} */ value, /** @type {number} */ at) => param.setTargetAtTime(value, at, SOFT / 3);
  let sounds = /** @type {boolean | null} */ (null);
  let before = -1;
  for (const { at, pitch, pan } of course.tones) {
    const torn = course.gaps.some((gap) => gap > before && gap <= at);
    side.pan.linearRampToValueAtTime(pan, from + at);
    if ((pitch !== null) !== sounds) {
      sounds = pitch !== null;
      to(loud.gain, sounds ? LOUD : 0, from + at);
      to(soft.gain, sounds ? 0 : BREATH, from + at);
      if (pitch !== null) tone.frequency.setValueAtTime(pitch, from + at);
    } else if (pitch !== null) {
      if (torn) tone.frequency.setValueAtTime(pitch, from + at);
      else tone.frequency.linearRampToValueAtTime(pitch, from + at);
    }
    before = at;
  }
  for (const gap of course.gaps) {
    to(loud.gain, 0, from + Math.max(0, gap - GAP / 2));
    to(loud.gain, LOUD, from + gap + GAP / 2);
  }
  const end = from + course.seconds;
  to(loud.gain, 0, end);
  to(soft.gain, 0, end);
  for (const source of [tone, breath]) {
    source.start(from);
    source.stop(end + 0.1);
  }
  const ticks = course.ticks.map(({ at, kind, pan }) => tick(context, tickOf(kind), from + at, pan));
  return () => {
    for (const source of [tone, breath, ...ticks]) {
      try {
        source.stop();
      } catch {
        // It has not begun yet, or is over.
      }
    }
    side.disconnect();
  };
}

/** @param {BaseAudioContext} context @param {number} pitch @param {number} at @param {number} pan */
function tick(context, pitch, at, pan) {
  const [source, loud, side] = [context.createOscillator(), context.createGain(), context.createStereoPanner()];
  source.type = "sine";
  source.frequency.setValueAtTime(pitch, at);
  side.pan.setValueAtTime(pan, at);
  loud.gain.setValueAtTime(0, at);
  loud.gain.linearRampToValueAtTime(TICK_LOUD, at + SOFT);
  loud.gain.exponentialRampToValueAtTime(0.0005, at + TICK);
  source.connect(loud).connect(side).connect(context.destination);
  source.start(at);
  source.stop(at + TICK + 0.02);
  return source;
}

/** Several pitches at once that can be moved: a chord. @param {AudioContext} context */
export function chordOf(context) {
  /** @type {Map<string, {source: OscillatorNode, loud: GainNode}>} */
  const voices = new Map();
  return {
    /** @param {Map<string, number>} pitches */
    sound(pitches) {
      const now = context.currentTime;
      for (const [id, { source, loud }] of voices) {
        if (pitches.has(id)) continue;
        loud.gain.setTargetAtTime(0, now, SOFT);
        source.stop(now + 0.1);
        voices.delete(id);
      }
      for (const [id, pitch] of pitches) {
        const known = voices.get(id);
        if (known) {
          known.source.frequency.setTargetAtTime(pitch, now, SOFT);
          continue;
        }
        const [source, loud] = [context.createOscillator(), context.createGain()];
        source.type = SHAPES[voices.size % SHAPES.length];
        source.frequency.setValueAtTime(pitch, now);
        loud.gain.setValueAtTime(0, now);
        loud.gain.setTargetAtTime(LOUD / 2, now, SOFT);
        source.connect(loud).connect(context.destination);
        source.start();
        voices.set(id, { source, loud });
      }
    },
    stop() {
      this.sound(new Map());
    },
  };
}
