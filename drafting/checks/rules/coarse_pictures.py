"""Pictures of pixels that are too coarse for the size in which they are plotted."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet, Limit
from drafting.checks.findings import Found, Rule
from drafting.render.items import Image
from drafting.render.pixels import INCH

_KEY = "coarse-pictures"
#: Fewer pixels to the inch are seen as steps on paper.
MIN_RESOLUTION = Limit("pixels", "Pixels to the inch at least", "", 150.0, 30.0, 1200.0)


def _find(checked: CheckedSet) -> Iterator[Found]:
    least = checked.limit(_KEY, MIN_RESOLUTION)
    for sheet in checked.sheets:
        if sheet.page is None:
            continue
        pixels = {picture.key: picture.width for picture in sheet.sheet.pictures.values()}
        for item in sheet.page.display.items:
            if not isinstance(item, Image) or not item.box.width:
                continue
            resolution = pixels.get(item.picture, 0) / (item.box.width * sheet.page.scale / INCH)
            if 0 < resolution < least:
                words = (
                    f"A picture is plotted at {resolution:.0f} pixels to the inch; under {least:g} its steps "
                    "are seen. Take a larger picture, or show it smaller."
                )
                yield Found.on(sheet, words, subject=item.picture, at=item.box.middle)


RULE = Rule(_KEY, "Pictures too coarse", "warning", _find, (MIN_RESOLUTION,))
