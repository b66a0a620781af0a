"""Inequalities and equations made from their solutions, so that these are known beforehand.

Everything is decided with fractions: nothing of the application takes part.
"""

import random
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

INFINITY = float("inf")
PI = Fraction("3.14159265358979323846264338327950288419716939937510")
SIGNS = ("<", "<=", ">", ">=")
HOLDS = {
    "<": lambda sign: sign < 0,
    "<=": lambda sign: sign <= 0,
    ">": lambda sign: sign > 0,
    ">=": lambda sign: sign >= 0,
}


@dataclass(frozen=True)
class Place:
    """What a function made of factors does at a place."""

    at: Fraction
    kind: str  # zero, pole or hole
    order: int

    @property
    def turns(self):
        """Whether the sign changes here."""
        return self.kind != "hole" and self.order % 2 == 1


@dataclass(frozen=True)
class Known:
    """A question with its solution set: (low, high, low closed, high closed), infinite where None.

    ``lanes`` are the lines of the sheet.
    """

    text: str
    low: str
    high: str
    solved: tuple
    lanes: tuple = ()
    degrees: bool = False


def spoken(value):
    """A fraction that is a decimal, as typed."""
    text = format(value.numerator / value.denominator, ".17g")
    assert Fraction(text) == value or abs(Fraction(text) - value) < abs(value) / 10**15
    return text if "e" not in text else format(float(text), ".20f").rstrip("0")


def decimal(chance, smallest=-6, largest=6):
    """A number with three digits at a random scale, of either sign."""
    digits, scale = chance.randint(100, 999), chance.randint(smallest, largest)
    value = Fraction(digits) * Fraction(10) ** (scale - 2)
    return value if chance.random() < 0.5 else -value


def typed(value):
    """The same, written out without an exponent."""
    sign = "-" if value < 0 else ""
    value = abs(value)
    places = 0
    while (value * 10**places).denominator != 1:
        places += 1
    digits = str(int(value * 10**places)).rjust(places + 1, "0")
    return sign + (f"{digits[:-places]}.{digits[-places:]}" if places else digits)


def factor(at):
    """x less a number."""
    if at == 0:
        return "x"
    return f"(x - {typed(at)})" if at > 0 else f"(x + {typed(-at)})"


def written(lead, places):
    """The function with these places and a constant factor."""
    above = [typed(lead)]
    below = []
    for place in places:
        power = factor(place.at) + (f"^{place.order}" if place.order > 1 else "")
        if place.kind in ("zero", "hole"):
            above.append(power)
        if place.kind in ("pole", "hole"):
            below.append(power)
    top = " * ".join(above)
    return f"{top} / ({' * '.join(below)})" if below else top


def solution(lead, places, sign, low, high, low_closed=True, high_closed=True):
    """The solution set of f(x) sign 0 between two ends, by the signs between the places."""
    holds = HOLDS[sign]
    places = sorted(places, key=lambda place: place.at)
    cuts = [low, *(place.at for place in places if low < place.at < high), high]
    found = []
    for left, right in pairwise(cuts):
        inner = _between(left, right)
        value = 1 if lead > 0 else -1
        for place in places:
            if place.turns and inner < place.at:
                value = -value
        found.append((left, right, value))
    # The leading sign is the one far to the right, so each zero to the right turns it.
    pieces = [(a, b, False, False) for a, b, value in found if holds(value)]
    for cut in cuts:
        if cut in (-INFINITY, INFINITY):
            continue
        at_end = (cut == low and not low_closed) or (cut == high and not high_closed)
        if not at_end and _holds_at(cut, lead, places, holds):
            pieces.append((cut, cut, True, True))
    return joined(pieces)


def _between(left, right):
    if left == -INFINITY and right == INFINITY:
        return Fraction(0)
    if left == -INFINITY:
        return right - 1
    if right == INFINITY:
        return left + 1
    return (left + right) / 2


def _holds_at(x, lead, places, holds):
    here = [place for place in places if place.at == x]
    if any(place.kind != "zero" for place in here):
        return False
    if here:
        return holds(0)
    value = 1 if lead > 0 else -1
    for place in places:
        if place.turns and x < place.at:
            value = -value
    return holds(value)


def joined(pieces):
    """The same numbers in as few intervals as possible."""
    found = []
    for piece in sorted(pieces, key=lambda p: (p[0], not p[2], p[1])):
        if found:
            low, high, low_closed, high_closed = found[-1]
            if piece[0] < high or (piece[0] == high and (piece[2] or high_closed)):
                reach = max((high, high_closed), (piece[1], piece[3]))
                found[-1] = (low, reach[0], low_closed or (piece[0] == low and piece[2]), reach[1])
                continue
        found.append(piece)
    return tuple(found)


def rational(seed, whole, scale=(-6, 6)):
    """A rational function with zeros, poles and holes at random places."""
    chance = random.Random(seed)
    count = chance.randint(1, 4)
    spots = sorted({decimal(chance, *scale) for _ in range(count)})
    kinds = ("zero", "zero", "zero", "pole", "hole")
    places = [Place(at, chance.choice(kinds), chance.choice((1, 1, 1, 2, 3))) for at in spots]
    lead = Fraction(chance.choice([-3, -1, 1, 2]))
    sign = chance.choice(SIGNS)
    if whole:
        low, high, ends = -INFINITY, INFINITY, ("-∞", "∞")
    else:
        reach = max(abs(at) for at in spots)
        low, high = spots[0] - reach, spots[-1] + reach
        if chance.random() < 0.5:  # an end right at a place
            low = spots[0]
        if chance.random() < 0.5:
            high = spots[-1] if spots[-1] > low else high
        ends = typed(low), typed(high)
    text = f"{written(lead, places)} {sign} 0"
    return Known(text, *ends, solution(lead, places, sign, low, high))


