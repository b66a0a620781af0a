"""Colours of a student's own, kept legible on the ground they are drawn on."""

from __future__ import annotations

import colorsys

LEAST_CONTRAST = 4.5  # that of text (Web Content Accessibility Guidelines 2.2, 1.4.3)
STEPS = 100


def legible(colour: str, ground: str) -> str:
    """The colour #rrggbb, made darker or lighter until it stands out from the ground."""
    hue, lightness, saturation = colorsys.rgb_to_hls(*_shares(colour))
    towards = 0.0 if luminance(ground) > 0.18 else 1.0
    for step in range(STEPS + 1):
        share = step / STEPS
        tried = colorsys.hls_to_rgb(hue, lightness + (towards - lightness) * share, saturation)
        found = "#" + "".join(f"{round(part * 255):02x}" for part in tried)
        if contrast(found, ground) >= LEAST_CONTRAST:
            return found
    return "#000000" if towards == 0.0 else "#ffffff"


def contrast(one: str, other: str) -> float:
    """The contrast ratio of two colours, 1 to 21 (WCAG 2.2)."""
    dark, light = sorted((luminance(one), luminance(other)))
    return (light + 0.05) / (dark + 0.05)


def luminance(colour: str) -> float:
    """The relative luminance of a colour, 0 to 1 (WCAG 2.2)."""
    linear = [
        part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4
        for part in _shares(colour)
    ]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def _shares(colour: str) -> tuple[float, float, float]:
    red, green, blue = (int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5))
    return red, green, blue
