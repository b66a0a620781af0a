"""Words as LaTeX sets them, whatever signs are in them."""

from __future__ import annotations

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
    "−": r"\ensuremath{-}",
    "≤": r"\ensuremath{\le}",
    "≥": r"\ensuremath{\ge}",
    "∞": r"\ensuremath{\infty}",
    "√": r"\ensuremath{\surd}",
    "π": r"\ensuremath{\pi}",
}


def text(words: str) -> str:
    """Words outside mathematics."""
    clean = "".join(sign for sign in words if sign >= " " or sign == "\n")
    return "".join(SIGNS.get(sign, sign) for sign in " ".join(clean.split()))
