"""Lengths as drawings have them: millimetres, centimetres, metres, or feet and inches."""

from __future__ import annotations

from fractions import Fraction
from math import gcd

#: Inches in a foot.
_INCHES = 12


def feet_and_inches(length: float, parts: int) -> str:
    """A length (mm, not negative) in feet, inches and fractions of an inch, to one of `parts` of it.

    >>> feet_and_inches(4200, 8), feet_and_inches(304.8, 4), feet_and_inches(88.9, 4)
    ('13\\'-9 3/8"', '1\\'-0"', '0\\'-3 1/2"')
    """
    count = round(Fraction(length).limit_denominator(10**6) / Fraction(254, 10) * parts)
    inches, rest = divmod(count, parts)
    feet, inches = divmod(inches, _INCHES)
    part = f" {rest // gcd(rest, parts)}/{parts // gcd(rest, parts)}" if rest else ""
    return f"{feet}'-{inches}{part}\""


def plain_figure(value: float, decimals: int) -> str:
    """A figure with so many decimals, without those at its end that are zero.

    >>> plain_figure(45.50, 2), plain_figure(12.0, 1), plain_figure(-0.001, 2)
    ('45.5', '12', '0')
    """
    text = f"{value:.{decimals}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text
