"""Materials that are cut and that the pen table neither fills nor hatches."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.render.items import Drawing
from drafting.render.placed import PlacedDrawing

#: More names are counted.
MAX_NAMED = 3


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        if sheet.sources is None:
            continue
        by_id = {viewport.placed.id: viewport for viewport in sheet.viewports}
        for item in sheet.display.items:
            viewport = by_id.get(item.viewport) if isinstance(item, Drawing) else None
            # A pen table that fills nothing at all means it so.
            if not isinstance(item, Drawing) or viewport is None or not item.cuts:
                continue
            bare = PlacedDrawing(item, sheet.sources.linework(item.linework)).unfilled_materials()
            if bare:
                names = ", ".join(f"“{name}”" if name else "no material" for name in bare[:MAX_NAMED])
                more = f" and {len(bare) - MAX_NAMED} more" if len(bare) > MAX_NAMED else ""
                words = f"What is cut of {names}{more} is blank: the pen table has no fill or hatch for it."
                yield Found.on(sheet, words, viewport)


RULE = Rule("cuts-unhatched", "Cuts without fill or hatch", "notice", _find)
