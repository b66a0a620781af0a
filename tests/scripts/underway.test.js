/** The page says how much it has under way, whatever that is and however it ends. */
import assert from "node:assert/strict";
import { test } from "node:test";

import { Time, promised, settled } from "./page.js";

const time = new Time().install();
const { begun, cancel, during, nextFrame, soon } = await import("../../axispath/web/static/js/sheet/underway.js");
const told = () => document.documentElement.dataset.underway;

test("timers count until they are done or cancelled", async () => {
  soon(() => {}, 10);
  const other = soon(() => assert.fail("cancelled"), 20);
  assert.equal(told(), "2");
  cancel(other);
  cancel(other);
  cancel(undefined);
  assert.equal(told(), "1");
  await time.pass(30);
  assert.equal(told(), undefined);
  cancel(other);
  assert.equal(told(), undefined);
});

test("what a timer or a frame begins is under way before it is over", async () => {
  const seen = [];
  soon(() => nextFrame(() => seen.push(told())), 5);
  await time.pass(5);
  assert.equal(told(), "1");
  await time.pass(20);
  assert.deepEqual(seen, ["1"]);
  assert.equal(told(), undefined);
});

test("a failure ends like a success", async () => {
  soon(() => {
    throw new Error("no");
  }, 1);
  await assert.rejects(time.pass(5), /no/);
  assert.equal(told(), undefined);
});

test("whoever waits for a promise goes on before it is over", async () => {
  const { promise, keep } = promised();
  const after = during(promise).then(() => soon(() => {}, 50));
  assert.equal(told(), "1");
  keep(1);
  await after;
  assert.equal(told(), "2");
  await time.pass(10);
  assert.equal(told(), "1");
  await time.pass(60);
  assert.equal(told(), undefined);
});

test("a promise that is broken is over too", async () => {
  const { promise, fail } = promised();
  const rejected = assert.rejects(during(promise), /away/);
  fail(new Error("away"));
  await rejected;
  await time.pass(1);
  await settled();
  assert.equal(told(), undefined);
});

test("what begins by hand ends by hand", () => {
  const over = begun();
  assert.equal(told(), "1");
  over();
  assert.equal(told(), undefined);
});
