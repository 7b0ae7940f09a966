"""Words that lie over other words: neither can be read."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import shapely

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Text

#: Letters may come so near to each other, mm: their boxes have room above small letters.
_SLACK = 0.35


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        texts = [item for item in sheet.display.flat_items if isinstance(item, Text) and item.text.strip()]
        boxes = [bounds_of(item) for item in texts]
        if not boxes:
            continue
        low = np.array([(box.x, box.y) for box in boxes]) + _SLACK
        high = np.maximum(np.array([(box.right, box.top) for box in boxes]) - _SLACK, low + _SLACK)
        shapes = shapely.box(*low.T, *high.T)
        for a, b in shapely.STRtree(shapes).query(shapes, predicate="intersects").T.tolist():
            # The boxes about turned words say little; only those that are level are compared.
            level = all(abs(texts[k].turn % 90) < 1e-6 for k in (a, b))
            if a < b and level and _outside_a_template(texts[a], texts[b]):
                words = f"“{texts[a].text}” and “{texts[b].text}” lie over each other. Move one of them."
                at = boxes[a].middle
                yield Found.on(sheet, words, subject=f"{texts[a].text}/{texts[b].text}", at=at)


def _outside_a_template(a: Text, b: Text) -> bool:
    """Whether one of two belongs to a drawing: what a template has over itself is its own affair."""
    return bool(a.viewport or b.viewport)


RULE = Rule("text-over-text", "Words over words", "error", _find)
