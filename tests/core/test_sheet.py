import math

from pydantic import ValidationError

from axispath.core.path.framing import frame, settled
from axispath.core.path.kinds import SEARCHED
from axispath.core.path.lanes import Effort, path_of
from axispath.core.path.survey import crossings, survey
from axispath.core.search.landmark import Kind
from axispath.core.sheet.document import Document, Lane, Slider, Table, View
from axispath.core.sheet.edits import (
    EDITS,
    AddLane,
    DuplicateLane,
    MoveLane,
    RemoveLane,
    Rename,
    ReviseLane,
    SetDomain,
    SetSlider,
    SetUnit,
    ShowLane,
    Slide,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.sliders import is_slider, slider_range
from axispath.core.table.rows import TableRefused, places
from axispath.core.table.values import column
from axispath.core.table.words import explain_empty, in_words
from axispath.demo.harbour import DEMOS
from tests.case import Case


def sheet(*lines, **settings):
    document = Document(**settings)
    for number, line in enumerate(lines):
        document = apply(document, AddLane(text=line, id=f"lane{number}"))
    return document


def lanes(document):
    return {lane.name: lane for lane in resolve(document)}


def value(document, name, x):
    import numpy as np

    return float(column(lanes(document)[name], np.array([float(x)])).values[0])


class Naming(Case):
    def test_expressions_get_the_next_free_letter(self):
        document = sheet("x", "x + 1", "h(x) = 2", "x^2")
        self.assertEqual(list(lanes(document))[:4], ["f", "g", "h", "j"])

    def test_a_name_somebody_waits_for_is_not_given_by_chance(self):
        document = sheet("k(x) = f + x", "x^2")
        self.assertEqual(list(lanes(document)), ["k", "g"])

    def test_a_name_is_defined_once(self):
        for line in ("f(x) = 2", "f = 2"):
            with self.assertRaises(EditRefused) as caught:
                apply(sheet("x"), AddLane(text=line))
            self.assertIn("defined in another lane", caught.exception.message)


class Dependencies(Case):
    def test_order_does_not_matter_and_nothing_is_stale(self):
        document = sheet("g(x) = f(x) + a", "a = 2b", "b = 3", "f(x) = x^2")
        self.assertEqual(value(document, "g", 2), 10)
        document = apply(document, ReviseLane(id="lane2", text="b = 5"))
        self.assertEqual(value(document, "g", 2), 14)
        document = apply(document, ReviseLane(id="lane3", text="f(x) = x^3"))
        self.assertEqual(value(document, "g", 2), 18)

    def test_a_missing_name_makes_a_lane_wait_and_deleting_makes_it_wait_again(self):
        document = sheet("g(x) = a x", "a = 2")
        self.assertEqual(lanes(sheet("g(x) = a x"))["g"].missing, ("a",))
        self.assertEqual(lanes(document)["g"].missing, ())
        document = apply(document, RemoveLane(id="lane1"))
        self.assertEqual(lanes(document)["g"].missing, ("a",))
        self.assertEqual(document.lanes[0].text, "g(x) = a x")

    def test_circles_are_refused_and_named(self):
        for lines, told in [
            (("f(x) = f(x) + 1",), "f is defined by itself"),
            (("f(x) = g(x)", "g(x) = f(x)"), "g needs f needs g"),
            (("a = b", "b = c", "c = a"), "c needs a needs b needs c"),
        ]:
            with self.assertRaises(EditRefused) as caught:
                sheet(*lines)
            self.assertIn(told, caught.exception.message)

    def test_a_called_function_keeps_its_domain(self):
        document = sheet("f(x) = x^2 for 0 <= x <= 2", "g(x) = f(x) + 1")
        self.assertEqual(value(document, "g", 1), 2)
        self.assertTrue(math.isnan(value(document, "g", 3)))

    def test_doubling_chains_stay_cheap(self):
        lines = ["f_0(x) = x"]
        lines += [f"f_{n}(x) = f_{n - 1}(x) + f_{n - 1}(x)" for n in range(1, 60)]
        self.assertEqual(value(sheet(*lines), "f_59", 1), 2.0**59)

    def test_an_edit_that_would_break_another_lane_is_refused(self):
        document = sheet("f(x) = x^2", "g(x) = f(3x)")
        with self.assertRaises(EditRefused):
            apply(document, ReviseLane(id="lane0", text="f(x, y) = x y"))


class Messages(Case):
    def test_a_wrong_number_of_arguments_is_told_with_the_signature(self):
        with self.assertRaises(EditRefused) as caught:
            sheet("volume(r, h) = π r^2 h", "k = volume(2)")
        self.assertIn(
            "volume takes 2 arguments, but one is given: volume(r, h)", str(caught.exception)
        )


class Cost(Case):
    def test_numbers_that_cannot_be_held_are_refused(self):
        for line in ("9^9^9^9^9", "x + 10^400", "f(x) = x^99999999999"):
            with self.assertRaises(EditRefused) as caught:
                sheet(line)
            self.assertIn("too large", caught.exception.message)
        # What no curve can hold is a calculation.
        self.assertTrue(resolve(sheet("a = exp(1000)")).lanes[0].lane.working)

    def test_many_hard_lanes_share_one_budget(self):
        document = sheet(*(f"sin({900 + n} x)" for n in range(40)))
        shown = resolve(document).shown(SEARCHED)
        effort = Effort(8_000)
        spent = sum(effort.budget(len(shown)).left for _ in shown)
        self.assertLessEqual(spent, 40_000)
        path = path_of(shown[0], -10, 10, effort, len(shown))
        self.assertFalse(path.complete)


class Edits(Case):
    def test_an_edit_leaves_the_old_document_alone(self):
        before = sheet("x^2")
        after = apply(before, ReviseLane(id="lane0", text="x^3"))
        self.assertEqual(before.lanes[0].text, "x^2")
        self.assertEqual(after.lanes[0].text, "x^3")

    def test_domains_are_rewritten_and_the_formula_is_kept_as_typed(self):
        document = sheet("g(x)=2sin( 3x ) for -2<=x<4")
        for edit, text in [
            (SetDomain(id="lane0", high="5"), "g(x)=2sin( 3x ) for -2 <= x < 5"),
            (SetDomain(id="lane0", low="-2π"), "g(x)=2sin( 3x ) for -2π <= x < 4"),
            (SetDomain(id="lane0", low=""), "g(x)=2sin( 3x ) for x < 4"),
            (SetDomain(id="lane0", low="", high=""), "g(x)=2sin( 3x )"),
        ]:
            self.assertEqual(apply(document, edit).lanes[0].text, text)
        for end in ("9", "x +", "1/0"):
            with self.assertRaises(EditRefused):
                apply(document, SetDomain(id="lane0", low=end))

    def test_every_edit_says_what_it_does(self):
        document = sheet("g(x) = x")
        for edit, words in [
            (AddLane(text="x"), "adding a lane"),
            (RemoveLane(id="lane0"), "deleting g"),
            (ShowLane(id="lane0", shown=False), "hiding g"),
            (SetUnit(unit="deg"), "the angle unit"),
            (Rename(name="Tides"), "the sheet’s name"),
        ]:
            self.assertEqual(edit.words(document), words)
            self.assertNotEqual(apply(document, edit), document)

    def test_unknown_lanes_and_strange_requests_are_refused(self):
        with self.assertRaises(EditRefused):
            apply(sheet(), RemoveLane(id="nope"))
        for raw in (
            [],
            [{"do": "format disk"}],
            [{"do": "rename"}],
            [{"do": "add lane", "text": 3}],
        ):
            with self.assertRaises(ValidationError):
                EDITS.validate_python(raw)

    def test_a_document_survives_its_own_schema(self):
        for make in DEMOS.values():
            document = make()
            self.assertEqual(Document.model_validate_json(document.model_dump_json()), document)

    def test_impossible_views_are_refused(self):
        for limits in (
            {"left": 1, "right": 1},
            {"left": 2, "right": 1},
            {"left": -1e300, "right": 1e300},
            {"left": 0, "right": math.inf},
            {"left": 1e6, "right": 1e6 + 1e-9},
        ):
            with self.assertRaises(ValidationError):
                View(**limits)

    def test_two_hundred_lanes_and_no_more(self):
        lanes = (Lane(id=f"lane{n}", text=f"f_{n}(x) = x + {n}") for n in range(199))
        document = apply(Document(lanes=tuple(lanes)), AddLane(text="f_200(x) = x"))
        with self.assertRaises(EditRefused):
            apply(document, AddLane(text="x"))


class Looking(Case):
    def test_the_first_function_is_framed_and_later_ones_do_not_move_a_good_view(self):
        document = settled(Document(), sheet("x^2 - x - 3"))
        view = document.view
        self.assertTrue(
            view.left < -1.31 and view.right > 2.31 and view.bottom < -3.25 and view.top > 0
        )
        after = settled(document, apply(document, AddLane(text="x")))
        self.assertEqual(after.view, view)

    def test_a_chosen_view_is_never_moved(self):
        before = Document(view=View(left=0, right=1, bottom=0, top=1, chosen=True))
        self.assertEqual(
            settled(before, apply(before, AddLane(text="x^2 - 400"))).view, before.view
        )

    def test_frames_show_what_matters(self):
        for line, x, y in [("x - 50", 50, 0), ("(x - 3)^2 + 100", 3, 100), ("10000x^2 - 5", 0, -5)]:
            view = frame(resolve(sheet(line)).shown(SEARCHED))
            self.assertTrue(
                view.left < x < view.right and view.bottom <= y <= view.top, (line, view)
            )
        view = frame(resolve(sheet("x^2 - 1/x")).shown(SEARCHED))
        self.assertLess(view.top - view.bottom, 1000)  # a pole does not squash the rest
        self.assertIsNone(frame(resolve(sheet("1/0")).shown(SEARCHED)))

    def test_crossings_of_the_ferry_window(self):
        document = DEMOS["ferry-window"]()
        (crossing,) = crossings(resolve(document).shown(SEARCHED), View(left=-2, right=26))
        quarter = 12.4 / (2 * math.pi) * math.asin(0.5 / 1.4)
        wanted = [2 - quarter, 8.2 + quarter, 14.4 - quarter, 20.6 + quarter]
        for mark, true in zip(crossing.path.landmarks, wanted, strict=True):
            self.assertAlmostEqual(mark.x, true, 12)
            self.assertAlmostEqual(mark.y, 2.6, 12)
        self.assertTrue(crossing.path.complete)

    def test_landmarks_of_derivatives_and_of_functions_of_functions(self):
        found = lanes(sheet("f(x) = x^3 - 3x", "g(x) = f'(x)", "h(x) = f(f(x))"))
        self.assertEqual([m.x for m in path_of(found["g"], -3, 3).of(Kind.ZERO)], [-1, 1])
        # f(f(x)) = 0 where f(x) is 0 or ±√3: three simple solutions each.
        self.assertEqual(len(path_of(found["h"], -3, 3).of(Kind.ZERO)), 9)

    def test_degrees_reach_landmarks_and_values(self):
        document = apply(sheet("sin x for 0 <= x <= 360"), SetUnit(unit="deg"))
        marks = path_of(lanes(document)["f"], -10, 10).of(Kind.ZERO)
        self.assertEqual([m.x for m in marks], [0, 180, 360])
        self.assertAlmostEqual(value(document, "f", 30), 0.5, 15)

    def test_an_empty_plot_is_explained(self):
        for document, told in [
            (sheet("y = 1/0"), "undefined everywhere"),
            (sheet("x^2 + 100"), "above this view"),
            (sheet("x for 50 <= x <= 60"), "domain of f lies outside"),
            (sheet("a x"), "a has no value"),
            (apply(sheet("x"), ShowLane(id="lane0", shown=False)), "hidden"),
        ]:
            self.assertIn(told, explain_empty(document, survey(document))[0])
        document = sheet("x^2 - 1")
        self.assertEqual(explain_empty(document, survey(document))[0], "")
        words = in_words(document, survey(document))
        self.assertIn("falls to its minimum −1 at 0, then rises until 10; zeros at −1, 1", words)


class SlidersTests(Case):
    def slider(self, document, name="a"):
        return slider_range(document, lanes(document)[name])

    def test_a_plain_number_is_a_slider_and_a_formula_is_not(self):
        found = lanes(sheet("a = 2", "b = -0.5", "c = 2a", "f(x) = a x"))
        self.assertEqual([n for n in "abcf" if is_slider(found[n])], ["a", "b"])

    def test_ranges_are_sensible_or_as_typed(self):
        for line, low, high in (("a = 1", -5, 5), ("a = -30", -50, 50), ("a = 700", -1000, 1000)):
            found = self.slider(sheet(line))
            self.assertEqual((found.low, found.high), (low, high))
        document = sheet("a = 1", "b = 2")
        stays = apply(document, SetSlider(id="lane0", slider=Slider(high="40")))
        self.assertEqual(self.slider(apply(stays, Slide(id="lane0", value=39))).low, -5)
        typed = Slider(low="-b", high="2π", step="1/4")
        document = apply(document, SetSlider(id="lane0", slider=typed))
        found = self.slider(document)
        self.assertEqual((found.low, found.high, found.step), (-2, 2 * math.pi, 0.25))
        angle = apply(document, SetSlider(id="lane0", slider=Slider(kind="angle")))
        self.assertEqual(self.slider(angle).high, 2 * math.pi)
        self.assertEqual(self.slider(apply(angle, SetUnit(unit="deg"))).high, 360)

    def test_what_makes_no_slider_is_refused(self):
        document = sheet("a = 1", "f(x) = x")
        for edit in (
            SetSlider(id="lane0", slider=Slider(low="3", high="3")),
            SetSlider(id="lane0", slider=Slider(low="1/0")),
            SetSlider(id="lane0", slider=Slider(step="-1")),
            SetSlider(id="lane0", slider=Slider(high="q")),
            Slide(id="lane1", value=2),
            MoveLane(id="gone", to=0),
        ):
            with self.assertRaises(EditRefused):
                apply(document, edit)

    def test_sliding_changes_the_number_and_nothing_else(self):
        document = sheet("a = 1", "f(x) = a x")
        after = apply(document, Slide(id="lane0", value=-2.5))
        self.assertEqual([lane.text for lane in after.lanes], ["a = -2.5", "f(x) = a x"])
        self.assertEqual(value(after, "f", 2), -5)

    def test_lanes_move_and_are_duplicated_under_a_free_name(self):
        document = sheet("x^2", "depth(x) = 3x", "depth_2 = 4")
        moved = apply(document, MoveLane(id="lane1", to=0))
        self.assertEqual([lane.id for lane in moved.lanes], ["lane1", "lane0", "lane2"])
        twice = apply(apply(document, DuplicateLane(id="lane0")), DuplicateLane(id="lane1"))
        self.assertEqual(
            [r.name for r in resolve(twice)], ["f", "g", "depth", "depth_3", "depth_2"]
        )
        self.assertTrue(all(lane.ready for lane in resolve(twice)))


class Tables(Case):
    def rows(self, start, stop, step, *lines):
        return list(places(sheet(*lines), Table(start=start, stop=stop, step=step)))

    def test_steps_hit_the_numbers_a_student_expects(self):
        self.assertEqual(self.rows("0", "1", "0.1")[3], 0.3)
        self.assertEqual(len(self.rows("0", "1", "0.1")), 11)
        self.assertEqual(self.rows("3", "0", "-1"), [3, 2, 1, 0])
        self.assertEqual(self.rows("0", "2π", "π/2")[2], math.pi)
        self.assertEqual(self.rows("a", "a + 1", "1/3", "a = 2")[1], 7 / 3)

    def test_rows_that_cannot_be_made_are_refused_with_their_field(self):
        for start, stop, step, field, told in [
            ("0", "1", "0", "step", "must not be 0"),
            ("0", "1", "-1", "step", "has to be positive"),
            ("0", "10^6", "1", "step", "1000001 rows"),
            ("0", "1", "10^-300", "step", "rows"),
            ("q", "1", "1", "start", "q has no value"),
            ("0", "1/0", "1", "stop", "no value"),
            ("0", "x", "1", "stop", "x has no value"),
            ("", "1", "1", "start", "needed"),
        ]:
            with self.subTest(told), self.assertRaises(TableRefused) as caught:
                self.rows(start, stop, step)
            self.assertEqual(caught.exception.field, field)
            self.assertIn(told, caught.exception.message)

    def test_undefined_is_a_dash_with_a_reason_and_noise_is_zero(self):
        import numpy as np

        document = sheet("g(x) = 2 sin(3x) for -2 <= x < 4", "ln x")
        cells = column(lanes(document)["g"], np.array([-3, 4, math.pi, 0.5]))
        self.assertEqual([cells.shown(k, 6) for k in range(4)], ["—", "—", "0", "1.99499"])
        self.assertEqual(cells.reason(0), "outside the domain of g: −2 ≤ x < 4")
        self.assertIsNone(cells.reason(3))
        self.assertIn(
            "ln is defined only", column(lanes(document)["f"], np.array([-1.0])).reason(0)
        )
