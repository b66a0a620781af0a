"""Quantities: lines worked out from the definitions of units, pint's registry, and dimensions."""

import unittest
from fractions import Fraction

import numpy as np
import pint
from hypothesis import given
from hypothesis import strategies as some

from axispath.core import catalogue
from axispath.core.arithmetic.unit import AngleUnit
from axispath.core.calculation.calculate import Calculator
from axispath.core.calculation.measuring import of_quantities, unit_value
from axispath.core.language.scope import Scope
from axispath.core.language.statement import parse_expression
from axispath.core.quantities.dimensions import NONE, base_text, combined, raised
from axispath.core.quantities.scalars import add, divide, multiply, to_power
from axispath.core.quantities.surds import Surd
from axispath.core.quantities.values import Measured, NoResult
from axispath.core.sheet.document import Document
from axispath.core.sheet.edits import (
    AddBlock,
    AddLane,
    AddWork,
    SetDomain,
    SetGround,
    SetNotation,
    apply,
)
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import COMPLEX
from axispath.core.table.results.result import result_of
from tests.case import Case

# Lines and their results at six digits, worked out by hand from the definitions in the SI Brochure
# (SI) and NIST SP 811, appendix B (NIST).
LINES = (
    ("850 kg · g", "8.33565 kN"),  # SI: 850 · 9.80665
    ("5 km in mi", "3.10686 mi"),  # NIST: 5000/1609.344
    ("60 mi/h in km/h", "96.5606 km/h"),  # NIST: 60 · 1.609344
    ("72 km/h in m/s", "20 m/s"),
    ("20 °C in °F", "68 °F"),  # NIST: 20 · 9/5 + 32
    ("100 °F in K", "310.928 K"),  # NIST: (100 + 459.67)/1.8
    ("-40 °C in °F", "−40 °F"),
    ("0 K in °C", "−273.15 °C"),
    ("20 °C + 5 K", "25 °C"),
    ("20 °C - 5 °C", "15 K"),
    ("1/2 · 2 kg · (3 m/s)^2", "9 J"),
    ("9.81 m/s^2 · 3 s", "29.43 m/s"),
    ("5 kWh in MJ", "18 MJ"),  # NIST: 3.6 MJ
    ("12 V / (4 Ω)", "3 A"),
    ("230 V · 10 A", "2.3 kW"),
    ("1 atm in psi", "14.6959 psi"),  # NIST: 101325/6894.757
    ("1 psi in kPa", "6.89476 kPa"),  # NIST
    ("3 ft + 2 inch in ft", "3.16667 ft"),
    ("3 ft + 2 inch", "965.2 mm"),  # NIST: 0.9144 + 0.0508
    ("1 ft in inch", "12 inch"),
    ("1 yd in ft", "3 ft"),
    ("1 mi in ft", "5280 ft"),
    ("1 nmi in m", "1852 m"),  # NIST
    ("10 kn in m/s", "5.14444 m/s"),  # NIST: 0.514444
    ("1 lb in g", "453.592 g"),  # NIST
    ("16 oz in lb", "1 lb"),
    ("1 lbf in N", "4.44822 N"),  # NIST
    ("1 slug in kg", "14.5939 kg"),  # NIST
    ("1 hp in W", "745.7 W"),  # NIST: 745.6999
    ("1 Btu in J", "1055.06 J"),  # NIST
    ("1 cal in J", "4.184 J"),  # NIST
    ("1 gal in L", "3.78541 L"),  # NIST
    ("1 L in m^3", "0.001 m^3"),  # SI
    ("1 mL in cm^3", "1 cm^3"),
    ("1 ha in m^2", "10000 m^2"),  # SI
    ("1 acre in m^2", "4046.86 m^2"),  # NIST
    ("1 bar in Pa", "100000 Pa"),  # NIST
    ("1 eV in J", "1.60218×10⁻¹⁹ J"),  # SI
    ("1 au in km", "1.49598×10⁸ km"),  # SI
    ("1 t in kg", "1000 kg"),  # SI
    ("1 d in s", "86400 s"),  # SI
    ("90 min in h", "1.5 h"),
    ("2 h in min", "120 min"),
    ("1 mph in km/h", "1.60934 km/h"),  # NIST
    ("(3 m)^2", "9 m²"),
    ("√(16 m^2)", "4 m"),
    ("∛(27 m^3)", "3 m"),
    ("|−3 m|", "3 m"),
    ("2 m · 3 m · 4 m", "24 m³"),
    ("6 m / (2 s)", "3 m/s"),
    ("6 m / (2 m)", "3"),
    ("5 m - 5 m", "0 m"),
    ("3 N · 2 m", "6 J"),
    ("10 N / (2 m^2)", "5 Pa"),
    ("100 J / (5 s)", "20 W"),
    ("1 C / (1 s)", "1 A"),
    ("1 V · 1 s / (1 A)", "1 H"),
    ("1 kg m/s^2", "1 N"),
    ("1 kg m^2/s^2", "1 J"),
    ("1 s^-1", "1 Hz"),
    ("1000 m", "1 km"),
    ("0.0025 m", "2.5 mm"),
    ("2.5·10^-7 m", "250 nm"),
    ("1500 g", "1.5 kg"),
    ("0.5 g", "500 mg"),
    ("3.3·10^6 W", "3.3 MW"),
    ("[1, 2, 3] m", "[1 m, 2 m, 3 m]"),
    ("mean([1 m, 2 m])", "1.5 m"),
    ("sum(k · 1 m for k = 1 to 4)", "10 m"),
    ("max(3 m, 250 cm)", "3 m"),
    ("5 metres + 3 cm", "5.03 m"),
    ("2 hours + 30 mins in minutes", "150 min"),
    ("3 kilometres in Miles", "1.86411 mi"),
    ("7 lbs in kilograms", "3.17515 kg"),
    ("40 millilitres in litres", "0.04 L"),
    ("c in km/s", "299792 km/s"),  # SI
    ("2·9.81 m/s^2·10 m", "196.2 m²/s²"),
    ("√(2·9.81 m/s^2·10 m)", "14.0071 m/s"),
    ("G · 5.972·10^24 kg / (6371 km)^2", "9.81997 m/s²"),  # CODATA 2018
    ("k_B · 300 K in eV", "0.025852 eV"),  # SI
    ("1 mol · N_A", "6.02214×10²³"),
    ("h_P · c / (550 nm) in eV", "2.25426 eV"),  # SI
    ("m_e · c^2 in MeV", "0.510999 MeV"),  # CODATA 2018: 0.51099895
    ("q_e · 1 V in eV", "1 eV"),
    ("1 N/m^2 in Pa", "1 Pa"),
    ("3 m > 200 cm", "true"),
    ("1 kWh > 4 MJ", "false"),
    ("sin(1 m / (2 m))", "0.479426"),
    ("e^(10 s / (5 s))", "7.38906"),
)
TRAPS = (
    ("3 m + 2 s", "etres and seconds cannot be added"),
    ("3 m + 2", "metres and a plain number cannot be added"),
    ("1 N + 1 J", "cannot be added"),
    ("20 °C + 5 °C", "give a difference in K"),
    ("5 K - 20 °C", "give a difference in K"),
    ("sin(3 m)", "sin takes a plain number, and this is in metres"),
    ("ln(5 kg)", "ln takes a plain number, and this is in kilograms"),
    ("2^(3 m)", "an exponent is a plain number, not metres"),
    ("(2 m)^√2", "raised to a fraction"),
    ("5 m in s", "metres cannot be shown in s"),
    ("12 kg g in newton", "g was read as gram: behind a sign, as in · g, it is standard gravity"),
    ("5 m in parsnips", "no unit that is known here"),
    ("5 m in metrs", "is metre meant?"),
    ("3 mete", "waits for mete: is the unit metre meant?"),
    ("850 kgs", "waits for kgs: is the unit kg meant?"),
    ("2 h 30 min", "write + or · before 30"),
    ("5 kilofeet", "waits for kilofeet"),
    ("3 m > 2 s", "cannot be added or compared"),
    ("max(1 m, 2 s)", "cannot be added or compared"),
    ("[1 m, 2; 3, 4]^-1", "only added and multiplied"),
    ("1 m / (0 s)", "divides by 0"),
    ("2 · m", "waits for m"),
    ("3 m!", "cannot stand here"),
)
NAMES = ("meter", "kilogram", "second", "ampere", "kelvin", "mole", "candela")
REGISTRY = pint.UnitRegistry(non_int_type=Fraction)
PINT = {
    "°C": "delta_degC",
    "°F": "delta_degF",
    "Ω": "ohm",
    "kn": "knot",
    "au": "astronomical_unit",
    "gal": "gallon",
    "h": "hour",
    "d": "day",
    "t": "metric_ton",
    "g": "gram",
    "acre": "",  # pint's is the acre of the US survey foot
    "Btu": "international_british_thermal_unit",
    "hp": "horsepower",
    "inch": "inch",
    "min": "minute",
}


