"""A slider dragged in Chromium: from the input event to the canvas on which it shows."""

from __future__ import annotations

import os
import statistics
import tempfile
from pathlib import Path

from axispath.command.cluster import running_cluster
from axispath.command.testing import scratch
from bench.redraw import LINES

MOVES = 150
WATCH = """
() => {
  // Told by the plot after each drawing: which slider value it shows, and which input asked for it.
  window.found = { inputs: new Map(), waits: [] };
  const svg = document.querySelector('.lane[data-name="a"] .slider');
  const value = () => Number(svg.querySelector(".thumb").getAttribute("aria-valuenow"));
  svg.addEventListener("pointermove", (event) => found.inputs.set(value(), event.timeStamp));
  window.addEventListener("axispath-drawn", (event) => {
    const shown = event.detail.find((slide) => slide.do === "slide")?.value;
    const asked = found.inputs.get(shown);
    if (asked === undefined) return;
    found.inputs.delete(shown);
    for (const [other, at] of found.inputs) if (at <= asked) found.inputs.delete(other);
    found.waits.push(performance.now() - asked);
  });
}
"""


def report() -> None:
    """Print the median and the 95th percentile over a drag with five function lanes."""
    with (
        tempfile.TemporaryDirectory(prefix="axispath-bench-", dir=scratch()) as folder,
        running_cluster(Path(folder), lasting=False) as own,
    ):
        os.environ["AXISPATH_TEST_DATABASE"] = own.address
        waits = _dragged()
    waits.sort()
    late = waits[int(len(waits) * 0.95)]
    print(f"drag of a slider, 5 lanes with landmarks, in Chromium, {len(waits)} pictures")
    print(f"  input to canvas   {statistics.median(waits):6.1f} ms   (budget 17 ms)")
    print(f"  95th percentile   {late:6.1f} ms   (budget 34 ms)")


def _dragged() -> list[float]:
    from playwright.sync_api import sync_playwright

    from tests.browser.harness import CHROMIUM, Server
    from tests.database import empty_store

    empty_store().engine.dispose()
    server = Server(workers=2)
    server.start()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(**CHROMIUM)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(server.url)
            for line in ("a = 1", *(f"a ({line})" for line in LINES)):
                page.fill("#entry", line)
                page.press("#entry", "Enter")
            page.locator(".lane").nth(5).wait_for()
            page.wait_for_timeout(9000)  # exact forms are being looked for until then
            page.evaluate(WATCH)
            track = page.locator('.lane[data-name="a"] .slider').bounding_box()
            assert track is not None
            y = track["y"] + track["height"] / 2
            page.mouse.move(track["x"] + track["width"] * 0.55, y)
            page.mouse.down()
            for k in range(MOVES):
                share = 0.55 + 0.3 * abs((k % 60) / 30 - 1)
                page.mouse.move(track["x"] + track["width"] * share, y)
                page.wait_for_timeout(16)
            page.mouse.up()
            waits: list[float] = page.evaluate("found.waits")
            browser.close()
    finally:
        server.stop()
    return waits
