"""A slider dragged and played in Chromium: from the input event to the canvas on which it shows."""

from __future__ import annotations

import itertools
import statistics
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from bench.browser import served
from bench.redraw import LINES
from bench.tracing import CATEGORIES, main_thread

EACH_WAY = 80  # ms of network, put in between
MOVES = 240
PAUSE = 16  # ms between two moves of the mouse
WARM = 300  # ms: the hand has moved for so long before waits count
PLAYED = 4000  # ms
REST = 1500  # ms after which nothing old may show
NEAR = 0.03  # of the slider, a pixel and a half: a picture of a place so near shows it
SETTLED = 600  # ms after the hand turned round
BUDGETS = (17, 34)
WATCH = """
() => {
  window.found = { inputs: [], drawn: [], marks: [], ticks: [] };
  const thumb = () => document.querySelector('.lane[data-name="a"] .thumb');
  const value = () => Number(thumb().getAttribute("aria-valuenow"));
  window.addEventListener("pointermove", (event) => {
    if (event.buttons) found.inputs.push([event.timeStamp, value()]);
  });
  window.addEventListener("axispath-drawn", (event) => {
    const shown = event.detail.shows.find((slide) => slide.do === "slide")?.value;
    if (shown !== undefined) found.drawn.push([performance.now(), shown]);
  });
  window.addEventListener("axispath-marked", (event) => {
    found.marks.push([performance.now(), event.detail]);
  });
  const tick = (now) => { found.ticks.push(now); requestAnimationFrame(tick); };
  requestAnimationFrame(tick);
}
"""
# As many strokes as five lanes have, on an empty page: what drawing costs by itself.
EMPTY = """
async () => {
  document.body.innerHTML = '<canvas width="900" height="560"></canvas>';
  const context = document.querySelector("canvas").getContext("2d");
  const found = [];
  for (let k = 0; k < 200; k += 1) {
    await new Promise((done) => requestAnimationFrame(done));
    const start = performance.now();
    context.clearRect(0, 0, 900, 560);
    for (let lane = 0; lane < 5; lane += 1) {
      context.beginPath();
      for (let x = 0; x < 900; x += 1.5) {
        context.lineTo(x, 280 + 200 * Math.sin((x + 5 * k) / 60 + lane));
      }
      context.lineWidth = 2.5;
      context.stroke();
    }
    context.getImageData(0, 0, 1, 1);
    found.push(performance.now() - start);
  }
  return found;
}
"""
Pairs = list[tuple[float, float]]


@dataclass
class Seen:
    """What a page told: inputs and pictures as time and value, refreshes, proven landmarks."""

    inputs: Pairs
    drawn: Pairs
    ticks: list[float]
    marks: Pairs
    final: float
    parts: dict[str, float]

    def waits(self) -> list[float]:
        """For each input how long it took until it, or a later one, was on the canvas."""
        start = self.inputs[0][0] + WARM
        shown = list(self._matched())
        found = []
        for k, (at, _) in enumerate(self.inputs):
            if at < start:
                continue
            later = [time for time, index in shown if index >= k]
            if later:
                found.append(later[0] - at)
        return found

    def backwards(self) -> int:
        """Pictures of an earlier input than the one before: the hand goes one way, then back."""
        turn = max(self.inputs, key=lambda one: one[1])[0]
        out = [value for time, value in self.drawn if time < turn]
        back = [-value for time, value in self.drawn if time > turn + SETTLED]
        return sum(b < a for leg in (out, back) for a, b in itertools.pairwise(leg))

    def _matched(self) -> Iterator[tuple[float, int]]:
        """For each picture its time and the latest input whose value it shows."""
        for time, value in self.drawn:
            for k in range(len(self.inputs) - 1, -1, -1):
                at, wanted = self.inputs[k]
                if at <= time and abs(wanted - value) <= NEAR:
                    yield time, k
                    break

    def missed(self) -> tuple[int, int]:
        """Refreshes without a new picture, of all while the hand moved or the slider played."""
        start, stop = self.drawn[0][0] + WARM, self.drawn[-1][0]
        ticks = [tick for tick in self.ticks if start <= tick <= stop]
        new = [b for a, b in itertools.pairwise(self.drawn) if b[1] != a[1]]
        pictures = sum(start <= time <= stop for time, _ in new)
        return max(0, len(ticks) - pictures), len(ticks)

    def marked(self) -> float:
        """How often a second other proven landmarks showed."""
        if len(self.marks) < 2:
            return 0.0
        return (len(self.marks) - 1) * 1000 / (self.marks[-1][0] - self.marks[0][0])


