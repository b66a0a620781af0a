"""Practising in a real browser: landmarks found, curves matched, questions written."""

import math
import re

from playwright.sync_api import expect

from tests.browser.harness import BrowserTest


class Practise(BrowserTest):
    def practise(self):
        self.turn_to("Practise")
        expect(self.page.locator(".covering, .guessing, .questions").first).to_be_attached()

    def cover(self):
        self.page.get_by_text("Cover landmarks").click()
        self.page.get_by_label("cover them").check()
        expect(self.page.locator(".guessing")).to_be_visible()

    def guess(self, text):
        before = self.page.locator(".guessing .try").count()
        self.page.get_by_label("at", exact=True).fill(text)
        self.page.get_by_role("button", name="Is it there?").click()
        expect(self.page.locator(".guessing .try")).to_have_count(before + 1)
        return self.page.locator(".guessing .try").first

    def question(self, number=1):
        return self.page.locator(".question").nth(number - 1)

    def answer(self, text, number=1):
        one = self.question(number)
        one.locator("[name=text]").fill(text)
        one.get_by_role("button", name="Answer").click()
        return one.locator(".try").first

    def write(self, kind, **fields):
        form = self.page.locator(".question-form")
        if not form.evaluate("one => one.open"):
            form.locator("summary").click()
        form.get_by_label("Kind").select_option(label=kind)
        for name, value in fields.items():
            field = form.locator(f"[name={name}]")
            if field.evaluate("one => one.localName") == "select":
                field.select_option(value)
            else:
                field.fill(value)
        return form

    def keep(self, form, count):
        form.get_by_role("button", name="Keep the question").click()
        expect(self.page.locator(".question")).to_have_count(count)

    def test_a_student_finds_all_zeros_with_two_hints(self):
        self.open_with("f(x) = (x^2 - 3)(x - 5)/4")
        self.practise()
        self.cover()
        # Nothing of it is left on the page: neither marks nor rows nor words.
        expect(self.page.locator(".lanes-foot")).to_contain_text("landmarks are covered")
        self.page.get_by_role("tab", name="Landmarks").click()
        expect(self.page.locator("#landmarks tr[data-mark]")).to_have_count(0)
        self.assertNotIn("1.732", self.page.content())
        self.page.get_by_role("tab", name="Practise").click()
        self.page.get_by_label("I look for").select_option("zeros")
        self.page.get_by_role("button", name="how many there are").click()
        tries = self.page.locator(".guessing .try")
        expect(tries.first).to_contain_text("3 zeros of f")
        self.page.get_by_role("button", name="between which numbers").click()
        expect(tries.first).to_contain_text("lies between x =")
        expect(self.guess("1.5")).to_contain_text("a little to the right")
        expect(self.guess("2.6")).to_contain_text("f(2.6) is")
        expect(self.guess("√3")).to_contain_text("Yes: a zero of f")
        self.eventually(lambda: self.marks("f", "zero"), [round(3**0.5, 12)])
        expect(self.guess("√3")).to_contain_text("already")
        expect(self.guess("-1.73")).to_contain_text("Yes")
        # The last one by a click on the plot.
        self.page.get_by_role("button", name="point at it").click()
        px, py = self.pixel(5, 0)
        self.page.locator("#plot").click(position={"x": px, "y": py})
        expect(tries.first).to_contain_text("Yes: a zero of f, at x = 5")
        # Undo takes the cover off, and loses no try; redo covers again what was not found.
        self.page.get_by_role("button", name="Undo covering landmarks").click()
        self.eventually(lambda: len(self.marks("f", "maximum")), 1)
        self.page.get_by_role("button", name="Redo").click()
        self.eventually(
            lambda: (len(self.marks("f", "zero")), len(self.marks("f", "maximum"))), (3, 0)
        )
        self.page.reload()
        self.turn_to("Practise")
        expect(tries).to_have_count(8)

    def test_a_click_on_a_strip_and_a_row_of_the_table_are_guesses(self):
        self.open_with("f(x) = x^2 - 4")
        self.practise()
        self.cover()
        self.page.get_by_role("button", name="point at it").click()
        strip = self.lane("f").locator(".strip")
        box, plot = strip.bounding_box(), self.page.locator("#plot").bounding_box()
        x = plot["x"] + self.pixel(2, 0)[0] - box["x"]
        strip.click(position={"x": x, "y": box["height"] / 2})
        tries = self.page.locator(".guessing .try")
        expect(tries.first).to_contain_text("a zero of f, at x = 2")
        self.page.get_by_role("tab", name="Values").click()
        self.page.locator('#values [data-x="-2"]').first.click()
        self.page.get_by_role("tab", name="Practise").click()
        expect(tries).to_have_count(2)
        expect(tries.first).to_contain_text("a zero of f, at x = −2")

    def test_a_curve_is_brought_onto_another(self):
        self.open_with("f(x) = (x - b)^2 - 1", "b = 2")
        self.practise()
        form = self.write("bring a curve onto a faint one")
        self.keep(form, 1)
        slider = self.page.get_by_role("slider", name="b", exact=True)
        slider.focus()
        for _ in range(3):
            self.page.keyboard.press("PageDown")
        self.saved()
        there = self.question().get_by_role("button", name="The sliders are there")
        there.click()
        tries = self.question().locator(".try")
        expect(tries.first).to_contain_text("apart at most in the view")
        # The faint curve is on the plot where the sliders were.
        spruce = (27, 94, 75)
        self.eventually(lambda: self.faint(2, -1, spruce), True)
        expect(self.answer_typed("(x - 2)(x - 2) - 1")).to_contain_text("the same function")
        expect(self.answer_typed("(x - 2)^2 - 1.001")).to_contain_text("yours is")
        slider.focus()
        for _ in range(3):
            self.page.keyboard.press("PageUp")
        self.question().locator("[name=text]").fill("")
        there.click()
        expect(tries.first).to_contain_text("Right: it is the same function")

    def answer_typed(self, text):
        self.question().locator("[name=text]").fill(text)
        self.question().get_by_role("button", name="The sliders are there").click()
        return self.question().locator(".try", has_text=text).first

    def faint(self, x, y, colour):
        """Whether there is ink that is a blend of a colour and the ground."""
        left, right, bottom, top = self.view()
        return self.page.evaluate(
            """([px, py, colour]) => {
              const canvas = document.getElementById("plot");
              const x = Math.round(px * canvas.width), y = Math.round(py * canvas.height);
              const data = canvas.getContext("2d").getImageData(x - 6, y - 6, 13, 13).data;
              for (let i = 0; i < data.length; i += 4)
                if (data[i] < 200 && data[i] > colour[0] + 20 && data[i + 1] > data[i]) return true;
              return false;
            }""",
            [(x - left) / (right - left), (top - y) / (top - bottom), colour],
        )

    def test_questions_are_written_with_a_preview_and_answered(self):
        self.open_with("f(x) = x^2 - 4x + 1", "g(x) = √(x + 2)")
        self.practise()
        form = self.write("find all landmarks of a kind", words="Where does f cross the axis?")
        expect(form.locator(".question-asked")).to_have_text("Where does f cross the axis?")
        form.locator("[name=try]").fill("2 ± √3")
        expect(form.locator("[data-tried]")).to_contain_text("That is all of them")
        self.keep(form, 1)
        lane = self.lane("g").get_attribute("data-lane")
        self.keep(self.write("give the domain of a function", lane=lane), 2)
        self.keep(self.write("fill a column", lane=lane, places="2, -3"), 3)
        form = self.write("recognise a curve", options="x^2\n(x - 2)^2 - 3")
        expect(form.locator(".question-asked")).to_contain_text("curve of f")
        self.keep(form, 4)
        wrong = self.write("solve an equation or inequality", text="x + y = z")
        expect(wrong.locator(".why")).to_contain_text("Which is the unknown")
        expect(self.answer("2 + √3")).to_contain_text("still missing")
        expect(self.answer("0.27, 3.73")).to_contain_text("That is all of them")
        expect(self.answer("x > -2", 2)).to_contain_text("is missing from your answer")
        expect(self.answer("[-2, ∞)", 2)).to_contain_text("Right")
        rows = self.question(3)
        rows.get_by_label("Value at 2").fill("2")
        rows.get_by_label("Value at -3").fill("none")
        rows.get_by_role("button", name="Answer").click()
        expect(rows.locator(".try").first).to_contain_text("Right: every row")
        which = self.question(4)
        which.get_by_label("x^2", exact=True).check()
        which.get_by_role("button", name="Answer").click()
        expect(which.locator(".try").first).to_contain_text("the curve is")
        which.get_by_label("(x - 2)^2 - 3").check()
        which.get_by_role("button", name="Answer").click()
        expect(which.locator(".try").first).to_contain_text("Right")
        # A question is changed, moved and deleted, and each of these is undone like any change.
        self.question(2).get_by_role("button", name="up").click()
        expect(self.question(1)).to_contain_text("has g a value")
        self.question(1).get_by_role("button", name="delete").click()
        expect(self.page.locator(".question")).to_have_count(3)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.locator(".question")).to_have_count(4)


