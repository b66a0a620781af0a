/** Sliders that play go in whole steps, and where a hand is going is known. */
import assert from "node:assert/strict";
import { test } from "node:test";

import { Time } from "./page.js";

const time = new Time().install();
const { Play } = await import("../../axispath/web/static/js/lanes/play.js");
const { Course, stepsAhead } = await import("../../axispath/web/static/js/lanes/course.js");

function player(play, speed = "1", ready = () => true) {
  const lane = { slider: { low: 0, high: 8, play, speed } };
  const moved = new Map();
  const seen = [];
  const ended = [];
  const told = {
    lane: () => lane,
    allowed: (_, wanted) => wanted,
    moved,
    ready,
    stepped(over) {
      if (moved.has("a")) seen.push(moved.get("a"));
      ended.push(...over);
    },
  };
  return { play: new Play(told), seen, ended };
}

test("every step shows, one with each refresh, and what comes is what was foreseen", async () => {
  const { play, seen } = player("round");
  play.start("a", 0);
  await time.pass(16);
  const foreseen = [...play.coming(1000)].map(({ moved }) => moved.get("a"));
  await time.pass(600);
  const steps = [...new Set(seen)];
  assert.ok(steps.length > 30);
  steps.forEach((value, k) => assert.ok(Math.abs(value - foreseen[k]) < 1e-12));
  play.clear();
  await time.pass(100);
});

test("once ends at its end, there and back turns round, round begins again", async () => {
  const once = player("once", "8");
  once.play.start("a", 0);
  await time.pass(1500);
  assert.deepEqual([once.seen.at(-1), once.ended], [8, ["a"]]);
  assert.deepEqual(once.seen, [...once.seen].sort((a, b) => a - b));
  for (const [how, back] of [["there and back", true], ["round", false]]) {
    const other = player(how, "8");
    other.play.start("a", 0);
    await time.pass(1300);
    const top = other.seen.indexOf(Math.max(...other.seen));
    const [next, last] = [other.seen[top + 3], other.seen.at(-1)];
    assert.ok(back ? next > 6 && last < next : next < 2 && last > next);
    other.play.clear();
    await time.pass(100);
  }
});

test("it waits for its pictures for a while, and then goes on without", async () => {
  const { play, seen } = player("round", "1", () => false);
  play.start("a", 0);
  await time.pass(300);
  assert.deepEqual(seen, []);
  await time.pass(700);
  assert.ok(seen.length > 5);
  play.clear();
  await time.pass(100);
});

test("a hand that goes to the right is looked ahead of to the right, within the track", () => {
  const course = new Course(100, time.now, { low: 0, high: 160 });
  for (let k = 1; k <= 5; k += 1) {
    time.now += 16;
    course.to(100 + 8 * k, time.now);
  }
  const places = course.coming(400).map(({ px }) => px);
  assert.equal(places[0], 140);
  assert.ok(places.filter((px) => px > 140).length > places.filter((px) => px < 140).length);
  assert.ok(places.every((px) => px >= 0 && px <= 160));
  // What may stand for now lies behind the hand, and never behind what was shown.
  course.shown = 138;
  assert.deepEqual(course.beside().map(({ px }) => px), [139]);
});

test("a hand that rests may go either way", () => {
  const course = new Course(80, time.now, { low: 0, high: 160 });
  time.now += 500;
  const places = course.coming(400).map(({ px }) => px);
  for (let far = 1; far <= 6; far += 1) assert.ok(places.includes(80 + far) && places.includes(80 - far));
  assert.deepEqual(course.beside(), []);
});

test("more presses of a key go on by the same step", () => {
  assert.deepEqual(stepsAhead(2, 0.5).slice(0, 3), [2.5, 3, 3.5]);
});
