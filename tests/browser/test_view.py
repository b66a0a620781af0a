"""Looking around on the plot: by mouse, by keys, by touch."""

import math

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class View(BrowserTest):
    def setUp(self):
        super().setUp()
        self.open()
        self.type_line("x^2 - 3")
        self.eventually(lambda: len(self.marks("f", "zero")), 2)
        self.page.keyboard.press("Escape")
        self.page.locator("#plot").focus()
        self.page.keyboard.press("Home")
        self.eventually(self.view, [-10, 10, -7, 7])
        self.plot = self.page.locator("#plot").bounding_box()

    def at(self, x, y):
        px, py = self.pixel(x, y)
        return self.plot["x"] + px, self.plot["y"] + py

    def drag(self, start, end, steps=5):
        self.page.mouse.move(*start)
        self.page.mouse.down()
        self.page.mouse.move(*end, steps=steps)
        self.page.mouse.up()

    def near(self, *wanted, within=0.06):
        return self.eventually(
            self.view,
            lambda view: all(abs(a - b) <= within for a, b in zip(view, wanted, strict=True)),
        )

    def test_the_picture_moves_with_the_hand_in_the_same_frame(self):
        self.eventually(lambda: self.ink(2, 1, (27, 94, 75)), True)
        self.page.mouse.move(*self.at(4, 2))
        self.page.mouse.down()
        self.page.mouse.move(*self.at(2, 2))
        # One frame later the curve's old picture is drawn two to the left, without any answer.
        moved = self.page.evaluate(
            "() => new Promise(requestAnimationFrame).then("
            "() => document.getElementById('view-left').value)"
        )
        self.assertAlmostEqual(float(moved), -8, delta=0.06)
        self.assertTrue(self.ink(2, 1, (27, 94, 75)))
        self.page.mouse.up()
        self.near(-8, 12, -7, 7)

    def test_one_axis_is_pulled_or_turned_by_its_numbers(self):
        numbers = self.at(0, 3)
        self.drag((numbers[0] - 14, numbers[1]), (numbers[0] - 14, self.at(0, 6)[1]))
        self.near(-10, 10, -3.5, 3.5, within=0.2)
        rail = self.page.locator("#rail").bounding_box()
        y = rail["y"] + rail["height"] / 2
        self.drag((self.at(5, 0)[0], y), (self.at(2.5, 0)[0], y))
        self.near(-20, 20, -3.5, 3.5, within=0.4)
        self.page.mouse.wheel(0, -300)
        self.eventually(lambda: self.view()[1] - self.view()[0], lambda width: width < 30)
        self.near(*self.view()[:2], -3.5, 3.5, within=0.2)

    def test_a_box_and_the_views_before_and_after(self):
        self.page.keyboard.down("Shift")
        self.drag(self.at(1, 3), self.at(5, -1))
        self.page.keyboard.up("Shift")
        self.near(1, 5, -1, 3)
        self.at_rest()
        self.page.locator("#plot").focus()
        self.page.keyboard.press("Backspace")
        self.near(-10, 10, -7, 7)
        self.page.keyboard.press("Shift+Backspace")
        self.near(1, 5, -1, 3)
        self.page.keyboard.press("b")
        expect(self.page.get_by_role("button", name="box")).to_have_attribute(
            "aria-pressed", "true"
        )
        self.drag(self.at(2, 2), self.at(3, 1))
        self.near(2, 3, 1, 2, within=0.03)

    def test_keys_zoom_each_axis_and_make_scales_equal(self):
        self.page.keyboard.press("x")
        self.eventually(
            lambda: self.view()[1] - self.view()[0], lambda width: abs(width - 16) < 0.1
        )
        self.page.keyboard.press("Y")
        self.eventually(
            lambda: self.view()[3] - self.view()[2], lambda height: abs(height - 17.5) < 0.1
        )
        self.page.keyboard.press("e")
        ratio = self.plot["width"] / self.plot["height"]
        self.eventually(
            lambda: (self.view()[1] - self.view()[0]) / (self.view()[3] - self.view()[2]),
            lambda found: abs(found - ratio) < 0.02,
        )
        expect(self.page.get_by_role("button", name="Undo equal scale")).to_be_enabled()
        self.page.keyboard.press("g")
        expect(self.page.locator("select[x-model='ground.grid']")).to_have_value("coarse")

    def test_two_fingers_zoom_and_a_long_press_opens_a_lane(self):
        context = self.browser.new_context(
            viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True
        )
        self.addCleanup(context.close)
        self.page = page = context.new_page()
        self.open("/demo/ferry-window")
        box = page.locator("#plot").bounding_box()
        session = context.new_cdp_session(page)
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

        def touch(kind, *points):
            touches = [{"x": px, "y": py, "id": k} for k, (px, py) in enumerate(points)]
            session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches})

        before = self.view()
        touch("touchStart", (x - 30, y), (x + 30, y))
        for spread in (40, 50, 60):
            touch("touchMove", (x - spread, y), (x + spread, y))
        touch("touchEnd")
        width = before[1] - before[0]
        self.eventually(
            lambda: self.view()[1] - self.view()[0], lambda w: abs(w - width / 2) < width / 20
        )
        strip = page.locator('.lane[data-name="h"] .strip').bounding_box()
        middle = strip["x"] + strip["width"] / 2, strip["y"] + strip["height"] / 2
        touch("touchStart", middle)
        # The press is long enough when the menu is there; lifting the finger leaves it there.
        expect(page.locator('.lane[data-name="h"] .lane-more')).to_be_visible()
        touch("touchEnd")
        self.at_rest(page)
        expect(page.locator('.lane[data-name="h"] .lane-more')).to_be_visible()
        for handle in page.locator(".handle, .thumb").all():
            size = handle.bounding_box()
            self.assertGreaterEqual(min(size["width"], size["height"]), 39.5)

    def test_limits_are_formulas_and_nonsense_is_named(self):
        self.page.fill("#view-left", "-2π")
        self.page.press("#view-left", "Enter")
        self.near(-2 * math.pi, 10, -7, 7)
        self.page.fill("#view-left", "10")
        self.page.press("#view-left", "Enter")
        expect(self.page.locator(".view .why")).to_be_visible()
        self.near(*[10, 10, -7, 7])
        for width in ("1e-12", "1e12"):
            self.page.fill("#view-left", f"-{width}")
            self.page.fill("#view-right", width)
            self.page.press("#view-right", "Enter")
            self.eventually(lambda: self.view()[1], float(width))
            expect(self.page.locator(".view .why")).to_be_hidden()


