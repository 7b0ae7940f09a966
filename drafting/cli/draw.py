"""`dunefold draw`: one view of a building file to PDF, DXF, SVG, PNG or JSON, without the server."""

from __future__ import annotations

import argparse
import contextlib
import json
import os
import sys
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from drafting.errors import DraftingError, SheetError, ViewError
from drafting.render.backends import FORMATS

if TYPE_CHECKING:
    from drafting.building.model import Building
    from drafting.linework.model import Linework
    from drafting.sheets.paper import Paper
    from drafting.sheets.scale import Scale
    from drafting.sheets.sheet import Sheet
    from drafting.styles.pen_table import PenTableSpec
    from drafting.views.spec import AnyView

#: Endings of what can be written; a drawing as data is no format of sheets.
ENDINGS = (*(f".{key}" for key in FORMATS), ".json")
#: Line settings that are given as they are called: figures, and those that are on where they are named.
FIGURES = ("crease", "far", "contours")
SWITCHES = ("seams", "hidden", "overhead", "outline_above", "beams_above", "below", "opening_windows")


def main(arguments: list[str] | None = None) -> int:
    """Run the command; 0 when done, 1 when the input cannot be used, 2 when the options cannot be
    understood."""
    parser = _parser()
    given = parser.parse_args(arguments)
    if not given.list and not (given.view and given.output):
        parser.error("give --view and -o, or --list")
    if given.output and given.output.suffix.lower() not in ENDINGS:
        parser.error(f"“{given.output.name}” is to end in {', '.join(ENDINGS)}")
    try:
        return _run(given)
    except (DraftingError, OSError) as error:
        print(f"dunefold draw: {error}", file=sys.stderr)
        return 1


def _parser() -> argparse.ArgumentParser:
    # The names that can be chosen stand here again, so that help is there at once: a test holds them to the
    # core's.
    parser = argparse.ArgumentParser(prog="dunefold draw", description=__doc__)
    parser.add_argument("file", type=Path, help="a building file: IFC, GLB, glTF or OBJ")
    parser.add_argument("--list", action="store_true", help="print storeys, layers and element counts")
    parser.add_argument("--view", help="one of the forms below; lengths in mm, angles in degrees")
    parser.add_argument("--scale", help="such as 1:100; the largest that fits where it is not given")
    parser.add_argument(
        "--paper", default="A3", help="A0 to A4, ANSI A to E, Arch A to E, or WIDTH x HEIGHT in mm"
    )
    parser.add_argument("--orientation", default="landscape", choices=("landscape", "portrait"))
    parser.add_argument("-o", "--output", type=Path, help=f"OUT with one of {', '.join(ENDINGS)}")
    parser.add_argument(
        "--pens", default="construction",
        help="construction, presentation, survey, toned, or a JSON file of a pen table",
    )  # fmt: skip
    parser.add_argument(
        "--colour", default="full", choices=("full", "grey", "black"), help="the colour treatment"
    )
    parser.add_argument(
        "--resolution", type=int, default=300, choices=(72, 100, 150, 200, 300, 400, 600),
        help="of a PNG, pixels to the inch",
    )  # fmt: skip
    parser.epilog = (
        "views: plan:STOREY[@CUT], roof, elevation:north|south|east|west|BEARING, "
        "section:X1,Y1,X2,Y2[,...][@DEPTH], "
        "axonometric:ne|nw|se|sw|BEARING,ALTITUDE, perspective:EX,EY,EZ,TX,TY,TZ[@ANGLE], detail:REGION:VIEW"
    )
    _add_file_options(parser.add_argument_group("the file"))
    _add_view_options(parser.add_argument_group("the view"))
    return parser


def _add_file_options(group: argparse._ArgumentGroup) -> None:
    group.add_argument(
        "--unit",
        choices=("mm", "cm", "m", "in", "ft"),
        help="the unit of its figures, also where the file is wrong",
    )
    group.add_argument("--up", choices=("y", "z"), help="the file's axis that points up")


