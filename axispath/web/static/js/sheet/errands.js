// @ts-check
/** Long work: a file that is being made, how far it is, and giving it up. */

import { fetchLong } from "./api.js";
import { cancel, soon } from "./underway.js";

const QUICK = 700; // ms; what is there by then needs no bar

/** The bar of long work. @param {import("./instrument.js").Instrument} at */
export const errandPart = (at) => ({
  /** What is being made; empty while nothing is. */
  errand: "",
  /** How far it is, in hundredths; null where that is not known. @type {number | null} */
  errandShare: null,
  givenUp: false,

  init() {
    at.made = (words, path, body) => this.made(words, path, body);
  },
  get errandWords() {
    return this.errandShare === null ? `${this.errand} …` : `${this.errand} … ${this.errandShare} %`;
  },
  cancelErrand() {
    this.givenUp = true;
    this.errand = "";
  },
  /**
   * A file of the server; null where it was given up.
   * @param {string} words @param {string} path @param {unknown} body
   */
  async made(words, path, body) {
    this.givenUp = false;
    this.errandShare = null;
    const bar = soon(() => (this.errand = words), QUICK);
    try {
      return await fetchLong(path, body, (share) => {
        this.errandShare = share === null ? null : Math.round(share * 100);
        return !this.givenUp;
      });
    } finally {
      cancel(bar);
      this.errand = "";
    }
  },
});
