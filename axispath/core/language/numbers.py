"""Numbers as a student reads them: so many significant digits, and no noise."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

MINUS = "−"
RAISED = str.maketrans("-0123456789", "⁻⁰¹²³⁴⁵⁶⁷⁸⁹")


def decimal(value: float, digits: int = 6, noise: float = 0.0) -> str:
    """A finite number with ``digits`` significant digits, trailing zeros left out.

    ``noise`` is how far the number may be off; digits below that are not known and are not
    shown, and a number that is all noise is 0.
    """
    if abs(value) <= noise:
        return "0"
    if noise > 0:
        known = math.floor(math.log10(abs(value))) - math.floor(math.log10(noise))
        digits = max(1, min(digits, known))
    if value == int(value) and abs(value) < 1e9 and noise < 0.5:
        return f"{MINUS if value < 0 else ''}{abs(int(value))}"
    mantissa, _, power = f"{abs(value):.{digits - 1}e}".partition("e")
    sign = MINUS if value < 0 else ""
    exponent = int(power)
    if -5 <= exponent < digits:
        fixed = f"{float(f'{mantissa}e{exponent}'):.{max(digits - 1 - exponent, 0)}f}"
        return sign + trimmed(fixed)
    return f"{sign}{trimmed(mantissa)}×10{str(exponent).translate(RAISED)}"


def trimmed(text: str) -> str:
    """A decimal without zeros at its end."""
    return text.rstrip("0").rstrip(".") if "." in text else text


def full_precision(value: float) -> str:
    """The shortest text that reads back as the same float64, for copying and export."""
    text = repr(value + 0.0)
    return text[:-2] if text.endswith(".0") else text


def stretched(numbers: Sequence[int]) -> str:
    """Whole numbers as a sentence lists them, neighbours as a stretch: 1 to 3 and 7."""
    runs: list[list[int]] = []
    for number in sorted(set(numbers)):
        if runs and runs[-1][-1] == number - 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    words: list[str] = []
    for run in runs:
        words += [f"{run[0]} to {run[-1]}"] if len(run) > 2 else [str(one) for one in run]
    return listed(words)


def listed(words: Iterable[str]) -> str:
    """Words as a sentence lists them: a, b and c."""
    *most, last = words
    return f"{', '.join(most)} and {last}" if most else last