def work(line, document=None):
    document = apply(document or Document(), AddWork(text=line))
    return result_of(document, resolve(document).working[-1])


class Quantities(Case):
    def test_lines_from_the_definitions(self):
        self.assertGreaterEqual(len(LINES), 80)
        for line, wanted in LINES:
            with self.subTest(line):
                found = work(line)
                shown = found.shown if found.cells else found.text
                self.assertEqual((shown, found.why), (wanted, ""))

    def test_what_does_not_go_together(self):
        for line, told in TRAPS:
            with self.subTest(line):
                try:
                    found = work(line)
                except EditRefused as error:
                    self.assertIn(told, str(error))
                    continue
                self.assertIn(told, found.why)

    def test_units_are_those_of_another_registry(self):
        for unit in catalogue.UNITS:
            name = PINT.get(unit.symbol, unit.symbol)
            if not name:
                continue
            with self.subTest(unit.symbol):
                factor, base = REGISTRY.get_base_units(REGISTRY.parse_units(name))
                self.assertEqual(unit.factor, factor)
                powers = base._units
                for name_of, power in zip(NAMES, unit.dimension, strict=True):
                    self.assertEqual(Fraction(powers.get(name_of, 0)), power)

    def test_every_unit_there_and_back(self):
        for unit in catalogue.UNITS:
            with self.subTest(unit.symbol):
                base = base_text(unit.dimension)
                there = work(f"7 {unit.symbol} in {unit.symbol}")
                self.assertEqual(there.shown, f"7 {unit.symbol}")
                if base.isalpha() and base.isascii():
                    there = parse_expression(f"7 {unit.symbol} in {base}", Scope(COMPLEX))
                    value = Calculator({}, AngleUnit.RADIAN).result(there).value
                    self.assertEqual(value.value, Surd.of(7 * unit.factor + unit.offset))

    @given(some.sampled_from(sorted(catalogue.ENTRIES)), some.sampled_from(catalogue.UNITS))
    def test_functions_take_plain_numbers_or_keep_dimensions(self, function, unit):
        given_one = unit_value(unit.symbol)
        count = len(catalogue.ENTRIES[function].word.arguments)
        arguments = (Surd.of(2),) * (count - 1) + (given_one,)
        try:
            found = of_quantities(function, arguments)
        except NoResult:
            self.assertNotIn(function, ("abs", "sqrt", "cbrt", "sign"))
            return
        half, third = Fraction(1, 2), Fraction(1, 3)
        power = {"abs": 1, "sqrt": half, "cbrt": third, "sign": 0, "root": half}
        of = found.dimension if isinstance(found, Measured) else NONE
        self.assertEqual(of, raised(unit.dimension, Fraction(power[function])))

    @given(*(some.sampled_from(catalogue.UNITS),) * 2, some.integers(-3, 3))
    def test_dimensions_multiply_and_only_like_is_added(self, one, other, n):
        a, b = unit_value(one.symbol), unit_value(other.symbol)
        for work_of, sign in ((multiply, 1), (divide, -1)):
            found = work_of(a, b)
            of = found.dimension if isinstance(found, Measured) else NONE
            self.assertEqual(of, combined(one.dimension, other.dimension, sign))
        powered = to_power(a, Surd.of(n))
        of = powered.dimension if isinstance(powered, Measured) else NONE
        self.assertEqual(of, raised(one.dimension, Fraction(n)))
        if one.dimension != other.dimension:
            with self.assertRaises(NoResult):
                add(a, b)

    def test_names_of_the_sheet_come_first_and_readings_are_told(self):
        document = apply(Document(), AddWork(text="m = 4"))
        self.assertEqual(work("5 m", document).shown, "20")
        self.assertEqual(work("5 metre", document).shown, "5 m")
        self.assertIn("g is the standard gravity", work("2 kg · g").note)
        self.assertIn("behind a number is the gram", work("2 g").note)
        document = apply(apply(Document(), AddWork(text="k = 2")), AddWork(text="g = 10"))
        self.assertEqual(work("5 kg", document).shown, "5 kg")
        self.assertEqual(work("k g", document).shown, "20")
        self.assertEqual(work("3 · g", document).shown, "30")

    def test_letters_are_constants_of_nature_beside_units_only(self):
        for line, why in (
            ("2 · g", "waits for g"),
            ("c + 1", "waits for c"),
            ("R/2", "waits for R"),
        ):
            self.assertEqual(work(line).why, why)
        self.assertEqual(work("2 · g_n").shown, "19.6133 m/s²")
        self.assertEqual(work("c_0/2").shown, "149896229 m/s")

    def test_results_are_shown_in_the_system_of_the_sheet(self):
        us = apply(Document(), SetNotation(notation="", digits=6, measures="US"))
        lines = (("1 m", "3.28084 ft"), ("1 kg", "2.20462 lb"), ("c · 1 s", "186282 mi"))
        for line, wanted in lines:
            self.assertEqual(work(line, us).shown, wanted)
        self.assertEqual(work("c in m/s", us).shown, "299792458 m/s")

    def test_what_has_no_unit_in_the_system_of_the_sheet_says_so(self):
        us = apply(Document(), SetNotation(notation="", digits=6, measures="US"))
        found = work("1000 kg/m^3", us)
        self.assertIn("no US customary unit for this here: shown in kg/m³", found.note)
        self.assertEqual(work("3 m", us).note, "")
        self.assertEqual(work("1000 kg/m^3").note, "")

    def test_a_factor_off_is_named(self):
        for line, answer, note in (
            ("850 kg = 850 g", "false", "off by a thousand"),
            ("2 h = 120 s", "false", "60"),
            ("36 km/h = 36 m/s", "false", "3.6"),
            ("850 kg = 851 kg", "false", ""),
            ("850 kg = 850000 g", "true", ""),
            ("3 = 3000", "false", "off by a thousand"),
        ):
            found = work(line)
            self.assertEqual(found.answer, answer, line)
            self.assertIn(note, found.note)
            self.assertEqual(bool(note), bool(found.note), line)

    def test_lanes_hold_quantities_only_where_axes_have_units(self):
        document = apply(Document(), AddWork(text="v = 3 m/s"))
        with self.assertRaisesRegex(EditRefused, "plain number is needed"):
            apply(document, AddLane(text="f(x) = v x"))
        plain = apply(document, AddWork(text="ratio = v/(1 m/s)"))
        plain = apply(plain, AddLane(text="f(x) = ratio x"))
        self.assertIsNone(resolve(plain).lanes[-1].error)
        self.assertIsNone(resolve(plain).lanes[-1].measure)


