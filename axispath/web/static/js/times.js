// @ts-check
/** Shows times in the reader's own zone and way. */

for (const time of document.querySelectorAll("time")) {
  const moment = new Date(time.dateTime);
  time.textContent = moment.toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
}
