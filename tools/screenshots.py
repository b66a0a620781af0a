"""Pictures of the main views for docs/screenshots, from the demo data of a server that runs.

.venv/bin/python -m tools.screenshots http://127.0.0.1:8000 [NAME …]
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
CHROMIUM = "/usr/bin/chromium-headless-shell"
SETTLED = 4000  # ms for exact forms and fonts
Story = Callable[[Page], None]


def _lines(page: Page, *lines: str) -> None:
    for count, line in enumerate(lines, page.locator(".lane").count() + 1):
        page.fill("#entry", line)
        page.press("#entry", "Enter")
        page.locator(".lane").nth(count - 1).wait_for()


def _read(page: Page, x: str) -> None:
    page.fill("#reading-x", x)
    page.press("#reading-x", "Enter")
    page.wait_for_timeout(600)


def _landmarks(page: Page) -> None:
    page.locator('[data-act="why"]').nth(1).click()


def _working(page: Page) -> None:
    page.get_by_role("tab", name="Working").click()
    page.locator(".work-line").nth(9).wait_for()


def _equations(page: Page) -> None:
    page.get_by_role("tab", name="Working").click()
    page.locator(".block-answers").nth(1).wait_for()
    page.locator(".block-answers").first.scroll_into_view_if_needed()


def _instrument(page: Page) -> None:
    _read(page, "6")
    page.get_by_role("button", name="hold").click()
    _read(page, "12")
    page.get_by_role("button", name="tangent").click()
    page.get_by_role("button", name="area").click()


def _values(page: Page) -> None:
    page.get_by_role("tab", name="Values").click()


def _equation(page: Page) -> None:
    page.get_by_role("tab", name="Solve").click()
    page.fill("#equation", "h(x) = d(x)")
    page.press("#equation", "Enter")
    page.locator("[data-solution]").first.wait_for()


def _method(page: Page) -> None:
    _lines(page, "x^3 - 2x - 5")
    page.get_by_role("tab", name="Solve").click()
    page.fill("#equation", "f(x) = 0")
    page.press("#equation", "Enter")
    page.locator("[data-solution]").first.wait_for()
    page.fill("#method-start", "3")
    page.get_by_role("button", name="Watch").click()
    page.get_by_role("button", name="Step on").click()


def _many(page: Page) -> None:
    _lines(
        page,
        "a = 1.5",
        "b = 2",
        "c = 0.5",
        "a sin(b x)",
        "x^2/4 - c",
        "1/(x - 1) for -4 <= x <= 4",
        "cos x",
        "2π/3",
    )


def _print(page: Page) -> None:
    page.emulate_media(media="print")


def _figure(page: Page) -> None:
    _lines(page, "(sin 5t, cos 4t)", "x^2 - 1")


def _rose(page: Page) -> None:
    page.get_by_text("deg", exact=True).click()
    _lines(page, "r = 1 + 2 cos(3θ)", "P = (2; 60°)")


def _place(page: Page) -> None:
    box = page.locator("#plot").bounding_box()
    assert box is not None
    page.mouse.click(box["x"] + 0.6 * box["width"], box["y"] + 0.45 * box["height"])


def _data(page: Page) -> None:
    page.get_by_role("tab", name="Data").click()
    page.locator(".data-cells td").nth(21).click()
    page.locator("#data-page").evaluate("(page) => page.scrollTo(0, 250)")


def _surface(page: Page) -> None:
    page.locator('[data-act="surface"]').first.click()


def _handbook(page: Page) -> None:
    page.goto(page.url.partition("/demo")[0] + "/handbook")


def _shelf(page: Page) -> None:
    """Sheets stand on it once they are somebody's own: each has a line more."""
    server = page.url.partition("/demo")[0]
    for name, line in (
        ("lamp-range", "x/2"),
        ("bay", "P = (1, 1)"),
        ("hawser", "shackle = 3"),
        ("slipway", "0.5"),
        ("ferry-window", "x/8 + 1"),
    ):
        page.goto(f"{server}/demo/{name}")
        _lines(page, line)
        page.wait_for_timeout(SETTLED)
    page.goto(f"{server}/shelf")


def _nothing(page: Page) -> None:
    return


FERRY, BLANK = "/demo/ferry-window", "/sheet/blank"
USUAL, PHONE = (1280, 800), (390, 844)
VIEWS: dict[str, tuple[str, tuple[int, int], Story]] = {
    "sheet": (FERRY, USUAL, _nothing),
    "landmarks": (FERRY, USUAL, _landmarks),
    "working": ("/demo/tickets", USUAL, _working),
    "equations": ("/demo/crane", USUAL, _equations),
    "instrument": (FERRY, USUAL, _instrument),
    "values": ("/demo/slipway", USUAL, _values),
    "solve": (FERRY, USUAL, _equation),
    "method": (BLANK, USUAL, _method),
    "dark": (BLANK, USUAL, _many),
    "phone": (FERRY, PHONE, _nothing),
    "print": (FERRY, USUAL, _print),
    "figure": (BLANK, USUAL, _figure),
    "rose": (BLANK, USUAL, _rose),
    "region": ("/demo/anchorage", USUAL, _nothing),
    "map": ("/demo/bay", USUAL, _place),
    "data": ("/demo/engine", USUAL, _data),
    "surface": ("/demo/bay", USUAL, _surface),
    "handbook": (FERRY, USUAL, _handbook),
    "shelf": (FERRY, USUAL, _shelf),
}


def take(browser: Browser, server: str, name: str) -> None:
    """One picture."""
    sheet, (width, height), story = VIEWS[name]
    context = browser.new_context(
        viewport={"width": width, "height": height},
        color_scheme="dark" if name == "dark" else "light",
        has_touch=width < 500,
        is_mobile=width < 500,
    )
    page = context.new_page()
    page.goto(server + sheet)
    page.locator("#plot").wait_for()
    page.wait_for_timeout(1200)
    story(page)
    page.wait_for_timeout(SETTLED)
    page.screenshot(path=FOLDER / f"{name}.png")
    context.close()


def main(server: str, names: list[str]) -> None:
    """All pictures, or some."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox"])
        for name in names or VIEWS:
            take(browser, server.rstrip("/"), name)
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1], sys.argv[2:])
