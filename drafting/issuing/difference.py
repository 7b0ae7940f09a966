"""What differs between two states of a sheet, as it is listed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from drafting.geometry.boxes import Box
from drafting.schema import CLOSED

DifferenceKind = Literal[
    "paper", "field", "revision", "added", "removed", "moved", "scale", "cropped", "lines", "text",
    "dimension", "pens",
]  # fmt: skip


@dataclass(frozen=True)
class Difference:
    """Something that differs.

    Attributes:
        kind: what it is about.
        words: what has become of it.
        viewport: the id of the viewport that it is seen in; blank for none.
        box: where it is, mm of the newer sheet.
    """

    __pydantic_config__ = CLOSED

    kind: DifferenceKind
    words: str
    viewport: str = ""
    box: Box | None = None
