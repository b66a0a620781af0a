"""Row reduction step by step, of a line of Working or of a linear system that was typed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from flask import Blueprint, Response, render_template
from pydantic import Field

from axispath.core.arithmetic.patience import OutOfTime
from axispath.core.calculation.calculate import Calculator, Outcome
from axispath.core.calculation.trees import tree_of
from axispath.core.equations.linear import LinearSolution, LinearSystem, solved
from axispath.core.language.errors import LanguageError
from axispath.core.language.plain import plain
from axispath.core.quantities.elimination import echelon
from axispath.core.quantities.reduction import MOST_ROWS, form_of, reduction
from axispath.core.quantities.scalars import TooWide, divide, is_zero, known, negate
from axispath.core.quantities.values import Grid, NoResult, Scalar
from axispath.core.sheet.document import MAX_SYSTEM, Document, LaneId, Written
from axispath.core.sheet.refused import EditRefused
from axispath.core.sheet.resolve import resolve
from axispath.core.sheet.scopes import COMPLEX, scope_of
from axispath.core.solve.linear import read_system
from axispath.core.solve.rows import read_operation
from axispath.core.table.results.result import cell_of, shown, text_of
from axispath.web.asked import Trying, Typed, answered, body
from axispath.web.computing import computed
from axispath.work.kinds import LONG

blueprint = Blueprint("reducing", __name__, url_prefix="/api")
EXACT = Written(form="exact")
MOST_OWN = 60  # operations that a student has tried


class Reducing(Trying):
    """A matrix by its line, or a system as typed; ``own`` are operations that were tried."""

    id: LaneId | None = None
    system: Annotated[str, Field(max_length=MAX_SYSTEM)] = ""
    own: Annotated[tuple[Typed, ...], Field(max_length=MOST_OWN)] = ()
    reduced: bool = True


@dataclass(frozen=True)
class Stage:
    """The matrix after a step, and what was done."""

    words: str
    notation: str
    grid: Any


@blueprint.post("/sheets/<key>/reduction")
@computed(LONG, shared=False)
def reduce(key: str) -> Response:
    """The steps, as HTML; for a system also what its solutions are."""
    wanted = Reducing.model_validate(body())
    document = wanted.tried(key)
    try:
        return answered(_found(document, wanted))
    except LanguageError as error:
        raise EditRefused(error.message, error.start, error.end, error.mend) from error
    except NoResult as error:
        raise EditRefused(_sentence(str(error))) from error
    except TooWide as error:
        raise EditRefused(
            "Whether a number of this matrix is 0 cannot be told: give it exactly."
        ) from error
    except OutOfTime as error:
        raise EditRefused("This takes too long to compute.") from error


def _found(document: Document, wanted: Reducing) -> dict[str, Any]:
    calculator = calculator_of(document)
    system = None
    if wanted.id is not None:
        grid = _matrix(document, wanted.id)
    else:
        system = read_system(wanted.system, scope_of(document.lanes), calculator)
        grid = system.grid
    columns = len(system.unknowns) if system else None
    scope = scope_of(document.lanes)
    stages = [Stage("", "", grid)]
    for text in wanted.own:
        operation = read_operation(text, grid.size[0], scope, calculator)
        grid = operation.applied(grid)
        stages.append(_stage(document, operation, grid))
    own = len(stages)
    if grid.size[0] > MOST_ROWS:
        last = Grid(echelon(grid, wanted.reduced, columns).rows)
        stages.append(Stage(f"All steps at once: there are more than {MOST_ROWS} rows.", "", last))
    else:
        for operation, after in reduction(grid, wanted.reduced, columns):
            stages.append(_stage(document, operation, after))
    html = render_template(
        "desk/reduction.html",
        stages=[_shown(document, stage) for stage in stages],
        own=own,
        form=form_of(grid, columns),
        unknowns=system.unknowns if system else (),
        solution=_told(document, system) if system else "",
        reduced=wanted.reduced,
        whole=system is not None,
    )
    told = {"html": html, "stages": len(stages), "own": own}
    if system is not None:
        told |= {"matrix": _typed(system.grid), "lines": drawn_lines(system)}
    return told


def calculator_of(document: Document) -> Calculator:
    """What calculates on the names of a sheet."""
    lanes = resolve(document).lanes
    found = next((lane.calculated for lane in lanes if lane.calculated is not None), None)
    return found.calculator if found is not None else Calculator({}, document.unit)


def _matrix(document: Document, lane_id: str) -> Grid:
    lane = resolve(document).lane(lane_id)
    value = lane.outcome.value if lane is not None else None
    if not isinstance(value, Grid):
        raise EditRefused("Rows are reduced of a matrix.")
    return value


def _stage(document: Document, operation: Any, grid: Grid) -> Stage:
    def write(value: Scalar) -> str:
        return text_of(value, document, EXACT)

    return Stage(operation.words(write), operation.notation(write), grid)


def _shown(document: Document, stage: Stage) -> dict[str, Any]:
    result = shown(Outcome(stage.grid), document, EXACT)
    return {"words": stage.words, "notation": stage.notation, "result": result}


def _sentence(reason: str) -> str:
    return f"{reason[:1].upper()}{reason[1:]}."


def _told(document: Document, system: LinearSystem) -> dict[str, Any]:
    found: LinearSolution = solved(system)
    if found.kind == "none":
        assert found.contradiction is not None
        return {
            "kind": "none",
            "row": f"0 = {text_of(found.contradiction, document, EXACT)}",
            "lines": [],
        }
    lines = []
    for name, constant, shares in found.values:
        line = f"{name} = {_sum(document, constant, shares, found.free)}"
        cell = cell_of(constant, document, Written(form="decimal"))
        same = found.free or line.endswith(f"= {cell.shown}")
        lines.append(line if same else f"{line} {'=' if cell.sure else '≈'} {cell.shown}")
    return {"kind": found.kind, "free": found.free, "lines": lines}


def _sum(
    document: Document, constant: Scalar, shares: tuple[Scalar, ...], free: tuple[str, ...]
) -> str:
    text = "" if is_zero(constant) else text_of(constant, document, EXACT)
    for share, name in zip(shares, free, strict=True):
        if is_zero(share):
            continue
        size = text_of(share, document, EXACT)
        minus = size.startswith("−")
        bare = size.removeprefix("−")
        factor = "" if bare == "1" else f"({bare})" if " " in bare or "/" in bare else bare
        sign = ("−" if minus else "") if not text else " − " if minus else " + "
        text += f"{sign}{factor}{' ' if factor else ''}{name}"
    return text or "0"


def _typed(grid: Grid) -> str:
    """A matrix as a line that is read as the same."""
    rows = (", ".join(plain(tree_of(known(v)), COMPLEX) for v in row) for row in grid.rows)
    return f"[{'; '.join(rows)}]"


def drawn_lines(system: LinearSystem) -> list[str]:
    """Equations with two unknowns as lines of a sheet, with three as planes over x and y."""
    rows = system.grid.rows
    if len(system.unknowns) == 2:
        sides = [(linear_text((a, b), ("x", "y")), linear_text((c,), ("",))) for a, b, c in rows]
        return [f"{left} = {right}" for left, right in sides if left != "0"]
    if len(system.unknowns) != 3:
        return []
    planes = []
    for k, (a, b, c, d) in enumerate(rows, 1):
        if is_zero(c):
            continue  # a plane that stands upright is over no place, or over a whole line
        numbers = tuple(divide(v, c) for v in (d, negate(a), negate(b)))
        planes.append(f"plane_{k}(x, y) = {linear_text(numbers, ('', 'x', 'y'))}")
    return planes


def linear_text(numbers: tuple[Scalar, ...], names: tuple[str, ...]) -> str:
    """A sum of numbers times names, as it is typed: 6 - x + 1/2 y."""
    text = ""
    for value, name in zip(numbers, names, strict=True):
        if is_zero(value):
            continue
        size = plain(tree_of(known(value)), COMPLEX).replace(" / ", "/")
        minus = size.startswith("-")
        size = size.removeprefix("-")
        if not size.replace(".", "").replace("/", "").isdigit():
            size, minus = f"({'-' if minus else ''}{size})", False
        part = name if size == "1" and name else f"{size} {name}".strip()
        text += (" - " if minus else " + ") + part if text else ("-" if minus else "") + part
    return text or "0"
