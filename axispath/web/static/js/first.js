// @ts-check
/** The curves that a page comes with, drawn before anything else of it has begun. */

import { Plot } from "./drawing/plot.js";
import { showOwnColours, styled } from "./drawing/style.js";
import { unpacked } from "./drawing/wire.js";
import { Trouble, aboutPicture, fetchPicture, wantedPicture } from "./sheet/api.js";
import { begun } from "./sheet/underway.js";

const opened = begun();
await styled();

/** @type {import("./sheet/internal.js").Start} */
export const start = JSON.parse(document.getElementById("start")?.textContent ?? "{}");
const canvas = (/** @type {string} */ id) => /** @type {HTMLCanvasElement} */ (document.getElementById(id));

export const plot = new Plot(canvas("plot"), canvas("rail"));
plot.view = { ...start.view };
plot.ground = start.ground;
plot.lanes = start.lanes;

const sent = document.getElementById("first-picture")?.textContent ?? "";
if (sent) {
  const { head, lanes } = unpacked(Uint8Array.from(atob(sent), (letter) => letter.charCodeAt(0)).buffer);
  plot.picture = { view: head.view, shapes: new Map(lanes.map((lane) => [lane.id, lane.shapes])), cut: head.cut, told: head.told };
}
/**
 * Forms that are sent before the parts of the page are there would be sent to nobody: they wait for them.
 * @type {Set<HTMLFormElement>}
 */
const early = new Set();
const hold = (/** @type {Event} */ event) => {
  const form = /** @type {HTMLFormElement} */ (event.target);
  if (![...form.attributes].some(({ name }) => name.startsWith("x-on:submit"))) return;
  event.preventDefault();
  early.add(form);
};
addEventListener("submit", hold, true);

/** All parts are there. */
export function ready() {
  opened();
  removeEventListener("submit", hold, true);
  for (const form of early) form.requestSubmit();
}

/** Very many curves do not come with the page, and are asked for at once. */
async function ask() {
  const wanted = wantedPicture(start.head, plot, []);
  try {
    const found = await fetchPicture(start.id, wanted);
    // What is to be said beside the curves is said by whoever asks again.
    const whole = !found.cut.length && !Object.keys(found.told).length;
    plot.picture = { ...found, shows: [], ...(whole && { about: aboutPicture(start.id, wanted) }) };
    plot.ask();
  } catch (trouble) {
    if (!(trouble instanceof Trouble)) throw trouble;
  }
}

showOwnColours(plot.lanes);
if (plot.fit()) plot.draw();
plot.tell();
/** Until the curves are there that the page did not bring. */
export const coming = plot.picture || !plot.size.width ? Promise.resolve() : ask();
