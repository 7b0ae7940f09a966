"""What is to be known of a print before it is made: what is cut off, and what is too small to be read."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from drafting.annotation.pieces import NAMES
from drafting.geometry.boxes import Box, intersection, union
from drafting.plotting.devices import Device
from drafting.render.backends.extents import bounds_of
from drafting.render.display_list import DisplayList
from drafting.render.items import Drawing, Path, Text
from drafting.render.page import Page
from drafting.styles.lettering import MIN_TEXT_HEIGHT
from drafting.styles.pens import NARROWEST

#: A line or a corner is beyond a margin by more than this, or it is only rounded so; mm.
ROUNDING = 0.02


@dataclass(frozen=True)
class CutOff:
    """Something that the device cannot print whole: what it is, and where that lies on the paper, mm."""

    what: str
    box: Box


def cut_off(page: Page, device: Device, names: Mapping[str, str]) -> list[CutOff]:
    """What of a page lies beyond what its device prints, or beyond the paper; `names` are those of viewports,
    by id."""
    printable = device.printable(page.paper)
    slack = Box(
        printable.x - ROUNDING,
        printable.y - ROUNDING,
        printable.width + 2 * ROUNDING,
        printable.height + 2 * ROUNDING,
    )
    beyond: dict[str, list[Box]] = defaultdict(list)
    for item in page.display.items:
        box = page.on_paper(bounds_of(item))
        seen = box if page.window is None else intersection(box, page.window)
        if seen is not None and not slack.holds(seen):
            what = names.get(item.viewport, "A viewport") if isinstance(item, Drawing) else item.layer
            beyond[what].append(seen)
    return [CutOff(what, union(boxes)) for what, boxes in beyond.items()]


def annotation_warnings(display: DisplayList) -> list[str]:
    """The annotation that no longer says what was meant when it was made; each piece once."""
    wrong = {piece.piece: piece for piece in display.pieces if piece.standing != "followed"}
    became = {"changed": "has changed", "lost": "is lost"}
    return [
        f"The {NAMES[piece.kind]} “{piece.text}” {became[piece.standing]}: {piece.words}."
        for piece in wrong.values()
    ]


def print_warnings(page: Page, device: Device, lost: Iterable[CutOff]) -> list[str]:
    """What would embarrass the office on this print: what is cut off, and what is too small to be read."""
    name = device.name.lower()
    warnings = [
        f"{each.what}: cut off at the {_sides(page, device, each.box)} of the {name}." for each in lost
    ]
    if page.scale < 1 - 1e-9:
        smallest = (
            min((i.size for i in page.display.flat_items if isinstance(i, Text)), default=MIN_TEXT_HEIGHT)
            * page.scale
        )
        if smallest < MIN_TEXT_HEIGHT - 1e-6:
            warnings.append(
                f"Lettering is as small as {smallest:.2f} mm here; under {MIN_TEXT_HEIGHT:g} mm it may "
                f"not read."
            )
        thinnest = min(widths(page.display), default=NARROWEST) * page.scale
        if thinnest < NARROWEST - 1e-6:
            warnings.append(
                f"Lines are as narrow as {thinnest:.3f} mm here; under {NARROWEST:g} mm they may be lost."
            )
    return warnings


def widths(display: DisplayList) -> Iterator[float]:
    """The widths of all lines of a sheet, paper mm."""
    for item in display.flat_items:
        if isinstance(item, Path):
            yield item.pen.width
        elif isinstance(item, Drawing):
            yield from (pen.width for pen in item.pens.values())
            yield from (cut.width for cut in item.cuts if cut.hatch)


def _sides(page: Page, device: Device, box: Box) -> str:
    printable = device.printable(page.paper)
    sides = {
        "left": box.x < printable.x - ROUNDING,
        "bottom": box.y < printable.y - ROUNDING,
        "right": box.right > printable.right + ROUNDING,
        "top": box.top > printable.top + ROUNDING,
    }
    *some, last = [name for name, is_beyond in sides.items() if is_beyond]
    return f"{', '.join(some)} and {last} margins" if some else f"{last} margin"
