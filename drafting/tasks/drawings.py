"""Drawings and pictures of stored buildings, and drawings from others."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from PIL import Image

from drafting.errors import ReceivedFileError
from drafting.linework.codec import encode
from drafting.linework.engine import draw
from drafting.linework.model import Linework
from drafting.progress import Progress, silent
from drafting.received.facts import facts_of, form_of
from drafting.received.reading import read_received, received_linework
from drafting.schema import dump
from drafting.shading.appearance import Appearance
from drafting.shading.colours import Palette
from drafting.shading.picture import picture_of
from drafting.shading.shadow_areas import shadow_areas_of
from drafting.shading.window import Window
from drafting.tasks.stored import building_at
from drafting.views.received import Received
from drafting.views.spec import parse_view_spec


def draw_view(
    stored: Path, view: dict[str, Any], target: Path, progress: Progress = silent
) -> dict[str, Any]:
    """Draw a view of a stored building, write the linework to `target`, and return its extents, axes and
    notes.

    Raises:
        ViewError: the building does not have what the view uses; nothing is written.
    """
    progress("Opening the model", 0.0)
    return _written(draw(building_at(stored), parse_view_spec(view), progress), target)


#: How hard pictures are packed, 1 to 9: more takes long and gains little.
PNG_LEVEL = 3


def shade_view(
    stored: Path,
    view: dict[str, Any],
    appearance: Appearance,
    window: Window,
    palette: Palette,
    per_inch: float,
    backdrop: Path | None,
    target: Path,
    progress: Progress = silent,
) -> list[str]:
    """Make the picture of a stored building through a window on a view, write it to `target` as PNG, and
    return what to know of it. `backdrop` is the picture behind it, if it has one.

    Raises:
        SheetError: it would have too many pixels.
        ViewError: the building does not have what the view uses; nothing is written.
    """
    progress("Opening the model", 0.0)
    made = picture_of(
        building_at(stored),
        parse_view_spec(view),
        appearance,
        window,
        per_inch,
        progress,
        palette,
        quick=per_inch <= window.coarse,
        backdrop=backdrop.read_bytes() if backdrop else None,
    )
    with target.open("wb") as stream:
        Image.fromarray(made.pixels).save(stream, "PNG", compress_level=PNG_LEVEL, dpi=(per_inch, per_inch))
    return list(made.notes)


def trace_shadow(
    stored: Path,
    view: dict[str, Any],
    appearance: Appearance,
    window: Window,
    target: Path,
    progress: Progress = silent,
) -> None:
    """Trace the areas of shadow of a stored building through a window on a view, and write them to `target`
    as JSON.

    Raises:
        ViewError: the building does not have what the view uses; nothing is written.
    """
    progress("Opening the model", 0.0)
    areas = shadow_areas_of(building_at(stored), parse_view_spec(view), appearance, window, progress)
    target.write_text(json.dumps(areas, separators=(",", ":")))


def look_at_received(source: Path, name: str, progress: Progress = silent) -> dict[str, Any]:
    """What there is to know of a drawing from others before it is placed.

    Raises:
        ReceivedFileError: it cannot be used.
    """
    found = read_received(source, name, progress=progress)
    with source.open("rb") as stream:
        form = form_of(name, stream.read(4096))
    return dump(facts_of(found, form))  # type: ignore[no-any-return]


def draw_received(
    source: Path, view: dict[str, Any], target: Path, progress: Progress = silent
) -> dict[str, Any]:
    """Make linework of a drawing from others at `target`, and return its extents, axes and notes.

    Raises:
        ReceivedFileError: it cannot be used; nothing is written.
    """
    spec = parse_view_spec(view)
    if not isinstance(spec, Received):
        raise ReceivedFileError("This view is drawn from a building, and not from a file of its own.")
    return _written(received_linework(read_received(source, spec.name, spec.page, progress), spec), target)


def _written(linework: Linework, target: Path) -> dict[str, Any]:
    """Linework in its file, and what is kept beside it."""
    target.write_bytes(encode(linework))
    axes = {name: getattr(linework.camera, name).tolist() for name in ("right", "up", "origin")}
    return {
        "extents": linework.extents,
        "own_extents": linework.own_extents,
        "axes": axes,
        "notes": list(linework.notes),
        "lines": len(linework.packed),
    }
