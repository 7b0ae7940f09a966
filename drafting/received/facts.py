"""What there is to know of a drawing from others before it is placed."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import numpy as np

from drafting.errors import ReceivedFileError
from drafting.received.model import ReceivedDrawing

MAX_BYTES = 200_000_000
#: What is drawn at paper size, and has a scale that has to be told.
ON_PAPER = ("svg", "pdf")


@dataclass(frozen=True)
class ReceivedFacts:
    """What there is to know of a drawing from others before it is placed.

    Attributes:
        form: dxf, svg or pdf.
        mm: real mm of one unit of the file; None where it does not say it.
        paper: whether its units are those of paper, so that its scale has to be told.
        low: the lower left corner of all that is drawn, in units.
        size: its width and height, in units.
        layers: their names, with how many lines each has.
        hidden: layers that the file has switched off.
    """

    form: str
    mm: float | None
    paper: bool
    low: tuple[float, float]
    size: tuple[float, float]
    lines: int
    layers: dict[str, int]
    hidden: tuple[str, ...]
    pages: int
    notes: tuple[str, ...]


def form_of(name: str, head: bytes) -> str:
    """Which kind of file it is, by what it begins with, else by the ending of its name.

    Raises:
        ReceivedFileError: it is none that can be taken over.
    """
    if head.lstrip()[:5] == b"%PDF-":
        return "pdf"
    if b"<svg" in head.lower():
        return "svg"
    ending = Path(name).suffix.lower().removeprefix(".")
    if ending in ("dxf", "svg", "pdf"):
        return ending
    raise ReceivedFileError(f"“{name}” is none of DXF, SVG and PDF. Export it as one of these.")


def facts_of(found: ReceivedDrawing, form: str) -> ReceivedFacts:
    """What there is to know of a drawing."""
    layers: dict[str, int] = {}
    for layer in found.layers:
        layers[layer] = layers.get(layer, 0) + 1
    low, size = (0.0, 0.0), (0.0, 0.0)
    if found.lines:
        points = np.concatenate([np.asarray(line, float) for line in found.lines])
        (x, y), (wide, high) = points.min(axis=0).tolist(), np.ptp(points, axis=0).tolist()
        low, size = (x, y), (wide, high)
    return ReceivedFacts(
        form,
        found.mm,
        form in ON_PAPER,
        low,
        size,
        len(found.lines),
        dict(sorted(layers.items())),
        tuple(sorted(found.hidden & set(layers))),
        found.pages,
        tuple(found.notes),
    )
