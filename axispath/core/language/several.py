"""Several lines pasted at once: homework in LaTeX, lines of a script, or a plain list.

What only holds the lines together (environments, numbering, comments, imports) is left out; each
formula becomes a line of its own.
"""

from __future__ import annotations

import re

LONGEST = 200_000  # characters
_BODY = re.compile(r"\\begin\{document\}(.*?)(?:\\end\{document\}|\Z)", re.DOTALL)
_DISPLAYED = re.compile(
    r"\\\[(?P<a>.*?)\\\]|\$\$(?P<b>.*?)\$\$|\\\((?P<d>.*?)\\\)|(?<!\\)\$(?P<c>[^$]*)(?<!\\)\$"
    r"|\\begin\{(?P<name>equation|align|gather|multline|eqnarray|displaymath|math|flalign)\*?\}"
    r"(?P<e>.*?)\\end\{(?P=name)\*?\}",
    re.DOTALL,
)
_AROUND = re.compile(
    r"\\(?:begin|end)\{(?:equation|align|aligned|gather|gathered|split|multline|eqnarray|itemize"
    r"|enumerate|displaymath|math|flalign|array|center|document)\*?\}(?:\{[lcr|]*\})?"
    r"|\\\[|\\\]|\\\(|\\\)|\\(?:label|tag|section|subsection|title|author|date)\*?\{[^{}]*\}"
    r"|\\(?:nonumber|notag|noindent|item|maketitle|newline|par|bigskip|medskip|smallskip)\b"
)
_INSIDE = re.compile(r"(\\begin\{(?:cases|\w*matrix)\}.*?\\end\{(?:cases|\w*matrix)\})", re.DOTALL)
_NUMBERED = re.compile(r"^\s*(?:[*•]\s+|\(?(?:\d{1,2}|[a-h]|[ivx]{1,4})\)\s+|\d{1,2}\.\s+)")
_IMPORTED = re.compile(r"^(?:import|from|plt\.|print\(|#|%|//)")
_MODULE = re.compile(r"\b(?:np|numpy|math|sympy|sp|scipy\.special|special)\.(?=[a-zA-Z])")
_LAMBDA = re.compile(r"^(\w+)\s*=\s*lambda\s+(\w+(?:\s*,\s*\w+)*)\s*:\s*(.+)$")
_DEFINED = re.compile(r"^def\s+(\w+)\s*\(([^()]*)\)(?:\s*->\s*\w+)?\s*:\s*(?:return\s+(.+))?$")
_RETURNED = re.compile(r"^return\s+(.+)$")


def several(text: str) -> list[str]:
    """The lines of a text that are formulas, as they may be typed one by one."""
    text = text[:LONGEST].replace("\r\n", "\n").replace("\r", "\n")
    parts = _of_script(text) if _is_script(text) else _of_latex(text)
    found = []
    for part in parts:
        line = _NUMBERED.sub("", part, count=1).strip().rstrip(".,;").strip()
        if line:
            found.append(" ".join(line.split()))
    return found


def _is_script(text: str) -> bool:
    return bool(re.search(r"^\s*(?:import|from|def)\s+\w|\blambda\s+\w", text, re.MULTILINE))


def _of_latex(text: str) -> list[str]:
    """Formulas that stand by themselves in a document; every line of what is none."""
    text = re.sub(r"(?<!\\)%.*", "", text)
    body = _BODY.search(text)
    if body is not None:
        shown = [part for found in _DISPLAYED.finditer(body[1]) if (part := _inside(found))]
        text = "\n".join(row for part in shown for row in _split(part))
    else:
        text = _joined(text)
    text = _AROUND.sub("\n", text)
    return [_without_marks(line) for line in text.split("\n")]


def _without_marks(line: str) -> str:
    """A row without the marks of its columns, but with those of cases and matrices."""
    parts = _INSIDE.split(line.strip().strip("$"))
    return "".join(part if k % 2 else part.replace("&", " ") for k, part in enumerate(parts))


def _inside(found: re.Match[str]) -> str:
    """What stands between the signs that display it."""
    return next((found[name] for name in "abcde" if found[name]), "")


def _joined(text: str) -> str:
    """Rows of an environment end at their double stroke, others at the end of the line."""
    if "\\\\" not in text and "\\begin" not in text:
        return text
    return "\n".join(_split(text))


def _split(text: str) -> list[str]:
    """A text at its double strokes and ends of lines, but not inside cases and matrices."""
    rows, depth, start = [], 0, 0
    for found in re.finditer(r"\\\\|\n|\\(begin|end)\{(?:cases|\w*matrix)\}", text):
        if found[1] is not None:
            depth += 1 if found[1] == "begin" else -1
        elif depth <= 0:
            rows.append(text[start : found.start()])
            start = found.end()
    rows.append(text[start:])
    return [row.replace("\n", " ") for row in rows]


def _of_script(text: str) -> list[str]:
    """Definitions of a script in Python; the rest of it stays outside."""
    found: list[str] = []
    opened = ""
    for raw in text.split("\n"):
        line = re.sub(r"(?<!['\"])#.*", "", raw).strip()
        if not line or _IMPORTED.match(line):
            continue
        line = _MODULE.sub("", line).replace("**", "^")
        returned = _RETURNED.match(line)
        named, defined = _LAMBDA.match(line), _DEFINED.match(line)
        if named:
            line = f"{named[1]}({named[2]}) = {named[3]}"
        elif defined:
            opened = f"{defined[1]}({defined[2]})"
            if not defined[3]:
                continue
            line = f"{opened} = {defined[3]}"
        elif returned:
            if not opened:
                continue
            line, opened = f"{opened} = {returned[1]}", ""
        found.append(line)
    return found
