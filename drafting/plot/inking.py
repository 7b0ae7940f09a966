"""What a plot makes of pens and fills: colour treatments, all lines alike, nothing seen through."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import replace

from drafting.plot.display import DisplayList, Drawing, Fill, Image, Path, Text
from drafting.plot.pens import PAPER, Pen
from drafting.sheets.viewport import PenChange

#: As the pens are; in grey; all in black, with areas in grey; so too but for colours that are chosen.
TREATMENTS = ("full", "grey", "black", "chosen")
BLACK = "#000000"
#: Shares of red, green and blue in what the eye takes for lightness (ITU-R BT.709).
_LIGHTNESS = (0.2126, 0.7152, 0.0722)

Item = Path | Fill | Text | Image | Drawing


def coloured(display: DisplayList, treatment: str, kept: Collection[str] = ()) -> DisplayList:
    """A display list in the colours of a treatment. `kept` are the colours that a black plot keeps.

    White is paper, whatever the treatment: words that are left out of a dark field stay so. In black an area keeps how
    light it is, and a line its screening.
    """
    if treatment == "full":
        return display
    keeps = frozenset(kept) if treatment == "chosen" else frozenset()
    line = greyed if treatment == "grey" else _but(keeps, lambda _: BLACK)
    area = _but(keeps, greyed)
    return replace(display, items=tuple(_recoloured(item, line, area) for item in display.items))


def greyed(colour: str) -> str:
    """The grey that is as light as a colour."""
    parts = (int(colour[k : k + 2], 16) for k in (1, 3, 5))
    light = round(sum(share * part for share, part in zip(_LIGHTNESS, parts, strict=True)))
    return "#" + f"{light:02x}" * 3


def _but(kept: Collection[str], change: Callable[[str], str]) -> Callable[[str], str]:
    return lambda colour: colour if not colour or colour == PAPER or colour in kept else change(colour)


def _recoloured(item: Item, line: Callable[[str], str], area: Callable[[str], str]) -> Item:
    if isinstance(item, Image):
        return replace(item, grey=True)
    if isinstance(item, Path):
        return replace(item, pen=_pen(item.pen, line))
    if isinstance(item, Text):
        return replace(item, colour=line(item.colour))
    if isinstance(item, Fill):
        return replace(item, colour=area(item.colour))

    def changed(change: PenChange) -> PenChange:
        return replace(change, colour=line(change.colour) if change.colour else None)

    return replace(
        item,
        pens={role: _pen(pen, line) for role, pen in item.pens.items()},
        layers={name: changed(change) for name, change in item.layers.items()},
        cuts=tuple(replace(cut, fill=area(cut.fill), colour=line(cut.colour)) for cut in item.cuts),
        outline=_pen(item.outline, line) if item.outline else None,
    )


def _pen(pen: Pen, line: Callable[[str], str]) -> Pen:
    return replace(pen, colour=line(pen.colour))


def all_alike(display: DisplayList, width: float) -> DisplayList:
    """A display list whose lines all have one width, mm."""

    def narrow(item: Item) -> Item:
        if isinstance(item, Path):
            return replace(item, pen=replace(item.pen, width=width))
        if not isinstance(item, Drawing):
            return item
        return replace(
            item,
            pens={role: replace(pen, width=width) for role, pen in item.pens.items()},
            layers={name: replace(change, width=None) for name, change in item.layers.items()},
            cuts=tuple(replace(cut, width=width) for cut in item.cuts),
            outline=replace(item.outline, width=width) if item.outline else None,
        )

    return replace(display, items=tuple(narrow(item) for item in display.items))


def all_opaque(display: DisplayList) -> DisplayList:
    """A display list in which nothing is seen through."""

    def opaque(item: Item) -> Item:
        if isinstance(item, Fill):
            return replace(item, opacity=1.0)
        if isinstance(item, Drawing):
            return replace(item, cuts=tuple(replace(cut, opacity=100) for cut in item.cuts))
        return item

    return replace(display, items=tuple(opaque(item) for item in display.items))