def _add_view_options(group: argparse._ArgumentGroup) -> None:
    group.add_argument(
        "--near", type=float, metavar="MM", help="elevation: cut away what is nearer than this"
    )
    group.add_argument(
        "--depth", type=float, metavar="MM", help="how far is seen from the cut or the nearest point"
    )
    group.add_argument("--crease", type=float, metavar="DEGREES", help="sharper creases than this are edges")
    group.add_argument("--seams", action="store_true", help="draw joints within one material")
    group.add_argument("--hidden", action="store_true", help="draw hidden lines")
    group.add_argument("--as-modelled", action="store_true", help="plan: doors and stairs without symbols")
    group.add_argument("--overhead", action="store_true", help="plan: draw what is above the cut")
    group.add_argument("--outline-above", action="store_true", help="plan: the outline of all above the cut")
    group.add_argument("--beams-above", action="store_true", help="plan: beams above the cut")
    group.add_argument("--below", action="store_true", help="plan: what is below the floor, as hidden lines")
    group.add_argument(
        "--contours", type=float, metavar="MM", help="plan, roof: terrain lines this far apart in height"
    )
    group.add_argument("--opening-windows", action="store_true", help="elevation: how windows open")
    group.add_argument("--far", type=float, metavar="MM", help="lines further off than this are far lines")
    group.add_argument("--bands", metavar="MM,MM,...", help="distances at which pens may change")
    for name, what in (("layer", "a layer"), ("storey", "a storey"), ("class", "a class of elements")):
        group.add_argument(
            f"--without-{name}", action="append", metavar="NAME", help=f"leave out {what}; repeatable"
        )
    group.add_argument("--without", action="append", metavar="ID", help="leave out an element; repeatable")
    group.add_argument("--only", action="append", metavar="ID", help="draw this element alone; repeatable")


def _view_of(given: argparse.Namespace) -> AnyView:
    """The view that was written, with its options."""
    from drafting.views.notation import parse_view
    from drafting.views.spec import dump_view, parse_view_spec

    view = dump_view(parse_view(given.view))
    figures = {"near": given.near, "depth": given.depth}
    # A detail is limited where the view it is of is.
    limited = view["of"] if view["kind"] == "detail" else view
    limited |= {name: value for name, value in figures.items() if value is not None}
    try:
        bands = [float(x) for x in given.bands.split(",")] if given.bands else []
    except ValueError:
        raise ViewError(f"“{given.bands}” are no depth bands; give distances in mm with commas.") from None
    settings = {
        name: value for name in ("crease", "far", "contours") if (value := getattr(given, name)) is not None
    }
    symbols = not given.as_modelled
    settings |= {name: getattr(given, name) for name in SWITCHES}
    settings |= {"doors": symbols, "stairs": symbols, "bands": bands}
    shown = {
        "without_layers": given.without_layer,
        "without_storeys": given.without_storey,
        "without_classes": given.without_class,
        "without": given.without,
        "only": given.only,
    }
    return parse_view_spec(view | {"line_settings": settings, "shown": {k: v for k, v in shown.items() if v}})


def _run(given: argparse.Namespace) -> int:
    from drafting.building.reading import read_building
    from drafting.linework.engine import draw
    from drafting.sheets.paper import Paper
    from drafting.sheets.scale import Scale
    from drafting.views.plan import Plan

    # What was written is looked at before the file is, which may take long.
    view = None if given.list else _view_of(given)
    paper = Paper.of(given.paper, given.orientation)
    scale = Scale.parse(given.scale) if given.scale else None
    pens = _pens(given.pens)
    with _chatter_apart():
        building = read_building(given.file, unit=given.unit, up=given.up, beside=given.file.parent)
    for warning in building.warnings:
        print(f"note: {warning}", file=sys.stderr)
    if view is None:
        _list(building)
        return 0
    if isinstance(view, Plan):
        view = replace(view, storey=building.storey_named(view.storey).name)
    linework = draw(building, view)
    for note in linework.notes:
        print(f"note: {note}", file=sys.stderr)
    if given.output.suffix.lower() == ".json":
        data = linework.to_json()
    else:
        data = _plotted(
            given, linework, sheet_for(given.file.stem, linework, view, paper, scale), pens, view.title
        )
    given.output.write_bytes(data)
    return 0


