"""Signs and spellings of elsewhere: delimiters, raised letters, brackets, roots, numbers."""

from __future__ import annotations

import re

from axispath.core.language.rewriting.texts import RAISED

_LETTERS = dict(zip("ˣʸᶻᵗⁿᵏᵐᵃᵇᶜᵈᵉᶠᵍʰⁱʲˡᵒᵖʳˢᵘᵛʷ", "xyztnkmabcdefghijloprsuvw", strict=True))
_RUN = re.compile(f"[{''.join(_LETTERS)}⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁽⁾]+")


def end_of_sentence(text: str) -> str:
    """f(x) = x^2; and f(x) = x^2."""
    return re.sub(r"(?<!\.)\s*(?:;|(?<!\.)\.)+\s*$", "", text)


def remark(text: str) -> str:
    """x^2 + 1 // note, y = sin(x) # wave."""
    return re.sub(r"\s*(?://|#|%%).*$", "", text)


def delimiters(text: str) -> str:
    r"""$x^2$, \(x^2\), \[x^2\], `x^2`."""
    return re.sub(r"^\s*(?:\\[(\[]|`+|\$+)\s*(.*?)\s*(?:\\[)\]]|`+|\$+)\s*$", r"\1", text)


def assigned(text: str) -> str:
    """f(x) := x^2."""
    return text.replace(":=", "=").replace("≔", "=")


def signs(text: str) -> str:
    """∧ and ∨ between conditions, a colon for a ratio."""
    text = re.sub(r"\s*(?:∧|&&)\s*", " and ", text)
    text = re.sub(r"\s*(?:∨|\|\|)\s*", " or ", text) if "∨" in text else text
    return re.sub(r"(?<=\d)\s*:\s*(?=\d)", "/", text)


def rounded(text: str) -> str:
    """⌊x⌋ and ⌈x⌉."""
    text = re.sub(r"⌊([^⌊⌋]*)⌋", r"floor(\1)", text)
    return re.sub(r"⌈([^⌈⌉]*)⌉", r"ceil(\1)", text)


def raised_letters(text: str) -> str:
    """eˣ, 2ⁿ, 2ˣ⁺¹: letters that are raised, with the signs and digits beside them."""

    def lowered(found: re.Match[str]) -> str:
        run = found[0]
        if not any(sign in _LETTERS for sign in run):
            return run
        return "^" + _bracketed("".join(_LETTERS.get(sign, sign) for sign in run).translate(RAISED))

    return _RUN.sub(lowered, text)


def _bracketed(text: str) -> str:
    return text if len(text) == 1 else f"({text})"


def index_of_root(text: str) -> str:
    """⁴√x, ³√(x + 1)."""
    return re.sub(
        r"([⁰¹²³⁴⁵⁶⁷⁸⁹]+)\s*√\s*(\([^()]*\)|[A-Za-z0-9_.]+)",
        lambda m: f"root({m[1].translate(RAISED)}, {m[2].strip('()')})",
        text,
    )


def capitals(text: str) -> str:
    """Sin(x), COS X: names of functions in capitals."""

    def lowered(found: re.Match[str]) -> str:
        return found[0].lower() if found[0].lower() in FUNCTIONS else found[0]

    changed = re.sub(r"[A-Za-z]{2,}", lowered, text)
    return re.sub(r"(?<![A-Za-z])X(?![A-Za-z])", "x", changed) if changed != text else text


FUNCTIONS = frozenset(
    {"sin", "cos", "tan", "cot", "sec", "csc", "arcsin", "arccos", "arctan", "sinh", "cosh"}
    | {"tanh", "exp", "ln", "log", "sqrt", "abs", "floor", "ceil", "sign", "max", "min", "mod"}
)
ABROAD = {
    "sh": "sinh", "ch": "cosh", "th": "tanh", "cth": "coth", "arsh": "arsinh", "arch": "arcosh",
    "arth": "artanh", "asin": "arcsin", "acos": "arccos", "atan": "arctan", "sgn": "sign",
    "int": "floor", "trunc": "floor", "ceiling": "ceil", "cosec": "csc", "root": "sqrt",
    "average": "mean", "avg": "mean", "hcf": "gcd", "gcf": "gcd", "sd": "stdev",
    "step": "heaviside",
}  # fmt: skip


def abroad(text: str) -> str:
    """sh x, average(1, 2), hcf(12, 18): functions by the names that they have elsewhere."""
    return re.sub(
        r"(?<![A-Za-z_])([A-Za-z]+)(?=\s*\(|\s+[a-zA-Z0-9(√π])",
        lambda found: ABROAD.get(found[1], found[1]),
        text,
    )


