"""Units of measurement, by their symbols: what each is of the SI's base units, exactly.

Definitions are those of the SI Brochure (BIPM 2019, 9th edition, tables 2 to 8) and of NIST Special
Publication 811 (A. Thompson and B. N. Taylor 2008, appendix B), as each entry says.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axispath.core.quantities.dimensions import Dimension, dimension

SI, NIST = "SI Brochure", "NIST SP 811"


LENGTH, MASS, TIME = dimension(m=1), dimension(kg=1), dimension(s=1)
CURRENT, HEAT, AMOUNT, LIGHT = dimension(A=1), dimension(K=1), dimension(mol=1), dimension(cd=1)
AREA, VOLUME, SPEED = dimension(m=2), dimension(m=3), dimension(m=1, s=-1)
FORCE, PRESSURE = dimension(m=1, kg=1, s=-2), dimension(m=-1, kg=1, s=-2)
VOLT, OHM = dimension(m=2, kg=1, s=-3, A=-1), dimension(m=2, kg=1, s=-3, A=-2)
ENERGY, POWER = dimension(m=2, kg=1, s=-2), dimension(m=2, kg=1, s=-3)


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit: ``factor`` times the SI's unit of its ``dimension``, from ``offset`` on.

    ``spellings`` are other ways to type it, ``prefixed`` those that take the SI's prefixes;
    ``system`` says where results are shown in it.
    """

    symbol: str
    name: str
    factor: Fraction
    dimension: Dimension
    source: str
    spellings: tuple[str, ...] = ()
    prefixed: bool = False
    system: str = ""
    offset: Fraction = Fraction(0)


def _unit(
    symbol: str, name: str, factor: str, of: Dimension, source: str = SI, **more: object
) -> Unit:
    return Unit(symbol, name, Fraction(factor), of, source, **more)  # type: ignore[arg-type]