def on_domain(seed):
    """The same as a lane with a domain, asked about on a wider interval or the whole line."""
    chance = random.Random(1000 + seed)
    spots = sorted({decimal(chance, -2, 2) for _ in range(chance.randint(1, 3))})
    places = [Place(at, chance.choice(("zero", "pole", "hole")), 1) for at in spots]
    lead, sign = Fraction(chance.choice([-2, 1])), SIGNS[seed % 4]
    reach = max(abs(at) for at in spots)
    low, high = spots[0] - reach / 2, spots[-1] + reach / 2
    if chance.random() < 0.6:
        low = spots[0]
    kind = seed % 4  # closed, open, half open, without an upper end
    low_closed, high_closed = kind in (0, 2), kind == 0
    below, above = "<=" if low_closed else "<", "<=" if high_closed else "<"
    domain = f"{typed(low)} {below} x {above} {typed(high)}"
    if kind == 3:
        domain, high = f"x > {typed(low)}", INFINITY
        low_closed = False
    line = f"f(x) = {written(lead, places)} for {domain}"
    far = 3 * reach
    ends = ("-∞", "∞") if seed % 3 == 0 else (typed(-far - 1), typed(far + 1))
    if seed % 3 and high == INFINITY:
        high, high_closed = far + 1, True
    solved = solution(lead, places, sign, low, high, low_closed, high_closed)
    return Known(f"f(x) {sign} 0", *ends, solved, (line,))


def single_value(seed):
    """A function with another value at one place."""
    chance = random.Random(2000 + seed)
    at, level = decimal(chance, -1, 1), decimal(chance, 0, 0)
    value = level + chance.choice([-1, 0, 1])
    border = at + chance.choice([-2, -1, 1, 2])
    sign = SIGNS[seed % 4]
    # x - border has the value 0 at the border; elsewhere it is compared with 0.
    line = f"f(x) = {typed(value - level)} if x = {typed(at)}, {factor(border)} otherwise"
    low, high = min(at, border) - 3, max(at, border) + 3
    places = [Place(border, "zero", 1)]
    base = solution(Fraction(1), places, sign, low, high)
    without = []
    for a, b, ac, bc in base:
        if a < at < b:
            without += [(a, at, ac, False), (at, b, False, bc)]
        elif a == b == at:
            continue
        else:
            without.append((a, b, ac and a != at, bc and b != at))
    holds = HOLDS[sign](value - level)
    pieces = [*without, (at, at, True, True)] if holds else without
    return Known(f"f(x) {sign} 0", typed(low), typed(high), joined(pieces), (line,))


def steps(seed):
    """floor, ceil and sign against a number: borders with and without their end."""
    chance = random.Random(3000 + seed)
    name, sign = ("floor", "ceil", "sign")[seed % 3], SIGNS[chance.randint(0, 3)]
    low = Fraction(chance.randint(-6, 2))
    high = low + chance.randint(1, 5) + chance.choice([0, Fraction(1, 2)])
    if name == "sign":
        low, high = Fraction(-chance.randint(0, 3)), Fraction(chance.randint(1, 4))
    level = chance.randint(-1, 1) if name == "sign" else chance.randint(int(low) - 1, int(high) + 1)
    holds = HOLDS[sign]
    cuts = [low, *(Fraction(k) for k in range(int(low) - 1, int(high) + 2) if low < k < high), high]
    value = {
        "floor": lambda x: x.numerator // x.denominator,
        "ceil": lambda x: -(-x.numerator // x.denominator),
        "sign": lambda x: (x > 0) - (x < 0),
    }[name]
    pieces = []
    for a, b in pairwise(cuts):
        if holds(value((a + b) / 2) - level):
            pieces.append((a, b, False, False))
    pieces += [(cut, cut, True, True) for cut in cuts if holds(value(cut) - level)]
    return Known(f"{name}(x) {sign} {level}", typed(low), typed(high), joined(pieces))


def waves(seed, degrees=True):
    """sin against a number whose angles are known, in degrees or radians."""
    chance = random.Random(4000 + seed)
    rate, sign = chance.choice([1, 2, 3]), SIGNS[seed % 4]
    level, first = [
        ("0", 0),
        ("1/2", 30),
        ("√2/2", 45),
        ("√3/2", 60),
        ("1", 90),
        ("-1/2", -30),
        ("-1", -90),
    ][seed % 7]
    # sin(u) = level at u = first and 180 − first, and between these it is above.
    turns = range(-2, 4)
    up = [Fraction(first + 360 * k) for k in turns]
    down = [Fraction(180 - first + 360 * k) for k in turns]
    places = [Place(u / rate, "zero", 1) for u in (*up, *down)]
    if abs(first) == 90:
        places = [Place(u / rate, "zero", 2) for u in up]
    low, high = Fraction(0), Fraction(360)
    # The sign far to the right of all places.
    lead = Fraction(1 if first == -90 else -1)
    solved = solution(lead, places, sign, low, high)
    angle = f"{rate}x" if rate > 1 else "x"
    if degrees:
        return Known(f"sin({angle}) {sign} {level}", "0", "360", solved, (), True)
    turned = tuple((a * PI / 180, b * PI / 180, ac, bc) for a, b, ac, bc in solved)
    return Known(f"sin({angle}) {sign} {level}", "0", "2π", turned)
