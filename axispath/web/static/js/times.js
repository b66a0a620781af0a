// @ts-check
/** Shows times in the reader's own zone and way; to the second where neighbours stand in one minute. */

const all = /** @type {HTMLTimeElement[]} */ ([...document.querySelectorAll("time")]);
/** @param {HTMLTimeElement} time @param {"short" | "medium"} to */
const shown = (time, to) => new Date(time.dateTime).toLocaleString(undefined, { dateStyle: "medium", timeStyle: to });
const minutes = all.map((time) => shown(time, "short"));
for (const [k, time] of all.entries()) {
  const close = minutes[k] === minutes[k - 1] || minutes[k] === minutes[k + 1];
  time.textContent = close || time.hasAttribute("data-seconds") ? shown(time, "medium") : minutes[k];
}
