"""Reading a drawing from others, and making linework of it at true scale."""

from __future__ import annotations

from pathlib import Path

import numpy as np

from drafting.errors import ReceivedFileError
from drafting.geometry.polylines import Polylines
from drafting.linework.model import EDGE, SYMBOL, Linework, PackedLines
from drafting.progress import Progress, silent
from drafting.received.dxf import DxfReader
from drafting.received.facts import MAX_BYTES, form_of
from drafting.received.model import ReceivedDrawing
from drafting.received.pdf import read_pdf
from drafting.received.svg import read_svg
from drafting.views.received import Received


def read_received(path: Path, name: str, page: int = 1, progress: Progress = silent) -> ReceivedDrawing:
    """The lines of a file.

    Raises:
        ReceivedFileError: it cannot be used.
    """
    progress("Reading the drawing", 0.0)
    if path.stat().st_size > MAX_BYTES:
        raise ReceivedFileError(
            f"“{name}” has {path.stat().st_size / 1e6:.0f} MB and the limit is {MAX_BYTES / 1e6:.0f} MB. "
            "Export the part that is needed."
        )
    data = path.read_bytes()
    form = form_of(name, data[:4096])
    found = (
        DxfReader(data, name).read()
        if form == "dxf"
        else read_svg(data, name)
        if form == "svg"
        else read_pdf(data, name, page)
    )
    if not found.lines and not found.notes:
        raise ReceivedFileError(f"“{name}” has no lines in it.")
    return found


def received_linework(found: ReceivedDrawing, view: Received) -> Linework:
    """A drawing from others as it is placed: in real mm, from its origin, without the layers that the view
    leaves out."""
    without = set(view.shown.without_layers)
    kept = [k for k, layer in enumerate(found.layers) if layer not in without]
    origin = np.array(view.origin)
    lines = [
        np.column_stack(
            [(np.asarray(found.lines[k], float) - origin) * view.mm, np.zeros(len(found.lines[k]))]
        )
        for k in kept
    ]
    layers, layer = np.unique([found.layers[k] for k in kept], return_inverse=True)
    elements, element = np.unique([found.elements[k] for k in kept], return_inverse=True)
    packed = PackedLines(
        Polylines.of(lines, 3),
        # Letters are thin, and nothing is attached to them.
        np.array([SYMBOL if found.words[k] else EDGE for k in kept], np.int8),
        np.zeros(len(kept), np.int8),
        element.astype(np.int32),
        layer.astype(np.int32),
    )
    return Linework(
        view.lying,
        packed,
        elements=tuple(map(str, elements)),
        layers=tuple(map(str, layers)),
        notes=tuple(found.notes),
        classes=("",) * len(elements),
        made_of=("",) * len(elements),
    )
