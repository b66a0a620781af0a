"""Functions of the catalogue for complex numbers: the principal values.

Cuts run as usual (F. W. J. Olver and others 2010, NIST Handbook of Mathematical Functions, chapter
4): along the negative real axis for roots and logarithms, outward from ±1 and ±i for arc functions.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flint import acb, arb

Work = Callable[[acb], acb]


def _inverted(work: Work) -> Work:
    return lambda z: 1 / work(z)


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut along the real axis, or along the imaginary one where ``turned``.

    ``beside`` tells places on that axis which surely do not lie on it.
    """

    beside: Callable[[arb], bool]
    turned: bool = False

    def runs_through(self, z: acb) -> bool:
        """Whether it may run through an enclosure."""
        along, across = (z.imag, z.real) if self.turned else (z.real, z.imag)
        return bool(across.contains(0)) and not self.beside(along)


def _inside(x: arb) -> bool:
    return bool(abs(x) < 1)


def _positive(x: arb) -> bool:
    return bool(x > 0)


PRINCIPAL: dict[str, Work] = {
    "sqrt": lambda z: z.sqrt(),
    "exp": lambda z: z.exp(),
    "ln": lambda z: z.log(),
    "log": lambda z: z.log() / acb(10).log(),
    "sin": lambda z: z.sin(),
    "cos": lambda z: z.cos(),
    "tan": lambda z: z.tan(),
    "sec": _inverted(lambda z: z.cos()),
    "csc": _inverted(lambda z: z.sin()),
    "cot": lambda z: z.cot(),
    "arcsin": lambda z: z.asin(),
    "arccos": lambda z: z.acos(),
    "arctan": lambda z: z.atan(),
    "sinh": lambda z: z.sinh(),
    "cosh": lambda z: z.cosh(),
    "tanh": lambda z: z.tanh(),
    "arsinh": lambda z: z.asinh(),
    "arcosh": lambda z: z.acosh(),
    "artanh": lambda z: z.atanh(),
    "gamma": lambda z: z.gamma(),
    "erf": lambda z: z.erf(),
}
"""By the names of the catalogue, in radians."""

FROM_ZERO = Cut(_positive)
CUTS = {
    "sqrt": FROM_ZERO,
    "ln": FROM_ZERO,
    "log": FROM_ZERO,
    "arcsin": Cut(_inside),
    "arccos": Cut(_inside),
    "arctan": Cut(_inside, turned=True),
    "arsinh": Cut(_inside, turned=True),
    "arcosh": Cut(lambda x: bool(x > 1)),
    "artanh": Cut(_inside),
}
"""Where these are not analytic."""
