/** A hand on the plot: what it does is done where it came down, though the plot moves under it. */
import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

import { Time } from "./page.js";

new Time().install();
const { listen } = await import("../../axispath/web/static/js/hand/gestures.js");

let canvas, plot, told, box, done;

function target() {
  const heard = new Map();
  return {
    addEventListener: (name, work) => heard.set(name, [...(heard.get(name) ?? []), work]),
    tell: (name, event) => heard.get(name)?.forEach((work) => work({ type: name, preventDefault() {}, ...event })),
    getBoundingClientRect: () => box,
    setPointerCapture() {},
    classList: { add() {}, remove() {}, toggle() {} },
  };
}

beforeEach(() => {
  box = { left: 0, top: 50, width: 600, height: 400 };
  canvas = target();
  done = [];
  plot = {
    canvas,
    rail: target(),
    size: { width: 600, height: 400 },
    view: { left: -10, right: 10, bottom: -7, top: 7 },
    marks: [],
    places: [],
    shown: () => [],
    px: (x) => ((x + 10) / 20) * 600,
    py: (y) => ((7 - y) / 14) * 400,
    ask() {},
    drawnMarks: [],
    clusters: [],
    ground: { ticks: { x: {}, y: {} } },
  };
  told = new Proxy(
    { hold: () => null, putting: () => true, restricting: () => false, boxing: () => false, pick: () => false, keys: {} },
    { get: (own, name) => own[name] ?? ((...given) => done.push([name, ...given])) },
  );
  listen(plot, told);
});

const hand = (name, x, y, more = {}) => canvas.tell(name, { button: 0, pointerId: 1, pointerType: "mouse", clientX: x, clientY: y, ...more });

test("a click puts a point where the hand came down, though the plot moves before it goes up", () => {
  hand("pointerdown", 150, 250);
  // A lane comes in: the plot is pushed, and the browser tells of a mouse that did not move.
  box = { ...box, top: 20 };
  hand("pointermove", 150, 250);
  hand("pointerup", 150, 250);
  assert.deepEqual(done.filter(([name]) => name === "put"), [["put", { x: 150, y: 200 }]]);
  assert.ok(!done.some(([name]) => name === "look"));
});

test("a drag goes as far as the hand, whatever the plot does", () => {
  told.putting = () => false;
  const views = [];
  told.look = (view) => {
    plot.view = view;
    views.push(view);
  };
  listen(plot, told);
  hand("pointerdown", 150, 250);
  hand("pointermove", 180, 250);
  box = { ...box, left: 40 };
  hand("pointermove", 210, 250);
  // 60 of 600 pixels of a view 20 wide; two who listen both look.
  assert.ok(Math.abs(views.at(-1).left - -12) < 2.01);
  assert.ok(views.every((view) => view.left < -10));
});

test("what is released outside by the browser is no click", () => {
  hand("pointerdown", 150, 250);
  hand("pointercancel", 150, 250);
  assert.ok(!done.some(([name]) => name === "put"));
});
