// @ts-check
/** The page History: its points are looked at, and played back and forth. */

import "./times.js";

const PACE = 900; // ms of a point
const points = /** @type {HTMLElement[]} */ ([...document.querySelectorAll(".point")].reverse());
const picture = /** @type {HTMLImageElement} */ (document.getElementById("played"));
const words = /** @type {HTMLElement} */ (document.getElementById("played-words"));
const button = /** @type {HTMLElement} */ (document.querySelector("[data-play]"));
let at = points.length - 1;
let timer = 0;
let moved = false; // what is shown first opens nothing

/** Show a point. @param {number} which */
function show(which) {
  if (!points.length) return;
  at = Math.min(Math.max(which, 0), points.length - 1);
  for (const [k, point] of points.entries()) point.classList.toggle("is-played", k === at);
  const folded = points[at].closest("details");
  if (folded && moved) folded.open = true;
  moved = true;
  picture.src = points[at].dataset.picture ?? "";
  const told = points[at].querySelector(".point-words")?.textContent?.trim() ?? "";
  words.textContent = `${at + 1} of ${points.length}: ${told}`;
}

/** @param {boolean} on */
function play(on) {
  clearInterval(timer);
  timer = 0;
  const face = button.querySelector("span");
  if (face) face.textContent = on ? "Stop" : "Play";
  if (!on) return;
  if (at === points.length - 1) show(0);
  timer = window.setInterval(() => {
    if (at >= points.length - 1) play(false);
    else if (picture.complete) show(at + 1);
  }, PACE);
}

button.addEventListener("click", () => play(!timer));
for (const step of /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll("[data-step]"))) {
  step.addEventListener("click", () => {
    play(false);
    show(at + Number(step.dataset.step));
  });
}
for (const [k, point] of points.entries()) {
  point.addEventListener("click", (event) => {
    if (/** @type {HTMLElement} */ (event.target).closest("input, button, label")) return;
    play(false);
    show(k);
  });
}
show(at);