def report() -> None:
    """Print what a drag and a play with five function lanes take, without and with a network."""
    with served() as (browser, url):
        page, line = _page(browser, url)
        print("a slider of 5 lanes with landmarks, in Chromium, 1280 × 800")
        for each_way in (0, EACH_WAY):
            line.send(
                "Network.emulateNetworkConditions",
                {
                    "offline": False,
                    "latency": 2 * each_way,
                    "downloadThroughput": -1,
                    "uploadThroughput": -1,
                },
            )
            where = f"{each_way} ms each way" if each_way else "loopback"
            _tell(f"drag, {where}", _watched(page, _drag), drag=True)
            _tell(f"play, {where}", _watched(page, _play), drag=False)
        page.goto("about:blank")
        alone = statistics.median(page.evaluate(EMPTY))
        print(f"  drawing as many strokes on an empty page: {alone:.1f} ms a picture")


def _tell(name: str, seen: Seen, drag: bool) -> None:
    missed, ticks = seen.missed()
    print(f"  {name}: {len(seen.drawn)} pictures, {missed} of {ticks} refreshes without a new one")
    if drag:
        waits = sorted(seen.waits())
        late = waits[int(len(waits) * 0.95)]
        stale = abs(seen.drawn[-1][1] - seen.final) > 1e-9
        middle = statistics.median(waits)
        print(
            f"    input to canvas {middle:.1f} ms (budget {BUDGETS[0]}), p95 {late:.1f} ms "
            f"(budget {BUDGETS[1]}), out of order {seen.backwards()}, stale at rest {int(stale)}"
        )
    print(f"    proven landmarks {seen.marked():.1f} times a second (budget 15)")
    span = seen.ticks[-1] - seen.ticks[0]
    parts = ", ".join(f"{part} {100 * ms / span:.0f}" for part, ms in seen.parts.items() if ms > 5)
    print(f"    main thread, in 100 of the time: {parts}")


def _watched(page: Any, act: Any) -> Seen:
    page.evaluate("Object.assign(found, { inputs: [], drawn: [], marks: [], ticks: [] })")
    browser = page.context.browser
    browser.start_tracing(page=page, categories=list(CATEGORIES))
    act(page)
    trace = browser.stop_tracing()
    page.wait_for_timeout(REST)
    told = page.evaluate("({...found})")
    thumb = page.locator('.lane[data-name="a"] .slider .thumb')
    final = float(thumb.get_attribute("aria-valuenow"))
    return Seen(
        told["inputs"], told["drawn"], told["ticks"], told["marks"], final, main_thread(trace)
    )


def _drag(page: Any) -> None:
    track = page.locator('.lane[data-name="a"] .slider').bounding_box()
    assert track is not None
    y = track["y"] + track["height"] / 2
    page.mouse.move(track["x"] + track["width"] * 0.12, y)
    page.mouse.down()
    for k in range(MOVES):
        share = 0.92 - 0.8 * abs(k / MOVES * 2 - 1)
        page.mouse.move(track["x"] + track["width"] * share, y)
        page.wait_for_timeout(PAUSE)
    page.mouse.up()


def _play(page: Any) -> None:
    button = page.locator('.lane[data-name="a"] [data-act="play"]')
    button.click()
    page.wait_for_timeout(PLAYED)
    button.click()


def _page(browser: Any, url: str) -> tuple[Any, Any]:
    """A sheet with a slider and five lanes, and a line to the browser's own tools."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    line = page.context.new_cdp_session(page)
    line.send("Network.enable")
    page.goto(url)
    for entry in ("a = 1", *(f"a ({line})" for line in LINES)):
        page.fill("#entry", entry)
        page.press("#entry", "Enter")
    page.locator(".lane").nth(5).wait_for()
    page.wait_for_timeout(9000)  # exact forms are being looked for until then
    page.evaluate(WATCH)
    return page, line
