"""Heavy work as whole steps from file to file, for whoever runs it in a process of its own."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import asdict
from functools import lru_cache
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image

from drafting.building.axes import between, in_axes
from drafting.building.comparison import changes_between
from drafting.building.element_data import building_data, save_data
from drafting.building.model import Building, Element, Storey
from drafting.building.openings import openings_of
from drafting.building.reading import read_building
from drafting.building.solid import to_solid
from drafting.building.store import axes_from, load_building, save_building
from drafting.errors import ReceivedFileError
from drafting.geometry.boxes import Box
from drafting.issuing.comparison import Difference, compare
from drafting.issuing.comparison_page import comparison_page, plain_page
from drafting.issuing.frozen import thaw
from drafting.issuing.package import package
from drafting.issuing.recipients import Recipient
from drafting.linework.climbs import climbs_of
from drafting.linework.codec import decode, encode
from drafting.linework.engine import draw
from drafting.linework.model import Linework
from drafting.linework.own_elevations import with_pictures
from drafting.plotting.files import write_file
from drafting.plotting.settings import PlotSettings
from drafting.progress import Progress, silent
from drafting.received.facts import facts_of, form_of
from drafting.received.reading import read_received, received_linework
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, Page, whole_page
from drafting.review.bcf_reading import read_bcf
from drafting.review.before_after import cropped, pictured_now
from drafting.review.comments import ReadFile, ReadTopic
from drafting.review.pdf_reading import read_pdf
from drafting.review.preparing import Prepared, prepare
from drafting.review.scans import Scan, lay
from drafting.schema import dump
from drafting.shading.appearance import Appearance
from drafting.shading.colours import Palette, colours_of
from drafting.shading.picture import picture_of
from drafting.shading.shadow_areas import shadow_areas_of
from drafting.shading.window import Window
from drafting.views.axonometric import Axonometric
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan
from drafting.views.received import Received
from drafting.views.spec import parse_view_spec

#: How hard pictures are packed, 1 to 9: more takes long and gains little.
PNG_LEVEL = 3


def read_model(
    source: Path,
    target: Path,
    data: Path,
    name: str,
    unit: str,
    up: str,
    axes: dict[str, Any] | None,
    ground: float | None,
    progress: Progress = silent,
) -> dict[str, Any]:
    """Read a building file, store it at `target` and what it says of its elements at `data`, and return what
    was found.

    Args:
        unit: of its figures, blank for what the file says.
        up: the axis that points up, blank for what the file says.
        axes: the building's own, None to find them.
        ground: the level of the ground where the file has no terrain; mm.

    Raises:
        BuildingFileError: the file cannot be used; nothing is written.
    """
    building = read_building(
        source, progress, name, unit=unit or None, up=up or None, axes=axes_from(axes), ground=ground
    )
    progress("Storing the model", 0.0)
    save_building(building, target)
    save_data(with_pictures(building_data(building), building), data)
    low, high = building.bounds
    return {
        "schema": building.schema,
        "unit": building.unit,
        "elements": len(building.elements),
        "triangles": len(building.triangles),
        "size": [round(float(x), 1) for x in high - low],
        "true_north": building.true_north,
        "axes": asdict(building.axes),
        "on_grid": building.on_grid and asdict(building.on_grid),
        "given": {"unit": unit, "up": up, "ground": ground},
        "has_ground": bool(building.ground.any()),
        "storeys": [{"name": s.name, "elevation": s.elevation} for s in building.storeys],
        "grid": [{"name": line.name, "ends": line.ends} for line in building.grid],
        "rooms": [asdict(room) for room in building.rooms],
        "climbs": [asdict(climb) for climb in climbs_of(building)],
        "openings": [asdict(opening) for opening in openings_of(building)],
        "layers": building.layer_counts(),
        "colours": {
            name: "#" + "".join(f"{round(part * 255):02x}" for part in colour[:3])
            for name, colour in zip(building.materials, colours_of(building).tolist(), strict=True)
        },
        "textures": sorted(building.textures),
        "classes": building.class_counts(),
        "left_out": building.left_out,
        "failed": list(building.failed),
        "warnings": list(building.warnings),
    }


def write_solid(stored: Path, target: Path, progress: Progress = silent) -> None:
    """Write a stored building to `target` as it is looked at in 3D."""
    progress("Making it ready for 3D", 0.0)
    target.write_bytes(to_solid(_building(stored)))


def compare_models(before: Path, after: Path, progress: Progress = silent) -> dict[str, Any]:
    """What changed between two stored buildings: ids of elements that were added, removed, moved or reshaped,
    and the name and class of each."""
    progress("Comparing with the version before", 0.0)
    old, new = _building(before), _building(after)
    changes = changes_between(in_axes(old, between(old.axes, new.axes)), new).as_dict()
    known = {e.id: e for building in (old, new) for e in building.elements}
    return {
        kind: [{"id": i, "name": known[i].name, "class": known[i].ifc_class} for i in ids]
        for kind, ids in changes.items()
    }


def draw_view(
    stored: Path, view: dict[str, Any], target: Path, progress: Progress = silent
) -> dict[str, Any]:
    """Draw a view of a stored building, write the linework to `target`, and return its extents, axes and
    notes.

    Raises:
        ViewError: the building does not have what the view uses; nothing is written.
    """
    progress("Opening the model", 0.0)
    return _written(draw(_building(stored), parse_view_spec(view), progress), target)


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
        _building(stored),
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
    areas = shadow_areas_of(_building(stored), parse_view_spec(view), appearance, window, progress)
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


def plot_sheets(
    pages: list[Page],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    target: Path,
    form: str,
    info: FileInfo,
    progress: Progress = silent,
) -> str:
    """Write pages, in their order, to `target`, and say the ending of what was written. `linework` and
    `pictures` say where each is kept.

    Raises:
        SheetError: a page cannot be written in this form.
    """

    def counted() -> Iterator[Page]:
        for number, page in enumerate(pages):
            progress(f"Plotting {page.name}", number / len(pages))
            yield page

    data, ending = write_file(form, counted(), _sources(linework, pictures), info)
    target.write_bytes(data)
    return ending


def issue_package(
    states: list[Path],
    settings: list[PlotSettings],
    recipient: Recipient,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    about: tuple[str, str],
    progress: Progress = silent,
) -> list[tuple[str, str]]:
    """Write what a recipient is sent into `folder`: the name and the format of each file. `states` are frozen
    sheets, `about` the name of the issue and who made it.

    Raises:
        SheetError: a sheet cannot be written so, or two files would have one name.
    """
    sheets = [thaw(path.read_bytes()) for path in states]
    made = package(sheets, settings, recipient, _sources(linework, pictures), about, progress)
    folder.mkdir(parents=True, exist_ok=True)
    for file in made:
        (folder / file.name).write_bytes(file.data)
    return [(file.name, file.form) for file in made]


def compare_states(
    states: tuple[Path, Path],
    names: tuple[str, str],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    ignore_moves: bool,
    progress: Progress = silent,
) -> list[Difference]:
    """Compare two frozen sheets, `names` saying which they are, and write `before.svg`, `after.svg`,
    `over.svg` and `over.pdf` into `folder`."""
    before, after = (thaw(path.read_bytes()) for path in states)
    sources = _sources(linework, pictures)
    progress("Comparing", 0.1)
    comparison = compare(before, after, sources, ignore_moves=ignore_moves)
    over = comparison_page(comparison, *names)
    pages = {"before": plain_page(before), "after": plain_page(after), "over": over}
    for k, (name, page) in enumerate(pages.items()):
        progress("Drawing the comparison", 0.4 + 0.15 * k)
        (folder / f"{name}.svg").write_bytes(FORMATS["svg"].write([page], sources, FileInfo(page.name)))
    (folder / "over.pdf").write_bytes(FORMATS["pdf"].write([over], sources, FileInfo(over.name)))
    return list(comparison.differences)


def prepare_review(
    states: list[Path],
    origins: list[dict[str, tuple[Path, dict[str, Any]]]],
    linework: dict[str, Path],
    pictures: dict[str, Path],
    folder: Path,
    info: FileInfo,
    progress: Progress = silent,
) -> list[Prepared]:
    """Write what reviewers of frozen sheets are shown into `folder`. `origins` says of each sheet, by the ids
    of its viewports, from which stored building and view its drawings were made."""
    sheets = [thaw(path.read_bytes()) for path in states]
    parsed = [
        {key: (stored, parse_view_spec(view)) for key, (stored, view) in each.items()} for each in origins
    ]
    return prepare(sheets, parsed, _sources(linework, pictures), _building, folder, info, progress)


def read_comments(source: Path, states: list[Path], progress: Progress = silent) -> ReadFile:
    """Read what is said in a PDF of frozen sheets.

    Raises:
        SheetError: it is no PDF, is locked, or shows none of the sheets.
    """
    return read_pdf(source, [thaw(path.read_bytes()) for path in states], progress)


def before_and_after(
    pdf: Path,
    page: int,
    state: Path,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    boxes: tuple[Box, Box],
    per_mm: float,
    folder: Path,
    progress: Progress = silent,
) -> None:
    """Write `before.png` and `after.png` into `folder`: a part of a page of a PDF, and one of a frozen sheet.

    Args:
        boxes: which parts, paper mm.
        per_mm: pixels for a mm of the second, so that both show what they show alike.
    """
    progress("Showing before and after", 0.1)
    (folder / "before.png").write_bytes(cropped(pdf, page, boxes[0]))
    sheet = thaw(state.read_bytes())
    now = pictured_now(sheet, _sources(linework, pictures), boxes[1], per_mm, folder)
    (folder / "after.png").write_bytes(now)


def lay_scan(
    source: Path,
    name: str,
    state: Path,
    linework: dict[str, Path],
    pictures: dict[str, Path],
    target: Path,
    folder: Path,
    progress: Progress = silent,
) -> Scan:
    """Keep a scan at `target`, and find how it lies on a frozen sheet.

    Raises:
        SheetError: it is no picture, or far too large; nothing is written.
    """
    sheet = folder / "sheet.pdf"
    page = whole_page(thaw(state.read_bytes()).display)
    sheet.write_bytes(FORMATS["pdf"].write([page], _sources(linework, pictures), FileInfo()))
    return lay(source, name, sheet, target, progress)


def read_topics(source: Path, progress: Progress = silent) -> list[ReadTopic]:
    """Read what is said in a BCF file.

    Raises:
        SheetError: it is none, or far too large.
    """
    return read_bcf(source, progress)


def _sources(linework: dict[str, Path], pictures: dict[str, Path]) -> Sources:
    return Sources(
        lambda key: _linework(linework[key]),
        lambda key: pictures[key].read_bytes(),
        pictures.__contains__,
    )


@lru_cache(maxsize=64)
def _linework(stored: Path) -> Linework:
    """A stored drawing; the name of its file is its hash."""
    return decode(stored.read_bytes())


@lru_cache(maxsize=2)
def _building(stored: Path) -> Building:
    """A stored building; the name of its file is its hash, so what was loaded once is never stale."""
    return load_building(stored)


def warm() -> None:
    """Load the compiled kernels by drawing two cubes, so that no user waits for the compiler."""
    # Between them these pass through every kernel: a cut, what is hidden, and a body that passes through
    # another and is given partly inside out.
    corners = np.array([[x, y, z] for z in (0.0, 2000.0) for y in (0.0, 1000.0) for x in (0.0, 1000.0)])
    faces = [
        [0, 2, 3],
        [0, 3, 1],
        [4, 5, 7],
        [4, 7, 6],
        [0, 1, 5],
        [0, 5, 4],
        [2, 6, 7],
        [2, 7, 3],
        [0, 4, 6],
        [0, 6, 2],
    ]
    triangles = np.array([*faces, [1, 3, 7], [1, 7, 5]], np.int32)
    other = triangles + 8
    other[0] = other[0, ::-1]
    cubes = Building(
        (Element("one", "", "IfcWall", 0, "", ""), Element("other", "", "IfcWall", 0, "", "")),
        (Storey("0", 0.0),),
        ("",),
        np.concatenate([corners, corners + 500.0]),
        np.concatenate([triangles, other]),
        np.repeat(np.arange(2, dtype=np.int32), 12),
        np.zeros(24, np.int32),
    )
    for view in (Plan("0"), Axonometric("ne", line_settings=LineSettings(hidden=True))):
        draw(cubes, view)
        picture_of(cubes, view, Appearance("shaded"), Window(10.0, 10.0, 0.001, (0.0, 0.0)), 25.4)


if __name__ == "__main__":
    warm()