class Axes(Case):
    def sheet(self, x, y, *lines, work=()):
        document = Document()
        ground = document.ground.model_copy(update={"x_unit": x, "y_unit": y})
        document = apply(document, SetGround(ground=ground))
        for line in work:
            document = apply(document, AddWork(text=line))
        for line in lines:
            document = apply(document, AddLane(text=line, id=line[0], keep=True))
        return document

    def at(self, document, name, x):
        lane = resolve(document).lane(name)
        assert lane.error is None and not lane.missing, (lane.error, lane.missing)
        return float(lane.floats(np.array([float(x)]))[0])

    def test_x_and_values_count_the_units_of_their_axes(self):
        document = self.sheet(
            "min",
            "km",
            "f(x) = 3 m/s x",
            "g(x) = speed x + 1 mi for 0 <= x <= 120 s",
            "p(x) = f(x) + 100 m",
            "u(x) = 3 km sin(2π x/(12 min))",
            "q(x) = x^2",
            work=("speed = 20 km/h",),
        )
        self.assertAlmostEqual(self.at(document, "f", 2), 0.36, places=14)
        self.assertAlmostEqual(self.at(document, "g", 1), 1 / 3 + 1.609344, places=14)
        self.assertAlmostEqual(self.at(document, "p", 1), 0.28, places=14)
        self.assertAlmostEqual(self.at(document, "u", 3), 3.0, places=14)
        self.assertEqual(self.at(document, "q", 3), 9.0)
        sheet = resolve(document)
        self.assertEqual([float(end.ball.mid()) for end in sheet.lane("g").ends], [0.0, 2.0])
        self.assertEqual((sheet.lane("f").measure, sheet.lane("q").measure), ("km", None))
        self.assertEqual(document.axis_labels, ("x in min", "y in km"))

    def test_answers_of_equations_stand_in_lanes_of_quantities(self):
        document = self.sheet("m", "kJ", "w(x) = load x")
        block = "load = mass g; mass = 850 kg"
        document = apply(document, AddBlock(text=block, id="block"))
        self.assertAlmostEqual(self.at(document, "w", 2), 16.671305, places=12)

    def test_without_a_unit_of_y_values_are_those_of_the_si(self):
        document = self.sheet("s", "", "f(x) = 3 km/s x", "g(x) = 2 kg/m^3 + 0 kg/m^3 x/(1 s)")
        self.assertEqual(self.at(document, "f", 2), 6000.0)
        self.assertEqual(resolve(document).lane("f").measure, "m")
        self.assertEqual(resolve(document).lane("g").measure, "kg/m³")

    def test_what_does_not_fit_is_named(self):
        document = self.sheet(
            "s", "m", "f(x) = 3 kg", "g(x) = 3 m + x", "h(x) = 2 m for 0 kg <= x <= 5", "k = 5 m"
        )
        errors = {lane.lane.id: str(lane.error) for lane in resolve(document)}
        self.assertIn("kilograms, and the y-axis is in m", errors["f"])
        self.assertIn("etres and seconds cannot be added", errors["g"])
        self.assertIn("end of its domain is in kilograms", errors["h"])
        with self.assertRaisesRegex(EditRefused, "is kn meant|not known"):
            self.sheet("knn", "")

    def test_a_domain_is_changed_as_it_was_typed(self):
        document = self.sheet("s", "m", "f(x) = 2 m/s x for 0 <= x <= 2 min")
        changed = apply(document, SetDomain(id="f", low="0.5 min"))
        self.assertEqual(changed.lane("f").text, "f(x) = 2 m/s x for 0.5 min <= x <= 2 min")
        ends = resolve(changed).lane("f").ends
        self.assertEqual([float(end.ball.mid()) for end in ends], [30.0, 120.0])

    def test_temperatures_keep_their_zero(self):
        document = self.sheet("h", "°C", "t(x) = 20 °C + 3 K/h x")
        self.assertAlmostEqual(self.at(document, "t", 2), 26.0, places=10)

    def test_the_same_lines_under_other_axes(self):
        first, second = (
            self.sheet("s", "m", "f(x) = 2 m/s x"),
            self.sheet("min", "m", "f(x) = 2 m/s x"),
        )
        found = [self.at(one, "f", 1) for one in (first, second, first)]
        self.assertEqual(found, [2.0, 120.0, 2.0])


if __name__ == "__main__":
    unittest.main()
