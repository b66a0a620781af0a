/** What sounds when: pitch follows the height, the side follows x, ticks are the landmarks. */
import assert from "node:assert/strict";
import { test } from "node:test";

const { LOWEST, OCTAVES, SECONDS, courseOf, pitchOf, tickOf } = await import("../../axispath/web/static/js/hear/course.js");

const view = { left: -10, right: 10, bottom: -7, top: 7 };
const heights = (rule, count = 401) => Array.from({ length: count }, (_, k) => rule(-10 + (20 * k) / (count - 1)));
const heard = (rule, marks = [], gaps = []) => ({ name: "f", low: -10, high: 10, heights: heights(rule), marks, gaps });
const quick = { speed: "quick", backwards: false };

test("pitch follows the height over the view, and stays at its edges", () => {
  assert.equal(pitchOf(-7, view), LOWEST);
  assert.equal(pitchOf(7, view), LOWEST * 2 ** OCTAVES);
  assert.equal(pitchOf(100, view), LOWEST * 2 ** OCTAVES);
  assert.equal(pitchOf(-100, view), LOWEST);
  const { tones } = courseOf(heard((x) => x / 2), view, quick);
  for (const tone of tones) {
    const x = -10 + (20 * tone.at) / SECONDS.quick;
    assert.ok(Math.abs(tone.pitch / (165 * 2 ** (3 * ((x / 2 + 7) / 14))) - 1) < 1e-9);
  }
});

test("from the left ear to the right one, at every speed, and back", () => {
  for (const [speed, seconds] of Object.entries(SECONDS)) {
    const { tones } = courseOf(heard((x) => x), view, { speed, backwards: false });
    assert.deepEqual([tones[0].pan, tones.at(-1).pan], [-1, 1]);
    assert.deepEqual([tones[0].at, tones.at(-1).at], [0, seconds]);
  }
  const back = courseOf(heard((x) => x), view, { speed: "quick", backwards: true }).tones;
  assert.deepEqual([back[0].pan, back.at(-1).pan], [1, -1]);
  assert.ok(back[0].pitch > back.at(-1).pitch);
  assert.ok(back.every((tone, k) => !k || tone.at >= back[k - 1].at));
});

test("ticks stand at their landmarks, each kind with a pitch of its own, in the order of time", () => {
  const marks = [["zero", 4], ["maximum", -2.3], ["end", -10]].map(([kind, x]) => ({ kind, x, y: 0, words: kind }));
  const { ticks } = courseOf(heard((x) => x, marks), view, quick);
  assert.deepEqual(ticks.map(({ kind, at }) => [kind, at.toFixed(6)]), [["end", "0.000000"], ["maximum", "0.770000"], ["zero", "1.400000"]]);
  const kinds = ["zero", "maximum", "minimum", "inflection", "intersection", "y-intercept", "pole", "jump", "hole", "kink", "end", "other"];
  assert.equal(new Set(kinds.map(tickOf)).size, kinds.length);
});

test("where there is no value there is no pitch, and a pole is a gap", () => {
  const { tones, gaps } = courseOf(heard((x) => (x < 0 ? null : Math.sqrt(x)), [], [5]), view, quick);
  assert.ok(tones.slice(0, 200).every(({ pitch }) => pitch === null));
  assert.ok(tones.slice(200).every(({ pitch }) => pitch !== null));
  assert.deepEqual(gaps, [1.5]);
});
