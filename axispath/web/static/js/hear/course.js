// @ts-check
/**
 * A curve as sounds in time: pitch follows the height over the view, the side of the ear follows x.
 * Knows nothing of audio: it says what is to sound when, so that it can be looked at as it is.
 */

/**
 * @typedef {{x: number, y: number | null, kind: string, words: string}} Told
 * @typedef {{name: string, low: number, high: number, heights: (number | null)[], marks: Told[], gaps: number[]}} Heard
 * @typedef {{at: number, pitch: number | null, pan: number}} Tone a pitch in Hz, or none where there is no value
 * @typedef {{at: number, kind: string, words: string, pan: number}} Tick
 * @typedef {{seconds: number, tones: Tone[], ticks: Tick[], gaps: number[]}} Course
 */

export const LOWEST = 165; // Hz, at the bottom of the view
export const OCTAVES = 3; // to its top
export const SECONDS = { slow: 8, usual: 4, quick: 2 };
export const GAP = 0.05; // seconds of silence where a curve is torn
/** The pitch of each kind of landmark, in Hz; each is told by its own. @type {Record<string, number>} */
export const TICKS = {
  zero: 1760,
  maximum: 2349,
  minimum: 1175,
  inflection: 1480,
  intersection: 1976,
  "y-intercept": 1319,
  pole: 880,
  jump: 988,
  hole: 2637,
  kink: 1568,
  end: 784,
};
const OTHER = 1397;

/** The pitch of a height; what is beyond the view sounds at its edge. @param {number} y @param {{bottom: number, top: number}} view */
export function pitchOf(y, view) {
  const share = Math.min(1, Math.max(0, (y - view.bottom) / (view.top - view.bottom)));
  return LOWEST * 2 ** (OCTAVES * share);
}

/** @param {string} kind */
export const tickOf = (kind) => TICKS[kind] ?? OTHER;

/**
 * @param {Heard} heard @param {{left: number, right: number, bottom: number, top: number}} view
 * @param {{speed: keyof typeof SECONDS, backwards: boolean}} how
 * @returns {Course}
 */
export function courseOf(heard, view, { speed, backwards }) {
  const seconds = SECONDS[speed];
  const { low, high, heights } = heard;
  const share = (/** @type {number} */ x) => (x - low) / (high - low);
  const when = (/** @type {number} */ x) => seconds * (backwards ? 1 - share(x) : share(x));
  const side = (/** @type {number} */ x) => Math.min(1, Math.max(-1, (2 * (x - view.left)) / (view.right - view.left) - 1));
  const last = heights.length - 1;
  const tones = heights.map((y, k) => {
    const x = low + ((high - low) * k) / last;
    return { at: when(x), pitch: y === null ? null : pitchOf(y, view), pan: side(x) };
  });
  const ticks = heard.marks.map(({ x, kind, words }) => ({ at: when(x), kind, words, pan: side(x) }));
  if (backwards) tones.reverse();
  return {
    seconds,
    tones,
    ticks: ticks.sort((one, other) => one.at - other.at),
    gaps: heard.gaps.map(when).sort((one, other) => one - other),
  };
}