def _plotted(
    given: argparse.Namespace, linework: Linework, sheet: Sheet, pens: PenTableSpec, title: str
) -> bytes:
    """A sheet in the format that the output's ending names."""
    from drafting.plotting.colours import treatment
    from drafting.plotting.files import write_file
    from drafting.render.backend import Sources
    from drafting.render.compose import compose
    from drafting.render.page import FileInfo, whole_page

    page = whole_page(compose(sheet, pens).restyled(treatment(given.colour)), title)
    info = FileInfo(title, resolution=given.resolution)
    form = given.output.suffix.lower().removeprefix(".")
    return write_file(form, [page], Sources(lambda _: linework), info)[0]


def _pens(named: str) -> PenTableSpec:
    """A pen table that is built in, or one of a file.

    Raises:
        SheetError: there is none, or the file holds none.
    """
    from drafting.styles.pen_presets import PEN_TABLE_PRESETS
    from drafting.styles.pen_table import parse_pen_table

    if named in PEN_TABLE_PRESETS:
        return PEN_TABLE_PRESETS[named][1]
    file = Path(named)
    if not file.is_file():
        there = ", ".join(PEN_TABLE_PRESETS)
        raise SheetError(f"“{named}” is no pen table. There are {there}, or give a JSON file.")
    try:
        given = json.loads(file.read_text())
    except ValueError as error:
        raise SheetError(f"“{named}” is no JSON file: {error}.") from None
    return parse_pen_table(
        {k: v for k, v in given.items() if k != "name"} if isinstance(given, dict) else given
    )


def sheet_for(name: str, linework: Linework, view: AnyView, paper: Paper, scale: Scale | None) -> Sheet:
    """A sheet with one viewport in its free area.

    Raises:
        SheetError: the drawing at this scale is larger than the sheet.
    """
    from drafting.sheets.placing import place_view
    from drafting.sheets.sheet import Sheet
    from drafting.sheets.template import Blank
    from drafting.sheets.template_presets import STANDARD

    placed = place_view(linework.extents, Blank(paper, STANDARD), scale=scale)
    viewport = replace(placed, id="1", linework="1", number="1", name=view.title, to_scale=view.to_scale)
    return Sheet(paper, {"project": name, "title": view.title}, (viewport,))


@contextlib.contextmanager
def _chatter_apart() -> Iterator[None]:
    """What geometry kernels print goes to standard error, and not among what is asked for."""
    sys.stdout.flush()
    kept = os.dup(1)
    os.dup2(2, 1)
    try:
        yield
    finally:
        os.dup2(kept, 1)
        os.close(kept)


def _list(building: Building) -> None:
    print(f"{building.schema}, drawn in {building.unit}s, {building.account}")
    for name in building.failed:
        print(f"  could not be read: {name}")
    x, y, z = building.axes.origin
    print(f"Axes turned by {building.axes.turn:g}°, zero at {x:.0f}, {y:.0f}, {z:.0f} mm of the file")
    if building.on_grid:
        east, north, up = building.on_grid.origin
        print(
            f"  on the grid at {east:.0f} E, {north:.0f} N, {up:.0f} up, turned by {building.on_grid.turn:g}°"
        )
    print("Storeys")
    for number, storey in enumerate(building.storeys):
        print(f"  {number}  {storey.name}  {storey.elevation:+.0f} mm")
    for heading, counts in (
        ("Layers", building.layer_counts()),
        ("Elements", building.class_counts()),
        ("Left out", building.left_out),
    ):
        print(heading)
        for name, count in counts.items():
            print(f"  {count:5d}  {name}")


if __name__ == "__main__":
    sys.exit(main())
