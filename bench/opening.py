"""Opening a sheet in Chromium with nothing cached: until its curves are on the canvas."""

from __future__ import annotations

import itertools
import statistics
from typing import Any

from bench.browser import served
from bench.redraw import LINES

TIMES = 7
SLOW = {"latency": 160, "downloadThroughput": 4e6 / 8, "uploadThroughput": 4e6 / 8}
QUICK = {"latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
PANNED = 3000  # ms
PANNED_AT = 180  # pixels from the left edge of the plot
HEAVIEST = 350  # KB over the wire, cold
SETTLED = 2500  # ms after which nothing more is asked for
# When the first curves were drawn, and how much came over the line.
WATCH = """
window.first = null;
window.addEventListener("axispath-drawn", (event) => {
  if (event.detail.curves && window.first === null) {
    requestAnimationFrame(() => { window.first = performance.now(); });
  }
});
"""
MANY = 200
FAST = "sin(1000 k x)"  # so many turns that a screen is full of them


def report() -> None:
    """Print how long sheets take to open, of few lanes and of many, and how many can be panned."""
    with served() as (browser, url):
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        context.add_init_script(WATCH)
        few = _sheet(context, url, LINES)
        _opened(context, few, QUICK, "5 lanes, loopback", 300)
        _opened(context, few, SLOW, "5 lanes, 80 ms each way, 4 Mbit/s", 1200)
        _weighed(context, few)
        many = _sheet(context, url, [f"sin(x + {k}/20) + {k}/30" for k in range(MANY)])
        _opened(context, many, QUICK, f"{MANY} lanes, loopback", 1000)
        _panned(context, many, f"{MANY} lanes")
        waves = _sheet(context, url, [FAST.replace("k", str(k)) for k in range(1, 9)])
        _panned(context, waves, "8 lanes denser than pixels")


def _sheet(context: Any, url: str, lines: Any) -> str:
    """The address of a new sheet with these lanes."""
    page = context.new_page()
    page.goto(url)
    page.fill("#entry", "0 x")
    page.press("#entry", "Enter")
    page.wait_for_url("**/sheet/*")
    address: str = page.url
    edits = [{"do": "add lane", "text": line} for line in lines]
    for k in range(0, len(edits), 40):
        page.evaluate(
            """async ([key, edits]) => {
              const headers = { "Content-Type": "application/json",
                "X-CSRFToken": document.querySelector('meta[name="csrf-token"]').content };
              const { head } = await (await fetch(`/api/sheets/${key}`)).json();
              const body = JSON.stringify({ base: head, edits });
              await fetch(`/api/sheets/${key}/edits`, { method: "POST", headers, body });
            }""",
            [address.rsplit("/", 1)[1], edits[k : k + 40]],
        )
    page.close()
    return address


def _opened(context: Any, address: str, line: dict[str, Any], name: str, budget: int) -> None:
    found = []
    for _ in range(TIMES):
        page = context.new_page()
        session = context.new_cdp_session(page)
        session.send("Network.enable")
        session.send("Network.clearBrowserCache")
        session.send("Network.setCacheDisabled", {"cacheDisabled": True})
        session.send("Network.emulateNetworkConditions", {"offline": False, **line})
        page.goto(address)
        found.append(_first(page))
        page.close()
    print(f"opened cold, {name}: {statistics.median(found):.0f} ms (budget {budget})")


def _weighed(context: Any, address: str) -> None:
    """Print how much comes over the wire until an opened sheet has all it needs."""
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Network.enable")
    session.send("Network.setCacheDisabled", {"cacheDisabled": True})
    sizes: list[float] = []
    session.on("Network.loadingFinished", lambda event: sizes.append(event["encodedDataLength"]))
    page.goto(address)
    _first(page)
    page.wait_for_timeout(SETTLED)
    weight = sum(sizes) / 1000
    print(f"over the wire, cold: {weight:.0f} KB in {len(sizes)} answers (budget {HEAVIEST})")
    page.close()


def _first(page: Any) -> float:
    """When the first curves were on the canvas, in ms from the beginning of the opening."""
    while (first := page.evaluate("window.first")) is None:
        page.wait_for_timeout(20)
    return float(first)


def _panned(context: Any, address: str, name: str) -> None:
    page = context.new_page()
    page.goto(address)
    _first(page)
    page.wait_for_timeout(4000)
    box = page.locator("#plot").bounding_box()
    # Beside the numbers of the axis, by which it would be stretched.
    page.mouse.move(box["x"] + PANNED_AT, box["y"] + 150)
    page.mouse.down()
    page.evaluate(
        """() => {
          window.drawn = [];
          window.addEventListener("axispath-drawn", () => drawn.push(performance.now()));
        }"""
    )
    start = page.evaluate("performance.now()")
    k = 0
    while page.evaluate("performance.now()") - start < PANNED:
        page.mouse.move(box["x"] + PANNED_AT + 60 * ((k % 40) / 20 - 1), box["y"] + 150)
        k += 1
    drawn = page.evaluate("window.drawn")
    page.mouse.up()
    gaps = [b - a for a, b in itertools.pairwise(drawn)]
    rate = len(gaps) * 1000 / (drawn[-1] - drawn[0])
    print(
        f"panned, {name}: {rate:.0f} pictures a second (budget 30), longest gap {max(gaps):.0f} ms"
    )
    page.close()
