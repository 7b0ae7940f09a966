"""What reviewers are shown, made of frozen sheets: a PDF of all; of each its tiles and what is seen where."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

from drafting.building.model import Building
from drafting.issuing.frozen import FrozenSheet
from drafting.progress import Progress
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.items import Drawing
from drafting.render.page import FileInfo, whole_page
from drafting.review.places import Places
from drafting.review.prepared import PDF, Prepared
from drafting.review.seeing import seen_drawing
from drafting.review.tiles import write_tiles
from drafting.views.spec import AnyView

#: What a drawing was drawn from, by the id of its viewport.
Origins = Mapping[str, tuple[Path, AnyView]]


def prepare(
    sheets: Sequence[FrozenSheet],
    origins: Sequence[Origins],
    sources: Sources,
    building: Callable[[Path], Building],
    folder: Path,
    info: FileInfo,
    progress: Progress,
) -> list[Prepared]:
    """Write what reviewers are shown into `folder`.

    Args:
        origins: of each sheet, what its drawings were drawn from, as far as that is known.
        building: opens a stored building.
    """
    progress("Plotting the sheets", 0.0)
    pages = [
        whole_page(
            sheet.display,
            sheet.field_values.get("title", ""),
            sheet.number,
            sheet.field_values.get("date", ""),
        )
        for sheet in sheets
    ]
    pdf = folder / PDF
    pdf.write_bytes(FORMATS["pdf"].write(pages, sources, info))
    made = []
    for k, sheet in enumerate(sheets):
        tiles, places = f"tiles-{k}", f"places-{k}"
        levels = write_tiles(pdf, k, folder / tiles, sheet.number, progress)
        progress(f"Finding what is seen on {sheet.number}", 0.0)
        found = _places(sheet, origins[k], sources, building)
        (folder / places).write_bytes(found.to_bytes())
        made.append(Prepared(tiles, places, levels))
    return made


def _places(
    sheet: FrozenSheet, origins: Origins, sources: Sources, building: Callable[[Path], Building]
) -> Places:
    found = []
    for item in sheet.display.items:
        if isinstance(item, Drawing):
            camera = sources.linework(item.linework).camera
            origin = origins.get(item.viewport)
            source = (building(origin[0]), origin[1]) if origin else None
            found.append(seen_drawing(item, sheet.drawings.get(item.viewport, ""), camera, source))
    return Places([drawing for drawing, _ in found], [seen for _, seen in found])
