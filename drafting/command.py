"""`dunefold draw`: one view of a building file to PDF, SVG or JSON, without the server."""

from __future__ import annotations

import argparse
import sys
from dataclasses import replace
from pathlib import Path

from drafting.building.ifc import read_ifc
from drafting.building.model import Building
from drafting.errors import DraftingError, NotReachedError
from drafting.linework.engine import draw
from drafting.linework.model import Linework
from drafting.plot.compose import compose
from drafting.plot.pdf import write_pdf
from drafting.plot.svg import write_svg
from drafting.sheets.paper import ORIENTATIONS, SIZES, Paper
from drafting.sheets.placing import place_view
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet, TitleFields
from drafting.views.spec import ViewSpec, parse_view

VIEWS = "plan:STOREY[@CUT], roof, elevation:SIDE, section:X1,Y1,X2,Y2[@DEPTH], axonometric:CORNER"
FORMS = (".pdf", ".svg", ".json")


def main(arguments: list[str] | None = None) -> int:
    """Run the command; 0 when done, 1 when the input cannot be used, 2 when the request cannot be met."""
    parser = argparse.ArgumentParser(prog="dunefold draw", description=__doc__)
    parser.add_argument("file", type=Path, help="a building file (IFC)")
    parser.add_argument("--list", action="store_true", help="print storeys, layers and element counts")
    parser.add_argument(
        "--view", help="plan:STOREY[@CUT], roof, elevation:SIDE, section:X1,Y1,X2,Y2[@DEPTH], axonometric:CORNER"
    )
    parser.add_argument("--scale", help="such as 1:100; the largest that fits where it is not given")
    parser.add_argument("--paper", default="A3", help=", ".join(SIZES))
    parser.add_argument("--orientation", default="landscape", choices=ORIENTATIONS)
    parser.add_argument("-o", "--output", type=Path, help="OUT.pdf, OUT.svg or OUT.json")
    given = parser.parse_args(arguments)
    if not given.list and not (given.view and given.output):
        parser.error("give --view and -o, or --list")
    if given.output and given.output.suffix.lower() not in FORMS:
        parser.error(f"“{given.output.name}” is to end in {', '.join(FORMS)}")
    try:
        return _run(given)
    except NotReachedError as error:
        print(f"dunefold draw: {error}", file=sys.stderr)
        return 2
    except (DraftingError, OSError) as error:
        print(f"dunefold draw: {error}", file=sys.stderr)
        return 1


def _run(given: argparse.Namespace) -> int:
    # What was typed is looked at before the file is, which may take long.
    view = None if given.list else parse_view(given.view)
    paper = Paper.of(given.paper, given.orientation)
    scale = Scale.parse(given.scale) if given.scale else None
    building = read_ifc(given.file)
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
    data = _output(given.output.suffix.lower(), given.file.stem, linework, view, paper, scale)
    given.output.write_bytes(data)
    return 0


def _output(form: str, name: str, linework: Linework, view: ViewSpec, paper: Paper, scale: Scale | None) -> bytes:
    if form == ".json":
        return linework.to_json()
    sheet = sheet_for(name, linework, view, paper, scale)
    display = compose(sheet)
    if form == ".svg":
        return write_svg(display, lambda _: linework, sheet.fields.title)
    return write_pdf([(sheet.fields.title, display)], lambda _: linework, sheet.fields.title)


def sheet_for(name: str, linework: Linework, view: ViewSpec, paper: Paper, scale: Scale | None) -> Sheet:
    """A sheet with one viewport in its free area.

    Raises:
        SheetError: the drawing at this scale is larger than the sheet.
    """
    viewport = replace(
        place_view(linework.extents, paper, scale=scale), id="1", linework="1", number="1", name=view.title
    )
    return Sheet(paper, TitleFields(project=name, title=view.title), (viewport,))


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