def angle(text: str) -> str:
    """r = 1 + cos(phi), r = t: the angle of a polar curve by another name."""
    found = re.fullmatch(r"\s*r\s*=\s*(.+)", text)
    if found is None or "θ" in text:
        return text
    return (
        f"r = {re.sub(r'(?<![A-Za-z])(?:phi|varphi|φ|ϕ|theta|t|x|α)(?![A-Za-z])', 'θ', found[1])}"
    )


def degrees_in_words(text: str) -> str:
    """sin(30 degrees), sin(30 deg), 180° in radians, π radians in degrees."""
    asked = re.fullmatch(r"\s*(.+?)\s*(?:rad(?:ians?)?)?\s+(?:in|to|into)\s+deg(?:rees)?\s*", text)
    if asked is not None and "°" not in asked[1] and "deg" not in asked[1]:
        return f"({asked[1]}) * 180/π"
    text = re.sub(r"(?<=\d)\s*deg(?:rees?)?\b(?!\s*(?:C|F|celsius|fahrenheit))", "°", text)
    turned = re.fullmatch(r"\s*([-−\d.]+)\s*°\s*(?:in|to|into)\s+rad(?:ians)?\s*", text)
    return f"{turned[1]} π/180" if turned is not None else text


def decimal_comma(text: str) -> str:
    """0,5x² − 1,25: where a comma can mean nothing else."""
    if re.search(r"[(\[{][^)\]}]*,|,\s", text):
        return text
    return re.sub(r"(?<=\d),(?=\d)", ".", text)


def spaced_number(text: str) -> str:
    """1 000 000."""
    return re.sub(
        r"(?<![\w.])\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?![\w.])",
        lambda found: re.sub(r"\D", "", found[0]),
        text,
    )


def grouped_number(text: str) -> tuple[str, ...]:
    """1,234 and 1.000.000: thousands, or a decimal comma where there is just one."""
    found = re.search(r"(?<![\w.,])\d{1,3}(?:,\d{3})+(?![\w,])", text)
    if found is not None:
        whole = text.replace(found[0], found[0].replace(",", ""))
        if found[0].count(",") > 1:
            return (whole,)
        return whole, text.replace(found[0], found[0].replace(",", "."))
    return (re.sub(r"\d{1,3}(?:\.\d{3}){2,}", lambda m: m[0].replace(".", ""), text),)


def repeating(text: str) -> tuple[str, ...]:
    """0.333…, 0.1666…: the last digit that stands at least twice goes on."""
    return (re.sub(r"(\d*\.\d*?)(\d)\2+(?:\.\.\.|…)", r"\1(\2)", text),)


def percent(text: str) -> str:
    """20% of 80, 80 + 20%: of what stands before it."""
    text = re.sub(
        r"([\d.]+)\s+(increased|raised|decreased|reduced)\s+by\s+([\d.]+)\s*%",
        lambda m: (
            f"{m[1]} * (1 {'+' if m[2][0] in 'ir' and m[2] != 'reduced' else '-'} {m[3]}/100)"
        ),
        text,
    )
    text = re.sub(r"([\d.]+)\s*%\s*of\s+", r"(\1/100) * ", text)
    text = re.sub(r"^\s*(\S+)\s*%\s*(\w+)\s*$", r"mod(\1, \2)", text)
    return re.sub(r"([\d.]+)\s*%", r"(\1/100)", text)


def percent_more(text: str) -> tuple[str, ...]:
    """80 + 20%: of what stands before it, or as a number."""
    found = re.fullmatch(r"\s*([\d.]+)\s*([+−-])\s*([\d.]+)\s*%\s*", text)
    if found is None:
        return (text,)
    number, sign, share = found.groups()
    return f"{number} * (1 {sign} {share}/100)", f"{number} {sign} {share}/100"


def base_of_logarithm(text: str) -> tuple[str, ...]:
    """log(8, 2) with the base behind or before it; log base 2 of 8."""
    found = re.search(r"\blog\s+base\s+(\w+)\s+of\s+(\([^()]*\)|[\w.]+)", text)
    if found:
        inner = found[2] if found[2].startswith("(") else f"({found[2]})"
        return (text.replace(found[0], f"log_{found[1]}{inner}"),)
    found = re.search(r"\blog\(\s*([\w.]+)\s*[,;]\s*([\w.]+)\s*\)", text)
    if found is None:
        return (text,)
    first, second = found.groups()
    both = [text.replace(found[0], f"log_{b}({a})") for a, b in ((first, second), (second, first))]
    numbers = [part for part in (first, second) if re.fullmatch(r"\d+|e|π", part)]
    if len(numbers) == 1:  # the base is the number
        return (both[0] if second == numbers[0] else both[1],)
    return tuple(both)


def mixed(text: str) -> str:
    """2 1/2 is asked back, as the sum that it may mean."""
    return re.sub(r"(?<![\w.])(\d+)\s+(\d+)\s*/\s*(\d+)(?![\w.])", r"(\1 + \2/\3)", text)
