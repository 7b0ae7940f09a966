"""`dunefold draw`: one view of a building file to PDF, DXF, SVG, PNG or JSON, without the server."""

from __future__ import annotations

import argparse
import json
import sys
from dataclasses import replace
from pathlib import Path

from drafting.building.mesh_file import UP_AXES
from drafting.building.model import Building
from drafting.building.reading import read_building
from drafting.building.units import UNITS
from drafting.errors import DraftingError, SheetError, ViewError
from drafting.linework.engine import draw
from drafting.linework.model import Linework
from drafting.plot.compose import compose
from drafting.plot.display import no_picture
from drafting.plot.files import Told, write_file
from drafting.plot.inking import TREATMENTS, coloured
from drafting.plot.page import whole_page
from drafting.plot.pen_table import PenTable
from drafting.plot.png import RESOLUTIONS
from drafting.plot.shipped_pens import SHIPPED as PEN_TABLES
from drafting.plot.shipped_pens import STANDARD as PENS
from drafting.sheets.paper import ORIENTATIONS, SIZES, Paper
from drafting.sheets.placing import place_view
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.shipped_templates import STANDARD
from drafting.sheets.template import Blank
from drafting.views.spec import ViewSpec
from drafting.views.typed import FORMS as VIEW_FORMS
from drafting.views.typed import parse_view

FORMS = (".pdf", ".dxf", ".svg", ".png", ".json")


def main(arguments: list[str] | None = None) -> int:
    """Run the command; 0 when done, 1 when the input cannot be used, 2 when the options cannot be understood."""
    parser = argparse.ArgumentParser(prog="dunefold draw", description=__doc__)
    parser.add_argument("file", type=Path, help="a building file: IFC, GLB, glTF or OBJ")
    parser.add_argument("--list", action="store_true", help="print storeys, layers and element counts")
    parser.add_argument("--view", help=", ".join(VIEW_FORMS) + "; lengths in mm, angles in degrees")
    parser.add_argument("--scale", help="such as 1:100; the largest that fits where it is not given")
    parser.add_argument("--paper", default="A3", help=", ".join(SIZES))
    parser.add_argument("--orientation", default="landscape", choices=ORIENTATIONS)
    parser.add_argument("-o", "--output", type=Path, help=f"OUT with one of {', '.join(FORMS)}")
    parser.add_argument("--pens", default=PENS, help=f"{', '.join(PEN_TABLES)}, or a JSON file of a pen table")
    parser.add_argument("--colour", default="full", choices=TREATMENTS[:-1], help="full colour, grey, or all black")
    parser.add_argument("--resolution", type=int, default=300, choices=RESOLUTIONS, help="of a PNG, pixels to the inch")
    _add_file_options(parser.add_argument_group("the file"))
    _add_view_options(parser.add_argument_group("the view"))
    given = parser.parse_args(arguments)
    if not given.list and not (given.view and given.output):
        parser.error("give --view and -o, or --list")
    if given.output and given.output.suffix.lower() not in FORMS:
        parser.error(f"“{given.output.name}” is to end in {', '.join(FORMS)}")
    try:
        return _run(given)
    except (DraftingError, OSError) as error:
        print(f"dunefold draw: {error}", file=sys.stderr)
        return 1


def _add_file_options(group: argparse._ArgumentGroup) -> None:
    group.add_argument("--unit", choices=UNITS, help="the unit of its figures, also where the file says it wrongly")
    group.add_argument("--up", choices=UP_AXES, help="the file's axis that points up")


def _add_view_options(group: argparse._ArgumentGroup) -> None:
    group.add_argument("--near", type=float, metavar="MM", help="elevation: cut away what is nearer than this")
    group.add_argument("--depth", type=float, metavar="MM", help="how far is seen from the cut or the nearest point")
    group.add_argument("--crease", type=float, metavar="DEGREES", help="sharper creases than this are edges")
    group.add_argument("--seams", action="store_true", help="draw seams between touching elements of one material")
    group.add_argument("--hidden", action="store_true", help="draw hidden lines")
    group.add_argument("--overhead", action="store_true", help="plan: draw what hangs above the cut")
    group.add_argument("--far", type=float, metavar="MM", help="lines further off than this are far lines")
    group.add_argument("--bands", metavar="MM,MM,...", help="distances at which pens may change")
    for name, what in (("layer", "a layer"), ("storey", "a storey"), ("class", "a class of elements")):
        group.add_argument(f"--without-{name}", action="append", metavar="NAME", help=f"leave out {what}; repeatable")
    group.add_argument("--without", action="append", metavar="ID", help="leave out an element; repeatable")
    group.add_argument("--only", action="append", metavar="ID", help="draw this element alone; repeatable")


