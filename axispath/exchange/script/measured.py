"""Data sets as arrays, and fits that are found again."""

from __future__ import annotations

from collections.abc import Iterator

from axispath.core.language.numbers import full_precision
from axispath.core.language.tree import FunctionStatement
from axispath.core.sheet.resolve import ResolvedLane, Sheet
from axispath.exchange.script.expressions import NotWritten, Writer, identifier
from axispath.exchange.script.section import Section
from axispath.exchange.script.texts import one_line, quoted, typed

MOST_ROWS = 5_000


def data_of(sheet: Sheet) -> Iterator[Section]:
    """Data sets as arrays, without the rows that are left out."""
    for lane in sheet:
        data, arrays = lane.lane.data, lane.measured
        if data is None or arrays is None:
            continue
        lines = []
        for column in data.columns:
            values = arrays.used(column.name) if column.name in arrays.columns else ()
            if len(values) > MOST_ROWS:
                lines.append(
                    f"# {one_line(column.name)}: {len(values)} rows, too many to stand here"
                )
                continue
            numbers = ", ".join("np.nan" if v != v else full_precision(float(v)) for v in values)
            lines.append(f"{identifier(column.name)} = np.array([{numbers}])")
        title = one_line(lane.lane.text) or "data"
        words = "Measured numbers, without the rows that are left out."
        yield Section(f"Data: {title}", words, "\n".join(lines))


def fits_of(sheet: Sheet, writer: Writer) -> Iterator[Section]:
    """Fits: the formula with its parameters, and the best numbers found again."""
    for lane in sheet:
        if lane.fitted is None or lane.fitted.result.count > MOST_ROWS:
            continue
        try:
            code = _fit(lane, writer)
        except NotWritten as reason:
            code = f"# {one_line(lane.lane.text)}\n#   left out: {one_line(str(reason))}"
        yield Section(f"Fit {lane.name}", f"Least squares: {one_line(lane.lane.text)}.", code)


def _fit(lane: ResolvedLane, writer: Writer) -> str:
    fitted, statement = lane.fitted, lane.typed
    if fitted is None or not isinstance(statement, FunctionStatement) or lane.name is None:
        raise NotWritten("it has no formula")
    result, fit = fitted.result, fitted.fit
    name, letter = identifier(lane.name), identifier(statement.parameters[0])
    free = [k for k in range(len(result.names)) if k not in result.held]
    names = [identifier(result.names[k]) for k in free]
    held = {k: full_precision(float(result.parameters[k])) for k in result.held}
    starts = ", ".join(f"{float(result.parameters[k]):.2g}" for k in free)
    x, y = identifier(fit.x), identifier(fit.y)
    sigma = {
        "errors": f", sigma={identifier(fit.weight)}[there]",
        "weights": f", sigma=1 / np.sqrt({identifier(fit.weight)}[there])",
    }.get(fit.weigh, "")
    body = writer.text(statement.body)
    writer.defined[lane.name] = name
    lines = [
        *(f"{identifier(result.names[k])} = {value}  # held" for k, value in held.items()),
        f"def {name}_model({', '.join([letter, *names])}):",
        f"    {quoted(typed(lane))}",
        f"    return {body} + 0 * {letter}",
        "",
        "",
        f"there = np.isfinite({x}) & np.isfinite({y})",
        f"{name}_found, {name}_spread = optimize.curve_fit(",
        f"    {name}_model, {x}[there], {y}[there], p0=[{starts}]{sigma}",
        ")",
        f"{name}_errors = np.sqrt(np.diag({name}_spread))",
        f"for which, value, error in zip({names!r}, {name}_found, {name}_errors):",
        f'    print({lane.name!r} + f": {{which}} = {{value:.10g}}, standard error {{error:.3g}}")',
        "",
        "",
        f"def {name}({letter}):",
        "    # With the numbers that were found.",
        f"    return {name}_model(np.asarray({letter}, dtype=float), *{name}_found)",
    ]
    return "\n".join(lines)
