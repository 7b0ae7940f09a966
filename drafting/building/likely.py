"""Whether a building is of a likely size, so that figures in another unit than a file says are noticed
before anything is drawn from it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from drafting.building.units import UNIT_NAMES, UNITS

#: The longest side of what is drawn on sheets of a building: from a piece of furniture to a site; mm.
SMALLEST, LARGEST = 1_000.0, 5_000_000.0
#: The longest side of most buildings with their plots, by which other units are offered; mm.
LIKELY_SIZES = (4_000.0, 400_000.0)
#: How much larger a version is than the one before where their units differ, and how exactly.
UNIT_RATIOS = tuple(a / b for a in UNITS.values() for b in UNITS.values() if a != b)
EXACTLY = 0.08


@dataclass(frozen=True)
class SizeQuestion:
    """What is to be asked of an unlikely size.

    Attributes:
        size: x, y and z as read; mm.
        before: of the version before, None without one.
        units: other units that the figures may be in, the likelier first, each with the size that they give.
    """

    size: tuple[float, ...]
    before: tuple[float, ...] | None
    units: tuple[tuple[str, tuple[float, ...]], ...]


def unlikely_size(
    size: Sequence[float], unit: str, before: Sequence[float] | None = None
) -> SizeQuestion | None:
    """What is to be asked before a building of this size is used; None for nothing.

    It is unlikely where its longest side is that of no building, or where it is larger or smaller than the
    version before by just what two units differ.

    Args:
        size: x, y and z, mm.
        unit: that its file's figures were read in, by its name.
        before: the size of the version before, mm.

    >>> question = unlikely_size((240.0, 670.0, 300.0), "inch")
    >>> question.units[0][0], question.units[0][1][1] / 1000
    ('m', 26.377952755905515)
    >>> unlikely_size((9_400.0, 26_400.0, 8_000.0), "metre")
    """
    longest = max(size)
    if SMALLEST <= longest <= LARGEST and not (before and _by_a_unit(size, before)):
        return None
    own = next((UNITS[key] for key, name in UNIT_NAMES.items() if name == unit), None)
    others = []
    for key, factor in UNITS.items():
        if own is None or factor == own:
            continue
        other = tuple(side * factor / own for side in size)
        if before:
            # A version of the same building is about as large.
            if 0.5 < max(other) / max(before) < 2.0:
                others.append((abs(max(other) / max(before) - 1.0), key, other))
        elif LIKELY_SIZES[0] <= max(other) <= LIKELY_SIZES[1]:
            others.append((0.0 if key in ("m", "mm") else 1.0, key, other))
    return SizeQuestion(
        tuple(size),
        tuple(before) if before else None,
        tuple((key, other) for _, key, other in sorted(others)),
    )


def _by_a_unit(size: Sequence[float], before: Sequence[float]) -> bool:
    """Whether every side differs by the same ratio of two units."""
    pairs = [(a, b) for a, b in zip(size, before, strict=True) if b > 0 and a > 0]
    return any(all(abs(a / b / ratio - 1.0) < EXACTLY for a, b in pairs) for ratio in UNIT_RATIOS if pairs)
