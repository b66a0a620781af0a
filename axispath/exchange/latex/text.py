"""Words as LaTeX sets them, whatever signs are in them."""

from __future__ import annotations

from axispath.core.language.latex import GREEK

SIGNS = {
    "\\": r"\textbackslash{}",
    "&": r"\&",
    "%": r"\%",
    "$": r"\$",
    "#": r"\#",
    "_": r"\_",
    "{": r"\{",
    "}": r"\}",
    "~": r"\textasciitilde{}",
    "^": r"\textasciicircum{}",
    "≤": r"\ensuremath{\le}",
    "≥": r"\ensuremath{\ge}",
    "√": r"\ensuremath{\surd}",
}
SIGNS |= {sign: rf"\ensuremath{{{name.strip()}}}" for sign, name in GREEK.items() if len(sign) == 1}
SIGNS |= {
    sign: rf"\ensuremath{{{name}}}"
    for sign, name in {
        **{"→": r"\to", "≠": r"\ne", "·": r"\cdot", "×": r"\times", "±": r"\pm", "∈": r"\in"},
        **{"′": "'", "∘": r"\circ", "Ω": r"\Omega", "…": r"\dots", "≈": r"\approx", "²": "^2"},
        **{"³": "^3", "−": "-", "ℝ": r"\mathbb{R}", "∪": r"\cup", "½": r"\tfrac12"},
    }.items()
}
RAISED = dict(zip("⁰¹⁴⁵⁶⁷⁸⁹⁻⁺", "01456789-+", strict=True))
LOWERED = dict(zip("₀₁₂₃₄₅₆₇₈₉₋₊", "0123456789-+", strict=True))
SIGNS |= {sign: rf"\ensuremath{{^{{{plain}}}}}" for sign, plain in RAISED.items()}
SIGNS |= {sign: rf"\ensuremath{{_{{{plain}}}}}" for sign, plain in LOWERED.items()}


def text(words: str) -> str:
    """Words outside mathematics."""
    clean = "".join(sign for sign in words if sign >= " " or sign == "\n")
    return "".join(SIGNS.get(sign, sign) for sign in " ".join(clean.split()))
