"""What two numbers that should be the same are apart by, where that is a slip of units."""

from __future__ import annotations

import math

CLOSE = 1e-9
POWERS = {3: "a thousand", 6: "a million", 9: "a billion (10⁹)", 2: "a hundred", 1: "ten"}
OTHERS = {
    60.0: "60, as minutes against seconds or hours",
    3600.0: "3600, as hours against seconds",
    3.6: "3.6, as km/h against m/s",
    0.3048: "0.3048, as feet against metres",
    0.45359237: "0.45359237, as pounds against kilograms",
    9.80665: "9.80665, as a weight against a mass",
    180 / math.pi: "180/π, as degrees against radians",
}


def factor_apart(one: float, other: float) -> str:
    """“off by a thousand: …” for two numbers; empty where they are apart in another way."""
    if not one or not other or not math.isfinite(one) or not math.isfinite(other):
        return ""
    ratio = abs(one / other)
    ratio = max(ratio, 1 / ratio)
    power = round(math.log10(ratio))
    if power and math.isclose(ratio, 10.0**power, rel_tol=CLOSE):
        by = POWERS.get(power, f"10^{power}")
        meant = {3: ", as grams against kilograms or metres against kilometres"}.get(power, "")
        return f"off by {by}{meant}"
    for factor, words in OTHERS.items():
        if math.isclose(ratio, max(factor, 1 / factor), rel_tol=CLOSE):
            return f"off by a factor of {words}"
    return ""
