"""A drawing from others as it was read: lines in the file's own unit, by layers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from drafting.errors import ReceivedFileError
from drafting.geometry.boxes import Point

#: A file with more lines or points is no drawing that can be worked with.
MAX_LINES, MAX_POINTS = 400_000, 4_000_000
#: How far flattened curves may lie from what they stand for, as a share of the drawing's size.
FLATNESS = 1 / 20_000
NO_LAYER = "No layer"


@dataclass
class ReceivedDrawing:
    """What was found in a file.

    Attributes:
        mm: how many mm one of its units is; None where the file does not say it.
        lines: their points, in units.
        layers, elements: of each line; what is drawn as one has one id, which a later file may have too.
        words: of each line, whether it is part of a letter.
        hidden: layers that the file has switched off.
        pages: how many there are; of a file without pages one.
        notes: sentences about what could not be taken over.
    """

    mm: float | None = None
    lines: list[Sequence[Point]] = field(default_factory=list)
    layers: list[str] = field(default_factory=list)
    elements: list[str] = field(default_factory=list)
    words: list[bool] = field(default_factory=list)
    hidden: set[str] = field(default_factory=set)
    pages: int = 1
    notes: list[str] = field(default_factory=list)
    points: int = 0

    def add(
        self, points: Sequence[Point], layer: str, element: str, name: str, *, words: bool = False
    ) -> None:
        """Take a line over.

        Args:
            name: of the file.
            words: whether it is part of a letter.

        Raises:
            ReceivedFileError: there are more than can be worked with.
        """
        if len(points) < 2:
            return
        self.points += len(points)
        if len(self.lines) >= MAX_LINES or self.points > MAX_POINTS:
            raise too_many(name)
        self.lines.append(points)
        self.layers.append(layer or NO_LAYER)
        self.elements.append(element)
        self.words.append(words)


def too_many(name: str) -> ReceivedFileError:
    """What is said of a file with more lines than can be worked with."""
    return ReceivedFileError(
        f"“{name}” has more than {MAX_LINES:,} lines or {MAX_POINTS:,} points. Export the part that is "
        "needed, or fewer layers."
    )
