// @ts-check
/** Where a slider under the hand is going: the places next to it in the direction of the hand. */

const SMOOTH = 0.5; // of the speed between two moves that is believed
const LEAST = 6; // pixels that are looked ahead however slow the hand
const MOST = 160;
const BEHIND = 3; // and so many back, as hands tremble
const REFRESH = 16; // ms
const QUICK = 6; // pixels that the hand goes during one, from which on not every place is wanted
const EVERY = 4; // places then; whatever is asked for less often keeps step with this
const RESTS = 80; // ms without a move after which the hand rests
const NEAR = 3; // pixels
const SLOW = 0.02; // pixels a millisecond
const KEYS = 8; // steps by keys that are looked ahead

/** One drag along a track, in whole pixels. */
export class Course {
  /** @param {number} px @param {number} now @param {{low: number, high: number}} ends of the track in pixels */
  constructor(px, now, ends) {
    this.px = px;
    this.now = now;
    this.ends = ends;
    this.speed = 0;
    /** The place whose picture is shown. */
    this.shown = px;
  }

  /** @param {number} px @param {number} now */
  to(px, now) {
    const time = Math.max(now - this.now, 1);
    this.speed += ((px - this.px) / time - this.speed) * SMOOTH;
    this.px = px;
    this.now = now;
  }

  /** Pixels a millisecond; a hand that rests has none. */
  get pace() {
    return performance.now() - this.now > RESTS ? 0 : this.speed;
  }

  /** Places to come in so many milliseconds, nearest first. @param {number} ms */
  coming(ms) {
    const { px, pace } = this;
    const stride = Math.abs(pace) * REFRESH < QUICK ? 1 : EVERY;
    const ahead = Math.min(Math.max(Math.abs(pace) * ms, LEAST), MOST);
    const places = [px];
    // A hand that rests may go either way.
    const way = Math.abs(pace) < SLOW ? 0 : Math.sign(pace);
    const first = Math.round(px / stride) * stride;
    for (let far = stride; far <= ahead; far += stride) {
      if (way) places.push(first + way * far);
      else places.push(first + far, first - far);
    }
    if (way) for (let far = 1; far <= BEHIND; far += 1) places.push(px - way * far);
    const inside = places.filter((place) => place >= this.ends.low && place <= this.ends.high);
    // Where the hand rests everything is wanted for just this place.
    return inside.map((place) => ({ px: place, beat: place === px && !way ? 0 : Math.abs(place) }));
  }

  /**
   * Places right behind the hand, whose pictures may stand for its own while it moves. None of them lies
   * behind what has been shown already, so that nothing ever goes back.
   */
  beside() {
    const way = Math.sign(this.pace);
    const near = [];
    for (let far = 1; way && far <= NEAR; far += 1) near.push(this.px - way * far);
    return near.filter((px) => (px - this.shown) * way > 0).map((px) => ({ px, beat: px }));
  }
}

/** Values that more presses of the same key lead to. @param {number} value @param {number} by */
export const stepsAhead = (value, by) => Array.from({ length: KEYS }, (_, k) => value + (k + 1) * by);
