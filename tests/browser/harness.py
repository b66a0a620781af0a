"""A real server behind a database line that can be cut, and a real browser in front of it."""

import atexit
import contextlib
import math
import os
import re
import socket
import tempfile
import threading
import time
import unittest
import unittest.mock
import urllib.request
from functools import cache
from pathlib import Path

from playwright.sync_api import expect, sync_playwright
from sqlalchemy.engine import make_url

from axispath.command.place import free_port
from axispath.command.serving import web_programs
from axispath.demo.load import load_demo
from tests.case import Case
from tests.database import address, empty_store

# What Playwright leaves out by itself, and the address bar's pages and a spare process, which take
# a fifth of the time of a short test.
LEFT_OUT = (
    "AvoidUnnecessaryBeforeUnloadCheckSync,DestroyProfileOnBrowserClose,HttpsUpgrades,"
    "HttpsFirstBalancedModeAutoEnable,MediaRouter,PaintHolding,ThirdPartyStoragePartitioning,"
    "AvoidCorsURLLoaderRestartOnRedirect,OptimizationHints,NetworkTimeServiceQuerying,"
    "PreconnectToSearch,AimEnabled,WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup,"
    "SpareRendererForSitePerProcess"
)
CHROMIUM = {
    "executable_path": "/usr/bin/chromium-headless-shell",
    "args": [
        f"--disable-features={LEFT_OUT}",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
    ],
}

SIZE = {"width": 1280, "height": 800}
WAIT = int(
    os.environ.get("AXISPATH_TEST_WAIT", "120")
)  # seconds, of a machine that has much else to do
TOKEN = re.compile(r'name="csrf-token" content="([^"]+)"')
SECRET = "a secret for tests, and no other use"


def _number(text):
    try:
        return float(text)
    except ValueError:
        return math.nan


class Line:
    """A TCP line to the database that can be cut and mended."""

    def __init__(self, host, port):
        self.target = (host, port)
        self.up = True
        self.ends = []
        self.listener = socket.create_server(("127.0.0.1", 0))
        self.port = self.listener.getsockname()[1]
        threading.Thread(target=self._accept, daemon=True).start()

    def _accept(self):
        while True:
            try:
                near, _ = self.listener.accept()
            except OSError:
                return
            if not self.up:
                near.close()
                continue
            try:
                far = socket.create_connection(self.target)
            except OSError:
                near.close()
                continue
            self.ends += [near, far]
            for source, sink in ((near, far), (far, near)):
                threading.Thread(target=self._pump, args=(source, sink), daemon=True).start()

    def _pump(self, source, sink):
        with contextlib.suppress(OSError):
            while data := source.recv(65536):
                sink.sendall(data)
        for end in (source, sink):
            end.close()

    def cut(self):
        self.up = False
        for end in self.ends:
            with contextlib.suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
        self.ends = []

    def mend(self):
        self.up = True


class Server:
    """The programs as ./axis-path serve runs them; can be stopped and started again."""

    def __init__(self, workers=1, exact=True):
        url = make_url(address())
        self.line = Line(url.host, url.port)
        self.database = url.set(port=self.line.port).render_as_string(hide_password=False)
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.workers = workers
        self.exact = "1" if exact else "0"
        self.folder = None
        self.programs = []

    def start(self):
        self.folder = tempfile.TemporaryDirectory(prefix="axispath-")
        # For its programs alone: other tests of this process have their own exact forms.
        with unittest.mock.patch.dict(os.environ, {"AXISPATH_EXACT": self.exact}):
            self.programs = web_programs(
                Path(self.folder.name), self.database, SECRET, "127.0.0.1", self.port, self.workers
            )
            for program in self.programs:
                program.start()
        for _ in range(2400):
            try:
                urllib.request.urlopen(f"{self.url}/", timeout=1)
                return
            except OSError:
                time.sleep(0.05)
        raise RuntimeError("the server did not start")

    def stop(self):
        for program in reversed(self.programs):
            program.stop()
        self.folder.cleanup()


@cache
def running_server(exact):
    """A server for all tests of this process that want the same."""
    server = Server(exact=exact)
    server.start()
    atexit.register(server.stop)
    return server


@cache
def running_browser():
    """A browser for all tests of this process."""
    playwright = sync_playwright().start()
    atexit.register(playwright.stop)
    browser = playwright.chromium.launch(**CHROMIUM)
    atexit.register(browser.close)
    return browser


@cache
def running_context():
    """A profile that keeps what it has fetched: each script anew is most of a short test's time."""
    context = running_browser().new_context(viewport=SIZE)
    context.set_default_timeout(WAIT * 1000)
    return context


heard = {}  # the test that hears what a page complains of
shared = set()  # pages that one test after the other gets: a new one takes longer than a short test


def listened(page):
    """A page whose errors and messages reach the test that has it."""

    def failed(error):
        if page in heard:
            heard[page].complaints.append(str(error))

    page.on("pageerror", failed)
    page.on("console", lambda message: page in heard and heard[page].heard(message))
    return page


def running_page(context):
    """The page that tests share, as it was at first."""
    found = next((page for page in shared if not page.is_closed()), None)
    if found is None:
        shared.clear()
        found = listened(context.new_page())
        shared.add(found)
    if found.viewport_size != SIZE:
        found.set_viewport_size(SIZE)
    found.emulate_media(color_scheme="null", media="null", reduced_motion="null")
    found.bring_to_front()
    return found


