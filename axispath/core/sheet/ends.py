"""The end of an interval as a person types it."""

from __future__ import annotations

from axispath.core.arithmetic.balls import constant_ball, precision
from axispath.core.arithmetic.build import program
from axispath.core.arithmetic.interval import End
from axispath.core.arithmetic.program import NotComputable
from axispath.core.arithmetic.rationals import exact_registers
from axispath.core.language.errors import LanguageError
from axispath.core.language.pasted import written
from axispath.core.language.statement import parse_expression
from axispath.core.language.walking import free_names
from axispath.core.sheet.document import Document
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import END_BITS, resolve
from axispath.core.sheet.scopes import scope_of

FARTHEST = 1e15
INFINITE = ("∞", "+∞", "-∞", "−∞")


def typed_end(document: Document, text: str) -> End:
    """An end from a formula such as 2π, which may use the sheet's values.

    Raises EditRefused with a sentence.
    """
    sheet = resolve(document)
    definitions = sheet.lanes[0].definitions if sheet.lanes else {}
    try:
        tree = parse_expression(written(text), scope_of(document.lanes))
        unknown = [n.name for n in free_names(tree) if n.name not in definitions]
        if unknown:
            raise EditRefused(f"{unknown[0]} has no value here.")
        plan = program(tree, (), definitions)
        with precision(END_BITS):
            ball = constant_ball(plan, document.unit)
    except LanguageError as error:
        raise EditRefused(error.message, error.start, error.end, error.mend) from error
    except NotComputable as error:
        raise EditRefused(str(error)) from error
    if not ball.is_finite() or not abs(ball) <= FARTHEST:
        raise EditRefused("This has no value that can be used.")
    return End(ball, exact=exact_registers(plan, document.unit)[plan.result])


def typed_interval(document: Document, low: str, high: str) -> tuple[End | None, End | None]:
    """An interval: as typed, infinite (None), or the view where nothing is typed.

    Raises EditRefused with a sentence.
    """
    view = document.view
    found: list[End | None] = []
    for text, edge, sign in ((low, view.left, "-"), (high, view.right, "+")):
        typed = text.strip()
        if typed in INFINITE:
            if (typed[0] in "-−") != (sign == "-"):
                raise EditRefused("The interval runs from −∞ to ∞, or between numbers.")
            found.append(None)
        else:
            found.append(typed_end(document, typed) if typed else End.at(edge))
    start, stop = found
    if start is not None and stop is not None and not start.ball < stop.ball:
        raise EditRefused("The interval is empty: its start is not below its end.")
    return start, stop
