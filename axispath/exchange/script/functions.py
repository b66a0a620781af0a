"""Which function of plain Python each function of the catalogue is."""

from __future__ import annotations

import ast
import inspect

from axispath.exchange.script import library

PLAIN = {
    "sin": "np.sin",
    "cos": "np.cos",
    "tan": "np.tan",
    "arcsin": "np.arcsin",
    "arccos": "np.arccos",
    "arctan": "np.arctan",
    "arctan2": "np.arctan2",
    "exp": "np.exp",
    "ln": "np.log",
    "log": "np.log10",
    "sqrt": "np.sqrt",
    "cbrt": "np.cbrt",
    "abs": "np.abs",
    "sinh": "np.sinh",
    "cosh": "np.cosh",
    "tanh": "np.tanh",
    "arsinh": "np.arcsinh",
    "arcosh": "np.arccosh",
    "artanh": "np.arctanh",
    "sign": "np.sign",
    "floor": "np.floor",
    "ceil": "np.ceil",
    "gamma": "special.gamma",
    "digamma": "special.digamma",
    "erf": "special.erf",
}
OTHERS = {
    "round": "rounded",
    "min": "least",
    "max": "largest",
    "sum": "total",
    "product": "product_of",
}
"""Functions that are called otherwise, so that they hide no word of Python."""
CARRIED = {
    name: OTHERS.get(name, name)
    for name in (
        *("log_base", "root", "sec", "csc", "cot", "arcsec", "arccsc", "arccot", "round", "mod"),
        *("factorial", "binomial", "gcd", "lcm", "polygamma", "normalpdf", "normalcdf"),
        *("min", "max", "sum", "product", "mean", "median", "variance", "deviation"),
        *("steps", "spread"),
    )
}
NEEDS = dict.fromkeys(("least", "largest", "total", "product_of"), ("together",))
NEEDS |= dict.fromkeys(("mean", "median", "variance", "deviation"), ("together",))
TURNED = ("sin", "cos", "tan", "sec", "csc", "cot")
INVERSE = ("arcsin", "arccos", "arctan", "arctan2", "arcsec", "arccsc", "arccot")
NAMES = frozenset(name for name, _ in inspect.getmembers(library, inspect.isfunction))
"""What a script may carry along; no name of a sheet is written like these."""


def source(name: str) -> str:
    """A function of the library as text, without its types."""
    tree = ast.parse(inspect.getsource(getattr(library, name)))
    for node in ast.walk(tree):
        if isinstance(node, ast.arg):
            node.annotation = None
        elif isinstance(node, ast.FunctionDef):
            node.returns = None
    return ast.unparse(tree)


def with_needed(names: list[str]) -> list[str]:
    """Some functions with those that they use, each once, these first."""
    found: dict[str, None] = {}
    for name in names:
        for one in (*NEEDS.get(name, ()), name):
            found[one] = None
    return list(found)