class Hearing(BrowserTest):
    """What is heard is rendered into memory, and compared with the path."""

    RENDER = """async ([key, head, view, lane, how]) => {
      const token = document.querySelector('meta[name="csrf-token"]').content;
      const answer = await fetch(`/api/sheets/${key}/hear`, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-CSRFToken": token },
        body: JSON.stringify({ head, view, lane }),
      });
      const heard = await answer.json();
      const main = [...document.scripts].find((one) => one.src.includes("/js/main.js")).src;
      const base = main.replace("main.js", "");
      const { courseOf } = await import(base + "hear/course.js");
      const { schedule } = await import(base + "hear/sound.js");
      const course = courseOf(heard, view, how);
      const rate = 22050;
      const context = new OfflineAudioContext(2, Math.ceil(rate * (course.seconds + 0.2)), rate);
      schedule(context, course, 0, "sine");
      const buffer = await context.startRendering();
      const [left, right] = [0, 1].map((side) => [...buffer.getChannelData(side)]);
      return { heard, course, rate, left, right };
    }"""

    def render(self, lane="f", **how):
        page = self.page
        key = page.locator(".sheet-page").get_attribute("data-key")
        key = page.evaluate("location.pathname").split("/")[-1] or key
        left, right, bottom, top = self.view()
        view = {"left": left, "right": right, "bottom": bottom, "top": top}
        head = page.evaluate(
            "async (key) => (await (await fetch(`/api/sheets/${key}`)).json()).head", key
        )
        which = self.lane(lane).get_attribute("data-lane")
        how = {"speed": "quick", "backwards": False, **how}
        return page.evaluate(self.RENDER, [key, head, view, which, how]), view

    def pitch(self, found, at, span=0.06):
        """The pitch of the sound around a moment, by its changes of sign, upwards only."""
        rate = found["rate"]
        start, stop = int((at - span / 2) * rate), int((at + span / 2) * rate)
        part = [
            a + b
            for a, b in zip(found["left"][start:stop], found["right"][start:stop], strict=True)
        ]
        ups = [k for k in range(1, len(part)) if part[k - 1] < 0 <= part[k]]
        return rate * (len(ups) - 1) / (ups[-1] - ups[0]) if len(ups) > 2 else 0.0

    def loud(self, found, at, span=0.03):
        rate = found["rate"]
        start, stop = int((at - span / 2) * rate), int((at + span / 2) * rate)
        return max(abs(v) for side in ("left", "right") for v in found[side][start:stop])

    def test_pitch_follows_the_height_and_the_side_follows_x(self):
        self.open_with("f(x) = x/2")
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.view()[0], -10)
        found, view = self.render()
        for share in (0.1, 0.3, 0.7, 0.9):
            x = view["left"] + share * (view["right"] - view["left"])
            height = (x / 2 - view["bottom"]) / (view["top"] - view["bottom"])
            wanted = 165 * 2 ** (3 * height)
            heard = self.pitch(found, 2 * share)
            self.assertLess(abs(heard / wanted - 1), 0.03, (share, heard, wanted))

        # From the left ear to the right one.
        def level(side, at):
            k = int(at * found["rate"])
            return max(abs(v) for v in found[side][k - 400 : k + 400])

        self.assertGreater(level("left", 0.2), 3 * level("right", 0.2))
        self.assertGreater(level("right", 1.8), 3 * level("left", 1.8))
        backwards, _ = self.render(backwards=True)
        self.assertGreater(self.pitch(backwards, 0.2), self.pitch(backwards, 1.8))

    def test_ticks_are_the_landmarks_of_the_path(self):
        self.open_with("f(x) = x^3/8 - 2x")
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.view()[0], -10)
        found, view = self.render()
        ticks = [(tick["kind"], round(tick["at"], 6)) for tick in found["course"]["ticks"]]
        wanted = []
        self.eventually(lambda: len(self.marks("f", "zero")), 3)
        for kind in ("zero", "maximum", "minimum", "inflection", "y-intercept"):
            for x in self.marks("f", kind):
                wanted.append((kind, round(2 * (x - view["left"]) / 20, 6)))
        self.assertEqual(sorted(ticks), sorted(wanted))

    def test_there_is_a_breath_where_there_is_no_value_and_a_gap_at_a_pole(self):
        self.open_with("f(x) = √x", "g(x) = 1/(x - 5)")
        self.page.locator("#plot").press("Home")
        self.eventually(lambda: self.view()[0], -10)
        found, _ = self.render()
        self.assertTrue(all(tone["pitch"] is None for tone in found["course"]["tones"][:199]))
        breath, tone = self.loud(found, 0.5), self.loud(found, 1.5)
        self.assertTrue(0.002 < breath < tone / 3, (breath, tone))
        torn, _ = self.render("g")
        self.assertEqual([round(gap, 6) for gap in torn["course"]["gaps"]], [1.5])
        # Just before the pole itself, which ticks.
        self.assertLess(self.loud(torn, 1.49, 0.008), self.loud(torn, 1.2, 0.01) / 4)

    CHORD = """async (pitches) => {
      const main = [...document.scripts].find((one) => one.src.includes("/js/main.js")).src;
      const { chordOf } = await import(main.replace("main.js", "hear/sound.js"));
      const context = new OfflineAudioContext(1, 22050, 22050);
      const chord = chordOf(context);
      chord.sound(new Map(pitches.map((pitch, k) => [`lane${k}`, pitch])));
      return [...(await context.startRendering()).getChannelData(0)];
    }"""

    def test_a_chord_has_the_pitch_of_every_lane(self):
        self.open()
        heard = self.page.evaluate(self.CHORD, [220, 330, 495])[4410:]
        strength = {}
        for pitch in (220, 330, 495, 260, 400, 590):
            turns = [2 * math.pi * pitch * k / 22050 for k in range(len(heard))]
            across = sum(v * math.cos(t) for v, t in zip(heard, turns, strict=True))
            up = sum(v * math.sin(t) for v, t in zip(heard, turns, strict=True))
            strength[pitch] = math.hypot(across, up)
        quiet = max(strength[pitch] for pitch in (260, 400, 590))
        for pitch in (220, 330, 495):
            self.assertGreater(strength[pitch], 10 * quiet, strength)

    def test_it_is_asked_for_by_a_key_and_stops_at_landmarks_with_words(self):
        self.open_with("f(x) = x - 1")
        self.page.locator("#plot").press("u")
        play = self.page.locator("#hear-play")
        expect(play).to_be_focused()
        expect(play).to_have_text("Hear it")
        self.page.get_by_label("speed").select_option("quick")
        self.page.keyboard.press("Tab")
        play.press("Enter")
        expect(self.page.locator(".hear-words")).to_have_text(
            re.compile("zero of f at 1|y-intercept")
        )
        self.page.keyboard.press("Escape")
        expect(play).to_be_hidden()

    def test_a_browser_without_sound_says_so(self):
        self.own_page()
        self.page.add_init_script("delete window.AudioContext; window.AudioContext = undefined;")
        self.open_with("f(x) = x - 1")
        self.page.locator("#plot").press("u")
        self.page.locator("#hear-play").click()
        expect(self.page.locator(".hear .why")).to_contain_text("no sound")
