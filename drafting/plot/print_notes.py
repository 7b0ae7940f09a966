"""What is to be known of a print before it is made: what is cut off, and what is too small to be read."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from drafting.plot.devices import Device
from drafting.plot.display import DisplayList, Drawing, Path, Text
from drafting.plot.extents import bounds_of, common, union
from drafting.plot.lettering import LEAST
from drafting.plot.page import Page
from drafting.plot.pens import NARROWEST
from drafting.sheets.viewport import Box

#: A line or a corner is beyond a margin by more than this, or it is only rounded so; mm.
HAIR = 0.02


@dataclass(frozen=True)
class CutOff:
    """Something that the device cannot print whole: what it is, and where that lies on the paper, mm."""

    what: str
    box: Box


def cut_off(page: Page, device: Device, names: Mapping[str, str]) -> list[CutOff]:
    """What of a page lies beyond what its device prints, or beyond the paper; `names` are those of viewports, by id."""
    printable = device.printable(page.paper)
    hair = Box(printable.x - HAIR, printable.y - HAIR, printable.width + 2 * HAIR, printable.height + 2 * HAIR)
    beyond: dict[str, list[Box]] = defaultdict(list)
    for item in page.display.items:
        box = page.on_paper(bounds_of(item))
        seen = box if page.window is None else common(box, page.window)
        if seen is not None and not hair.holds(seen):
            what = names.get(item.viewport, "A viewport") if isinstance(item, Drawing) else item.layer
            beyond[what].append(seen)
    return [CutOff(what, union(boxes)) for what, boxes in beyond.items()]


def notes_on(page: Page, device: Device, lost: Iterable[CutOff]) -> list[str]:
    """What would embarrass the office on this print: what is cut off, and what is too small to be read."""
    name = device.name.lower()
    notes = [f"{each.what}: cut off at the {_sides(page, device, each.box)} of the {name}." for each in lost]
    if page.scale < 1 - 1e-9:
        smallest = min((i.size for i in page.display.items if isinstance(i, Text)), default=LEAST) * page.scale
        if smallest < LEAST - 1e-6:
            notes.append(f"Lettering is as small as {smallest:.2f} mm here; under {LEAST:g} mm it may not read.")
        thinnest = min(_widths(page.display), default=NARROWEST) * page.scale
        if thinnest < NARROWEST - 1e-6:
            notes.append(f"Lines are as narrow as {thinnest:.3f} mm here; under {NARROWEST:g} mm they may be lost.")
    return notes


def _widths(display: DisplayList) -> Iterator[float]:
    for item in display.items:
        if isinstance(item, Path):
            yield item.pen.width
        elif isinstance(item, Drawing):
            yield from (pen.width for pen in item.pens.values())
            yield from (cut.width for cut in item.cuts if cut.hatch)


def _sides(page: Page, device: Device, box: Box) -> str:
    printable = device.printable(page.paper)
    sides = {
        "left": box.x < printable.x - HAIR,
        "bottom": box.y < printable.y - HAIR,
        "right": box.right > printable.right + HAIR,
        "top": box.top > printable.top + HAIR,
    }
    *some, last = [name for name, is_beyond in sides.items() if is_beyond]
    return f"{', '.join(some)} and {last} margins" if some else f"{last} margin"