_POUND, _GRAVITY = Fraction("0.45359237"), Fraction("9.80665")
_FOOT, _INCH = Fraction("0.3048"), Fraction("0.0254")
UNITS = (
    _unit("m", "metre", "1", LENGTH, spellings=("metre", "meter"), prefixed=True, system="SI"),
    _unit("g", "gram", "1/1000", MASS, spellings=("gram",), prefixed=True, system="SI"),
    _unit(
        "s", "second", "1", TIME, spellings=("second", "sec", "secs"), prefixed=True, system="SI US"
    ),
    _unit("A", "ampere", "1", CURRENT, spellings=("ampere",), prefixed=True, system="SI US"),
    _unit("K", "kelvin", "1", HEAT, spellings=("kelvin",), prefixed=True, system="SI US"),
    _unit("mol", "mole", "1", AMOUNT, spellings=("mole",), prefixed=True, system="SI US"),
    _unit("cd", "candela", "1", LIGHT, spellings=("candela",), prefixed=True, system="SI US"),
    _unit("Hz", "hertz", "1", dimension(s=-1), prefixed=True, system="SI US"),
    _unit("N", "newton", "1", FORCE, spellings=("newton",), prefixed=True, system="SI"),
    _unit("Pa", "pascal", "1", PRESSURE, spellings=("pascal",), prefixed=True, system="SI"),
    _unit("J", "joule", "1", ENERGY, spellings=("joule",), prefixed=True, system="SI"),
    _unit("W", "watt", "1", POWER, spellings=("watt",), prefixed=True, system="SI"),
    _unit("C", "coulomb", "1", dimension(A=1, s=1), prefixed=True, system="SI US"),
    _unit("V", "volt", "1", VOLT, spellings=("volt",), prefixed=True, system="SI US"),
    _unit("F", "farad", "1", dimension(m=-2, kg=-1, s=4, A=2), prefixed=True, system="SI US"),
    _unit("Ω", "ohm", "1", OHM, spellings=("ohm",), prefixed=True, system="SI US"),
    _unit("T", "tesla", "1", dimension(kg=1, s=-2, A=-1), prefixed=True, system="SI US"),
    _unit("H", "henry", "1", dimension(m=2, kg=1, s=-2, A=-2), prefixed=True, system="SI US"),
    _unit("Wb", "weber", "1", dimension(m=2, kg=1, s=-2, A=-1), prefixed=True, system="SI US"),
    _unit("min", "minute", "60", TIME, spellings=("minute", "mins")),
    _unit("h", "hour", "3600", TIME, spellings=("hour", "hr", "hrs")),
    _unit("d", "day", "86400", TIME, spellings=("day",)),
    _unit("L", "litre", "1/1000", VOLUME, spellings=("l", "litre", "liter"), prefixed=True),
    _unit("t", "tonne", "1000", MASS, spellings=("tonne",)),
    _unit("ha", "hectare", "10000", AREA, spellings=("hectare",)),
    _unit("eV", "electronvolt", "1.602176634e-19", ENERGY, prefixed=True),
    _unit("au", "astronomical unit", "149597870700", LENGTH),
    _unit("bar", "bar", "100000", PRESSURE, NIST, prefixed=True),
    _unit("atm", "standard atmosphere", "101325", PRESSURE, NIST),
    _unit("kn", "knot", "463/900", SPEED, NIST, spellings=("knot",)),
    _unit("nmi", "nautical mile", "1852", LENGTH, NIST),
    _unit("Wh", "watt hour", "3600", ENERGY, NIST, prefixed=True),
    _unit("cal", "calorie", "4.184", ENERGY, NIST, prefixed=True),
    _unit("ft", "foot", "0.3048", LENGTH, NIST, spellings=("foot", "feet"), system="US"),
    _unit("inch", "inch", "0.0254", LENGTH, NIST, spellings=("inches",), system="US"),
    _unit("yd", "yard", "0.9144", LENGTH, NIST, spellings=("yard",)),
    _unit("mi", "mile", "1609.344", LENGTH, NIST, spellings=("mile",), system="US"),
    _unit("acre", "acre (international)", "4046.8564224", AREA, NIST),
    _unit("lb", "pound", "0.45359237", MASS, NIST, spellings=("pound", "lbs"), system="US"),
    _unit("oz", "ounce", "0.028349523125", MASS, NIST, spellings=("ounce",), system="US"),
    Unit("lbf", "pound-force", _POUND * _GRAVITY, FORCE, NIST, system="US"),
    Unit(
        "psi",
        "pound-force per square inch",
        _POUND * _GRAVITY / _INCH**2,
        PRESSURE,
        NIST,
        ("ψ",),  # as the word is read elsewhere
        system="US",
    ),
    Unit("slug", "slug", _POUND * _GRAVITY / _FOOT, MASS, NIST),
    Unit("hp", "horsepower", 550 * _FOOT * _POUND * _GRAVITY, POWER, NIST, system="US"),
    _unit(
        "Btu",
        "British thermal unit (International Table)",
        "1055.05585262",
        ENERGY,
        NIST,
        system="US",
    ),
    _unit("gal", "gallon (US)", "0.003785411784", VOLUME, NIST, system="US"),
    _unit("mph", "mile per hour", "0.44704", SPEED, NIST, system="US"),
    _unit("°C", "degree Celsius", "1", HEAT, offset=Fraction("273.15")),
    _unit("°F", "degree Fahrenheit", "5/9", HEAT, NIST, offset=Fraction("459.67") * 5 / 9),
)
PREFIXES = {
    "Q": 30, "R": 27, "Y": 24, "Z": 21, "E": 18, "P": 15, "T": 12, "G": 9, "M": 6, "k": 3, "h": 2,
    "da": 1, "d": -1, "c": -2, "m": -3, "µ": -6, "μ": -6, "n": -9, "p": -12, "f": -15, "a": -18,
    "z": -21, "y": -24, "r": -27, "q": -30,
}  # fmt: skip
PREFIX_WORDS = {
    "giga": "G", "mega": "M", "kilo": "k", "hecto": "h", "deca": "da", "deci": "d", "centi": "c",
    "milli": "m", "micro": "µ", "nano": "n", "pico": "p",
}  # fmt: skip
SHORTEST_WORD = 3
_BY_SPELLING = {s: unit for unit in UNITS for s in (unit.symbol, *unit.spellings)}
# By what they are called in words, of which there is a plural: metre, litre, hour.
_BY_WORD = {
    word: unit
    for unit in UNITS
    for word in (unit.name, *unit.spellings)
    if word.isalpha() and word.islower() and len(word) >= SHORTEST_WORD
}


