"""Functions of the language in plain Python, as scripts carry them along (without types)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
from scipy import integrate, optimize, special

Function = Callable[[Any], Any]


def power(base: Any, exponent: Any) -> Any:
    """A power; 0 to the 0 is 1, and there is none where it is not a real number."""
    with np.errstate(all="ignore"):
        return np.power(np.asarray(base, dtype=float), exponent)


def integral(inner: Function, low: Any, high: Any) -> Any:
    """An integral by adaptive quadrature, for each of its ends."""

    def one(a: float, b: float) -> float:
        return float(integrate.quad(lambda t: float(inner(t)), a, b, limit=200)[0])

    return np.vectorize(one, otypes=[float])(low, high)


def real_root(value: Any, n: Any) -> Any:
    """The real root of odd n, of negative numbers too."""
    return np.sign(value) * np.abs(value) ** (1 / n)


def root(n: Any, value: Any) -> Any:
    """The n-th root: for odd n of negative numbers too."""
    value, n = np.asarray(value, dtype=float), int(n)
    size = np.abs(value) ** (1 / n)
    return np.where(value >= 0, size, -size if n % 2 else np.nan)


def choose(conditions: Sequence[Any], values: Sequence[Any], otherwise: Any) -> Any:
    """The first value whose condition holds."""
    everything = np.broadcast_arrays(*conditions, *values, otherwise)
    found = everything[-1].astype(float)
    for holds, value in reversed(
        list(zip(everything, everything[len(conditions) :], strict=False))
    ):
        found = np.where(holds, value, found)
    return found


def log_base(base: Any, value: Any) -> Any:
    """The logarithm to a base."""
    return np.log(value) / np.log(base)


def sec(x: Any) -> Any:
    """1 over the cosine."""
    return 1 / np.cos(x)


def csc(x: Any) -> Any:
    """1 over the sine."""
    return 1 / np.sin(x)


def cot(x: Any) -> Any:
    """1 over the tangent."""
    return 1 / np.tan(x)


def arcsec(x: Any) -> Any:
    """The angle that has this secant."""
    return np.arccos(1 / np.asarray(x, dtype=float))


def arccsc(x: Any) -> Any:
    """The angle that has this cosecant."""
    return np.arcsin(1 / np.asarray(x, dtype=float))


def arccot(x: Any) -> Any:
    """The angle between 0 and half a turn that has this cotangent."""
    return np.pi / 2 - np.arctan(x)


def rounded(x: Any, places: int = 0) -> Any:
    """Rounded to so many places, halves away from 0."""
    tens = 10.0**places
    return np.sign(x) * np.floor(np.abs(x) * tens + 0.5) / tens


def mod(x: Any, y: Any) -> Any:
    """The remainder, with the sign of the divisor."""
    return x - y * np.floor(x / y)


def factorial(n: Any) -> Any:
    """n!, by the gamma function in between."""
    return special.gamma(np.asarray(n, dtype=float) + 1)


def binomial(n: Any, k: Any) -> Any:
    """So many ways to choose k of n."""
    return special.binom(n, k)


def gcd(a: Any, b: Any) -> Any:
    """The greatest common divisor."""
    return np.gcd(np.asarray(a, dtype=int), np.asarray(b, dtype=int))


def lcm(a: Any, b: Any) -> Any:
    """The least common multiple."""
    return np.lcm(np.asarray(a, dtype=int), np.asarray(b, dtype=int))


def polygamma(n: Any, x: Any) -> Any:
    """A derivative of the digamma function."""
    return special.polygamma(int(n), x)


def normalpdf(x: Any, mean: Any = 0.0, deviation: Any = 1.0) -> Any:
    """The density of the normal distribution."""
    z = (x - mean) / deviation
    return np.exp(-z * z / 2) / (deviation * np.sqrt(2 * np.pi))


def normalcdf(x: Any, mean: Any = 0.0, deviation: Any = 1.0) -> Any:
    """The normal distribution."""
    return special.ndtr((x - mean) / deviation)


def together(values: Sequence[Any]) -> Any:
    """Several values side by side, or one list."""
    return np.asarray(values[0] if len(values) == 1 else np.broadcast_arrays(*values))


def least(*values: Any) -> Any:
    """The least of several values, or of a list."""
    return np.min(together(values), axis=0)


def largest(*values: Any) -> Any:
    """The largest of several values, or of a list."""
    return np.max(together(values), axis=0)


def total(*values: Any) -> Any:
    """The sum of several values, or of a list."""
    return np.sum(together(values), axis=0)


def product_of(*values: Any) -> Any:
    """The product of several values, or of a list."""
    return np.prod(together(values), axis=0)


def mean(*values: Any) -> Any:
    """The mean of several values, or of a list."""
    return np.mean(together(values), axis=0)


def median(*values: Any) -> Any:
    """The median of several values, or of a list."""
    return np.median(together(values), axis=0)


def variance(*values: Any) -> Any:
    """The variance of a sample."""
    return np.var(together(values), axis=0, ddof=1)


def deviation(*values: Any) -> Any:
    """The standard deviation of a sample."""
    return np.std(together(values), axis=0, ddof=1)


def steps(start: Any, stop: Any, step: Any) -> Any:
    """From start to stop by steps."""
    return start + step * np.arange(int(np.floor((stop - start) / step + 1e-9)) + 1)


def spread(start: Any, stop: Any, count: Any) -> Any:
    """So many values from start to stop."""
    return np.linspace(start, stop, int(count))


def zeros(function: Function, low: float, high: float, places: int = 20_001) -> list[float]:
    """The zeros of a function between two ends, as far as they lie apart."""
    x = np.linspace(low, high, places)
    y = np.asarray(function(x), dtype=float)
    scale = np.nanmax(np.abs(y[np.isfinite(y)]), initial=0.0) or 1.0
    found = [float(place) for place in x[y == 0]]
    finite = np.isfinite(y[:-1]) & np.isfinite(y[1:])
    for k in np.flatnonzero(finite & (np.sign(y[:-1]) * np.sign(y[1:]) < 0)):
        place = optimize.brentq(lambda t: float(function(t)), x[k], x[k + 1], xtol=1e-14)
        beside = place + np.array([-1e-13, 0, 1e-13]) * (1 + abs(place))
        nearly = np.nanmax(np.abs(np.asarray(function(beside), dtype=float)))
        if nearly <= 1e-3 * max(abs(y[k]), abs(y[k + 1])):  # else it breaks there
            found.append(float(place))
    size = np.abs(y)
    lower = (size[1:-1] < size[:-2]) & (size[1:-1] <= size[2:]) & (size[1:-1] < 1e-3 * scale)
    for k in np.flatnonzero(lower & (y[:-2] * y[2:] > 0) & (y[1:-1] != 0)) + 1:
        touch = optimize.minimize_scalar(
            lambda t: abs(float(function(t))),
            bounds=(x[k - 1], x[k + 1]),
            method="bounded",
            options={"xatol": 1e-12},
        )
        if touch.fun < 1e-12 * scale:
            found.append(float(touch.x))
    return sorted(found)


def show(name: str, places: Sequence[float]) -> None:
    """Print zeros, or that none was found."""
    told = ", ".join(f"{place:.12g}" for place in places)
    print(f"zeros of {name}: {told or 'none found'}")


def meetings(names: str, function: Function, places: Sequence[float]) -> None:
    """Print where two curves meet, or that no such place was found."""
    told = ", ".join(f"({place:.12g}, {float(function(place)):.12g})" for place in places[:100])
    print(f"{names}: {told or 'none found'}{', and more' if len(places) > 100 else ''}")
