// @ts-check
/** Who is asked next: a person's questions all have their turn, of automatic ones only the latest. */

import { Trouble } from "./api.js";

export const LATE = 1500; // ms between asking for exact forms that are still being found
export const MOST_ASKED = 40; // times
export const FURTHER = 500; // ms without another question after which what is open is searched longer

/** @typedef {() => Promise<void>} Work */

/** What is asked by itself is asked again with the next change; a failure waits for that. @param {Work} work */
export async function quietly(work) {
  try {
    await work();
  } catch (trouble) {
    if (!(trouble instanceof Trouble)) throw trouble;
  }
}

/**
 * One request at a time. What a person asked by hand is done in order and never dropped; of what
 * is asked by itself, as when something moves, only the latest waits, and gives way to the rest.
 */
export class Queue {
  constructor() {
    this.busy = false;
    /** @type {Work[]} */
    this.byHand = [];
    /** @type {Work | null} */
    this.byItself = null;
  }

  /** Asked by itself. @param {Work} work */
  run(work) {
    this.byItself = work;
    return this.next();
  }

  /** Asked by hand. @param {Work} work */
  ask(work) {
    this.byHand.push(work);
    return this.next();
  }

  async next() {
    if (this.busy) return;
    const work = this.byHand.shift() ?? this.byItself;
    if (!work) return;
    if (work === this.byItself) this.byItself = null;
    this.busy = true;
    try {
      await work();
    } finally {
      this.busy = false;
      this.next();
    }
  }
}

/** Tells whether a question still stands: only the answer to the last one is shown. */
export class Standing {
  constructor() {
    this.number = 0;
  }

  /** A new question: whether it still stands is what it gives. @returns {() => boolean} */
  ask() {
    this.number += 1;
    return this.follow();
  }

  /** Whether a question asked by itself still is about what stands now. @returns {() => boolean} */
  follow() {
    const mine = this.number;
    return () => mine === this.number;
  }
}