class Fidelity(BrowserTest):
    SPRUCE = (27, 94, 75)

    def test_sharp_at_two_pixels_to_one_and_no_ink_between_branches(self):
        context = self.browser.new_context(
            viewport={"width": 1280, "height": 800}, device_scale_factor=2
        )
        self.addCleanup(context.close)
        self.page = context.new_page()
        self.open()
        self.type_line("1/x")
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.ink(2, 0.5, self.SPRUCE), True)
        box = self.page.locator("#plot").bounding_box()
        self.assertEqual(
            self.page.evaluate("document.getElementById('plot').width"), 2 * box["width"]
        )
        for y in (-6, -2, 3, 6.5):
            # Between the branch and the asymptote, and on the far side of it.
            for x in (0.06, -0.06):
                self.assertFalse(self.ink(x, y, self.SPRUCE, reach=1), (x, y))

    def test_ends_of_an_open_domain_are_hollow(self):
        self.open()
        self.type_line("x for -2 < x <= 3")
        self.eventually(lambda: self.ink(3, 3, self.SPRUCE, reach=1), True)
        # The curve is drawn first; its ends are found with its landmarks.
        self.eventually(lambda: self.ink(-2, -2, self.SPRUCE, reach=1), False)
        self.assertTrue(self.ink(-2, -2, self.SPRUCE, reach=6))

    def test_what_is_denser_than_pixels_is_a_band(self):
        self.open()
        self.type_line("4 sin(1000x)")
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.view(), [-10, 10, -7, 7])
        # The band is translucent: everything between −4 and 4 has the same tint.
        tint = tuple(
            round(0.45 * a + 0.55 * b) for a, b in zip(self.SPRUCE, (255, 253, 248), strict=True)
        )
        self.eventually(
            lambda: all(
                self.ink(x, y, tint, 2) for x in (-9.3, -5, 2.2, 7.7) for y in (-3.4, 0.6, 3.4)
            ),
            True,
        )
        self.assertFalse(self.ink(2.2, 4.4, tint, 2))

    def test_a_lane_from_samples_shows_the_line_they_suggest(self):
        self.open()
        self.type_line("3 sin(2π x) for 0 <= x <= 8")
        self.page.locator("#plot").press("Home")
        lane = self.lane("f")
        lane.get_by_role("button", name="More for f").click()
        lane.get_by_label("Draw f from samples").select_option("count")
        lane.locator('[data-samples="amount"]').fill("9")
        lane.locator('[data-samples="amount"]').press("Enter")
        # Nine samples of eight whole turns lie on the axis: a straight line.
        self.eventually(lambda: self.ink(4.6, 0, self.SPRUCE, 2), True)
        self.eventually(lambda: self.ink(4.25, 2.9, self.SPRUCE, 3), False)
        expect(self.page.get_by_role("button", name="Undo the samples of f")).to_be_enabled()
        lane.locator('[data-samples="amount"]').fill("0")
        lane.locator('[data-samples="amount"]').press("Enter")
        expect(lane.locator(".lane-more .why")).to_contain_text("from 2 to")