def _view_of(given: argparse.Namespace) -> ViewSpec:
    """The view that was typed, with its options."""
    view = parse_view(given.view).as_dict()
    figures = {"near": given.near, "depth": given.depth}
    # A detail is limited where the view it is of is.
    limited = view["of"] if view["kind"] == "detail" else view
    limited |= {name: value for name, value in figures.items() if value is not None}
    try:
        bands = tuple(float(x) for x in given.bands.split(",")) if given.bands else ()
    except ValueError:
        raise ViewError(f"“{given.bands}” are no depth bands; give distances in mm with commas.") from None
    wanted = {"crease": given.crease, "far": given.far}
    treatment = {name: value for name, value in wanted.items() if value is not None}
    treatment |= {"seams": given.seams, "hidden": given.hidden, "overhead": given.overhead, "bands": bands}
    shown = {
        "without_layers": given.without_layer,
        "without_storeys": given.without_storey,
        "without_classes": given.without_class,
        "without": given.without,
        "only": given.only,
    }
    return ViewSpec.from_dict(view | {"treatment": treatment, "shown": {k: v for k, v in shown.items() if v}})


def _run(given: argparse.Namespace) -> int:
    # What was typed is looked at before the file is, which may take long.
    view = None if given.list else _view_of(given)
    paper = Paper.of(given.paper, given.orientation)
    scale = Scale.parse(given.scale) if given.scale else None
    pens = _pens(given.pens)
    building = read_building(given.file, unit=given.unit, up=given.up)
    for warning in building.warnings:
        print(f"note: {warning}", file=sys.stderr)
    if view is None:
        _list(building)
        return 0
    if view.kind == "plan":
        view = replace(view, storey=building.storey_named(view.storey).name)
    linework = draw(building, view)
    for note in linework.notes:
        print(f"note: {note}", file=sys.stderr)
    form = given.output.suffix.lower().removeprefix(".")
    if form == "json":
        data = linework.to_json()
    else:
        sheet = sheet_for(given.file.stem, linework, view, paper, scale)
        page = whole_page(coloured(compose(sheet, pens), given.colour), view.title)
        told = Told(view.title, resolution=given.resolution)
        data, _ = write_file(form, [page], lambda _: linework, no_picture, told)
    given.output.write_bytes(data)
    return 0


def _pens(named: str) -> PenTable:
    """A pen table that ships, or one of a file.

    Raises:
        SheetError: there is none, or the file holds none.
    """
    if named in PEN_TABLES:
        return PEN_TABLES[named]
    file = Path(named)
    if not file.is_file():
        raise SheetError(f"“{named}” is no pen table. There are {', '.join(PEN_TABLES)}, or give a JSON file.")
    try:
        return PenTable.from_dict(json.loads(file.read_text()))
    except ValueError as error:
        raise SheetError(f"“{named}” is no JSON file: {error}.") from None


def sheet_for(name: str, linework: Linework, view: ViewSpec, paper: Paper, scale: Scale | None) -> Sheet:
    """A sheet with one viewport in its free area.

    Raises:
        SheetError: the drawing at this scale is larger than the sheet.
    """
    placed = place_view(linework.extents, Blank(paper, STANDARD), scale=scale)
    viewport = replace(placed, id="1", linework="1", number="1", name=view.title, to_scale=view.to_scale)
    return Sheet(paper, {"project": name, "title": view.title}, (viewport,))


def _list(building: Building) -> None:
    print(f"{building.schema}, drawn in {building.unit}s, {len(building.elements)} elements")
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
