// @ts-check
/** Shows times in the reader's own zone and way; to the second where entries follow one another closely. */

for (const time of document.querySelectorAll("time")) {
  const moment = new Date(time.dateTime);
  time.textContent = moment.toLocaleString(undefined, { dateStyle: "medium", timeStyle: time.hasAttribute("data-seconds") ? "medium" : "short" });
}