class BrowserTest(Case):
    """Each test gets a profile without a person in it, each class a database with the demo sheets.

    Exact forms take more time than all else together; classes that look at them ask for them.
    """

    exact = False

    @classmethod
    def setUpClass(cls):
        empty_store().engine.dispose()
        load_demo(address())
        cls.server = running_server(cls.exact)
        cls.browser = running_browser()
        expect.set_options(timeout=WAIT * 1000)

    def setUp(self):
        self.context = running_context()
        self.addCleanup(self._leave)
        self.complaints = []
        self.page = running_page(self.context)
        heard[self.page] = self
        self._forget()

    def _forget(self):
        """Empty everything that a page may have stored; what it has fetched may stay."""
        self.context.clear_cookies()
        line = self.context.new_cdp_session(self.page)
        kinds = {"origin": self.server.url, "storageTypes": "local_storage,indexeddb"}
        line.send("Storage.clearDataForOrigin", kinds)
        line.detach()

    def _leave(self):
        """Close all pages but the one that tests share, and take back what was set."""
        self.context.clear_permissions()
        self.context.set_offline(False)
        for page in self.context.pages:
            heard.pop(page, None)
            if page not in shared:
                page.close()
                continue
            page.unroute_all(behavior="ignoreErrors")
            page.mouse.move(0, 0)
            if page.url.startswith(self.server.url):
                page.evaluate("sessionStorage.clear()")
            page.goto("about:blank")

    def new_page(self):
        page = listened(self.context.new_page())
        heard[page] = self
        return page

    def own_page(self):
        """A page that no other test gets, for what cannot be taken back."""
        self.page = self.new_page()

    def heard(self, message):
        # The browser reports every answer that is not 2xx, which is part of the story, and that
        # these tests read pixels.
        expected = ("Failed to load resource", "readback operations using getImageData")
        if message.type in ("error", "warning") and not any(e in message.text for e in expected):
            self.complaints.append(message.text)

    def tearDown(self):
        self.assertEqual(self.complaints, [])

    # What a student does

    def open(self, path="/"):
        self.page.goto(self.server.url + path)
        expect(self.page.locator(".status")).not_to_be_empty()

    def type_line(self, text):
        self.page.fill("#entry", text)
        self.page.press("#entry", "Enter")

    def turn_to(self, page):
        """A page of the desk, with the script that comes with its first opening."""
        self.page.get_by_role("tab", name=page).click()
        expect(self.page.locator(".desk [inert]")).to_have_count(0)

    def visitor(self):
        """Somebody else's browser."""
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        context.set_default_timeout(WAIT * 1000)
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        return page

    def open_with(self, *lines):
        """A sheet that has these lanes already: typing them one by one takes its time."""
        request, url = self.context.request, self.server.url
        page = request.get(f"{url}/").text()
        answer = request.post(
            f"{url}/api/sheets",
            data={"source": "blank", "edits": [{"do": "add lane", "text": line} for line in lines]},
            headers={"X-CSRFToken": TOKEN.search(page)[1], "Referer": f"{url}/"},
        )
        self.assertTrue(answer.ok, answer.text())
        key = answer.json()["id"]
        self.open(f"/sheet/{key}")
        expect(self.page.locator(".lane")).to_have_count(len(lines))

    def lane(self, name):
        return self.page.locator(f'.lane[data-name="{name}"]')

    def saved(self, page=None):
        expect((page or self.page).locator(".status")).to_have_text("saved")

    def marks(self, name, kind):
        """x of the landmarks of a kind on the desk's list for a lane."""
        rows = self.page.locator(f'.marks[aria-label="Landmarks of {name}"] tr[data-kind="{kind}"]')
        # All in one go: the list may be replaced while it is being read.
        places = rows.evaluate_all("rows => rows.map(row => row.dataset.x)")
        return [round(float(x), 12) for x in places]

    def at_rest(self, page=None, held=0):
        """Until the page has nothing under way but the requests that a test holds back."""
        under_way = "document.documentElement.dataset.underway ?? 0"
        (page or self.page).wait_for_function(f"held => ({under_way}) <= held", arg=held)

    def frames_shown(self):
        """Until the browser has shown two frames more."""
        self.page.evaluate(
            "() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))"
        )

    def view(self):
        """left, right, bottom, top as the fields show them; NaN while a formula stands there."""
        return [
            _number(self.page.input_value(f"#view-{side}"))
            for side in ("left", "right", "bottom", "top")
        ]

    def pixel(self, x, y):
        """Where a point of the axes is on the plot, in pixels."""
        left, right, bottom, top = self.view()
        box = self.page.locator("#plot").bounding_box()
        across = (x - left) / (right - left) * box["width"]
        return across, (top - y) / (top - bottom) * box["height"]

    def ink(self, x, y, colour, reach=5):
        """Whether the plot has pixels of a colour near a place."""
        return self.page.evaluate(
            """([x, y, colour, reach, view]) => {
              const canvas = document.getElementById("plot");
              const px = Math.round((x - view[0]) / (view[1] - view[0]) * canvas.width);
              const py = Math.round((view[3] - y) / (view[3] - view[2]) * canvas.height);
              const data = canvas.getContext("2d")
                .getImageData(px - reach, py - reach, 2 * reach + 1, 2 * reach + 1).data;
              for (let i = 0; i < data.length; i += 4)
                if (colour.every((c, k) => Math.abs(c - data[i + k]) < 40)) return true;
              return false;
            }""",
            [x, y, colour, reach, self.view()],
        )

    def eventually(self, found, wanted, seconds=WAIT):
        """Wait until ``found()`` equals ``wanted`` (a value, or a function that accepts it)."""
        accept = wanted if callable(wanted) else lambda value: value == wanted
        until = time.monotonic() + seconds
        while not accept(value := found()):
            if time.monotonic() > until:
                self.fail(f"still {value!r}, wanted {wanted!r}")
            self.page.wait_for_timeout(40)
        return value
