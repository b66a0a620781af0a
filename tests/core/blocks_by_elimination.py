"""Blocks of equations with all their solutions: by elimination, or from starts at 50 digits.

Those under ``POLYNOMIAL`` are solved by SymPy's elimination when they are tested, those under
``TRANSCENDENTAL`` by mpmath from the starts that stand beside them, after a look at where both
curves cross; those under ``BY_HAND`` have their answers beside them.
"""

POLYNOMIAL = (
    ("depth = 3 + 2u; draught = u^2; depth = draught", 2),
    ("x + y + z = 6; x - y = 0; x + z = 4", 1),
    ("2a + 3b = 7; a - b = 1", 1),
    ("a + b = 10; b + c = 12; a + c = 8", 1),
    ("x^2 + y^2 = 25; x + y = 7", 2),
    ("x^2 + y^2 = 25; x y = 12", 4),
    ("y = x^2; y = 2x + 3", 2),
    ("x^2 + y^2 = 1; x = y^2", 2),
    ("u v = 6; u + v = 5", 2),
    ("p^3 = 2p; q = p + 1", 3),
    ("w = s^2 - 2; w^2 = 2", 4),
    ("r = 2/(1 + r)", 2),
    ("a + b + c = 6; a b c = 6; a^2 + b^2 + c^2 = 14", 6),
    ("a + b + c = 3; a^2 + b^2 + c^2 = 5; c = a b", 2),
    ("h = 20 - 5t^2; h = 0", 2),
    ("h = 20 + 3t - 5t^2; v = 3 - 10t; v = 0", 1),
    ("side^2 = area; area = 2; diagonal^2 = 2 area; diagonal = side k; k^2 = 2", 4),
    ("1/a + 1/b = 1/2; b = 2a", 1),
    ("m + n = 3; m^2 - n^2 = 3", 1),
    ("c^2 = a^2 + b^2; a = 3; b = 4", 2),
    ("x^4 - 5x^2 + 4 = 0; y = x^3", 4),
    ("(u - 1)(v - 2) = 0; u + v = 4", 2),
    ("x^2 = y; y^2 = x", 2),
    ("d = b^2 - 4q; d = 9; q = 4", 2),
    ("s = a + b + c; a = 2b; b = 3c; s = 20", 1),
    ("k^2 = 16; l = k/2; l + n = 5", 2),
    ("a^3 + b^3 = 9; a + b = 3", 2),
)
TRANSCENDENTAL = (
    ("cos(u) = u; w = 2u", ({"u": "0.7", "w": "1.5"},)),
    ("exp(p) + q = 3; p^2 + q^2 = 4", ({"p": "0", "q": "2"}, {"p": "1.5", "q": "-1.4"})),
    ("a = 2 sin(b); b = a/2 + 1", ({"a": "1.9", "b": "1.9"},)),
    ("ln(r) = 4 - r; q = r^2", ({"r": "2.9", "q": "8.6"},)),
    ("2^n = 3n; m = n + 1", ({"n": "0.46", "m": "1.46"}, {"n": "3.31", "m": "4.31"})),
    ("y = exp(-x); y = x", ({"x": "0.57", "y": "0.57"},)),
    ("e^u + e^v = 5; u - v = 1", ({"u": "1.3", "v": "0.3"},)),
    (
        "s = sin(t); s = t^2 - 1",
        ({"s": "0.98", "t": "1.41"}, {"s": "-0.59", "t": "-0.64"}),
    ),
)
BY_HAND = (
    (
        "rope = load/4; load = mass g; mass = 850 kg",
        ({"rope": "2083.913125", "load": "8335.6525"},),
    ),
    ("v = 72 km/h; s = v t; t = 5 s", ({"s": "100", "v": "20"},)),
    ("U = R_1 I_1; U = 12 V; R_1 = 40 Ω; P = U I_1", ({"I_1": "0.3", "P": "3.6"},)),
    (
        "m v^2/2 = m g h_0; h_0 = 20 m; m = 3 kg; v > 0".replace("; v > 0", ""),
        ({"v": "-sqrt(2*9.80665*20)"}, {"v": "sqrt(2*9.80665*20)"}),
    ),
    ("T = 20 °C; S = T + 5 K", ({"T": "293.15", "S": "298.15"},)),
    ("3 = 2k + 1; j = k^3 - 7", ({"k": "1", "j": "-6"},)),
)