@dataclass(frozen=True, slots=True)
class PhysicalConstant:
    """A constant of nature or by agreement: its value in the SI, and where it is from."""

    symbol: str
    name: str
    value: Fraction
    dimension: Dimension
    source: str


CODATA = "CODATA 2018"
PHYSICAL = {
    one.symbol: one
    for one in (
        PhysicalConstant("g", "standard gravity", _GRAVITY, dimension(m=1, s=-2), SI),
        PhysicalConstant("g_n", "standard gravity", _GRAVITY, dimension(m=1, s=-2), SI),
        PhysicalConstant("c", "speed of light", Fraction(299792458), SPEED, SI),
        PhysicalConstant("c_0", "speed of light", Fraction(299792458), SPEED, SI),
        PhysicalConstant(
            *("R", "molar gas constant", Fraction("8.31446261815324")),
            *(dimension(m=2, kg=1, s=-2, K=-1, mol=-1), SI),
        ),
        PhysicalConstant(
            *("G", "constant of gravitation", Fraction("6.67430e-11")),
            *(dimension(m=3, kg=-1, s=-2), CODATA),
        ),
        PhysicalConstant(
            *("N_A", "Avogadro constant", Fraction("6.02214076e23"), dimension(mol=-1), SI)
        ),
        PhysicalConstant(
            *("k_B", "Boltzmann constant", Fraction("1.380649e-23")),
            *(dimension(m=2, kg=1, s=-2, K=-1), SI),
        ),
        PhysicalConstant(
            *("h_P", "Planck constant", Fraction("6.62607015e-34"), dimension(m=2, kg=1, s=-1), SI)
        ),
        PhysicalConstant(
            *("q_e", "elementary charge", Fraction("1.602176634e-19"), dimension(A=1, s=1), SI)
        ),
        PhysicalConstant("m_e", "mass of the electron", Fraction("9.1093837015e-31"), MASS, CODATA),
    )
}


def unit_of(word: str) -> Unit | None:
    """A unit by its symbol or in words, with a prefix where it takes one: km, kilometres."""
    known = _BY_SPELLING.get(word)
    return known if known is not None else _prefixed(word) or _in_words(word.lower())


def _prefixed(word: str) -> Unit | None:
    for length in (1, 2):
        unit = _BY_SPELLING.get(word[length:]) if word[:length] in PREFIXES else None
        if unit is not None and unit.prefixed:
            return _times(word[:length], unit)
    return None


def _in_words(word: str) -> Unit | None:
    for singular in (word, word.removesuffix("s")):
        known = _BY_WORD.get(singular)
        if known is not None:
            return known
        for name, prefix in PREFIX_WORDS.items():
            unit = _BY_WORD.get(singular.removeprefix(name)) if singular.startswith(name) else None
            if unit is not None and unit.prefixed:
                return _times(prefix, unit)
    return None


def _times(prefix: str, unit: Unit) -> Unit:
    power = PREFIXES[prefix]
    factor, name = unit.factor * Fraction(10) ** power, f"{unit.name} × 10^{power}"
    return Unit(f"{prefix}{unit.symbol}", name, factor, unit.dimension, unit.source)
