"""What differs between two states of a sheet: as a list, and as lines that have come and gone."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from drafting.geometry.boxes import Point, union
from drafting.geometry.polylines import Floats, Polylines
from drafting.geometry.sampling import pieces_of, sampled, within
from drafting.issuing.difference import Difference, DifferenceKind
from drafting.issuing.frozen import FrozenSheet
from drafting.issuing.line_changes import clusters_of, missing_from, stretches_of
from drafting.render import cloud_items, drawing_list, drawing_title, template_items
from drafting.render.backend import Sources
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Drawing, Item, Path, Text, parts_of
from drafting.render.placed import PlacedDrawing
from drafting.sheets.fields import FIELDS
from drafting.sheets.scale import Scale

#: Places that differ by less are the same; words as near as this to others stand in their place; paper mm.
SAME, BESIDE = 0.05, 25.0
#: What says of a sheet when it was, and is listed as no change of its own.
_PASSING = ("plot_date", "date", "revision", "file_name", "sheet_of", "drawings", "scale", "paper")


class Words(NamedTuple):
    """Words that have come or gone, as they stand on the newer sheet."""

    text: Text
    new: bool


@dataclass(frozen=True, eq=False)
class Comparison:
    """What differs between two states of a sheet.

    Attributes:
        gone, come: (n, 2, 2) the ends of straight pieces, mm of the newer sheet.
        words: what was lettered before, and what is now.
    """

    before: FrozenSheet
    after: FrozenSheet
    differences: tuple[Difference, ...]
    gone: Floats
    come: Floats
    words: tuple[Words, ...]


def compare(
    before: FrozenSheet, after: FrozenSheet, sources: Sources, *, ignore_moves: bool = True
) -> Comparison:
    """Compare two states of a sheet.

    Args:
        sources: the linework that both name.
        ignore_moves: whether what has only moved as a whole on the paper is the same; it is listed all the
            same.
    """
    own, others = _drawings(before), _drawings(after)
    differences = [*_of_the_sheet(before, after)]
    gone, come, words = [], [], []
    for key in [*others, *(key for key in own if key not in others)]:
        old, new = own.get(key), others.get(key)
        name = (after.drawings.get(key) or before.drawings.get(key)) or "A drawing"
        if old is None and new is not None:
            differences.append(Difference("added", f"“{name}” was added.", key, bounds_of(new)))
        elif old is not None and new is None:
            differences.append(Difference("removed", f"“{name}” was removed.", key, bounds_of(old)))
        found = list(_of_a_drawing(old, new, name, key)) if old and new else []
        differences += found
        shift = _shift(old, new) if old and new and ignore_moves else (0.0, 0.0)
        lost, made = _lines(old, new, before, after, key, shift, sources)
        gone.append(lost)
        come.append(made)
        if old is not None and new is not None:
            differences += _places(f"“{name}”: what is drawn differs", key, lost, made)
        words += _texts(before, after, key, shift)
    lost, made = _lines(None, None, before, after, "", (0.0, 0.0), sources)
    gone.append(lost)
    come.append(made)
    differences += _places("What is drawn on the sheet itself differs", "", lost, made)
    words += _texts(before, after, "", (0.0, 0.0))
    differences += _of_words(words)
    return Comparison(
        before, after, tuple(differences), np.concatenate(gone), np.concatenate(come), tuple(words)
    )


def _places(words: str, key: str, lost: Floats, made: Floats) -> Iterable[Difference]:
    """The places where lines have come or gone, counted where there are several."""
    boxes = clusters_of(np.concatenate([lost, made]))
    for k, box in enumerate(boxes, 1):
        place = f" (place {k} of {len(boxes)})" if len(boxes) > 1 else ""
        yield Difference("lines", f"{words}{place}.", key, box)


def _drawings(sheet: FrozenSheet) -> dict[str, Drawing]:
    return {item.viewport: item for item in sheet.display.drawings}


def _of_the_sheet(before: FrozenSheet, after: FrozenSheet) -> Iterable[Difference]:
    """Paper, revision, and what the title block says."""
    if (before.width, before.height) != (after.width, after.height):
        sizes = f"{before.paper_name} ({before.width:g} x {before.height:g} mm)"
        yield Difference("paper", f"{sizes} is now {after.paper_name} ({after.width:g} x {after.height:g}).")
    boxes = {each.field: each.box for each in after.display.fields}
    if before.revision != after.revision:
        words = f"Revision {before.revision or '–'} is now {after.revision or '–'}."
        yield Difference("revision", words, "", boxes.get("revision"))
    for key in FIELDS:
        old, new = before.field_values.get(key, ""), after.field_values.get(key, "")
        if old != new and key not in _PASSING:
            words = f"{FIELDS[key].caption}: “{old or '–'}” is now “{new or '–'}”."
            yield Difference("field", words, "", boxes.get(key))


def _of_a_drawing(old: Drawing, new: Drawing, name: str, key: str) -> Iterable[Difference]:
    """How a viewport was changed as a whole."""
    box = bounds_of(new)
    if not math.isclose(old.ratio, new.ratio, rel_tol=1e-9):
        words = f"“{name}”: {_scale(old.ratio)} is now {_scale(new.ratio)}."
        yield Difference("scale", words, key, box)
        return
    dx, dy = new.clip[0][0] - old.clip[0][0], new.clip[0][1] - old.clip[0][1]
    moved = [(x + dx, y + dy) for x, y in old.clip]
    if _apart(moved, new.clip):
        yield Difference("cropped", f"“{name}” shows another part of its view.", key, box)
    elif math.hypot(dx, dy) > SAME:
        yield Difference("moved", f"“{name}” was moved by {dx:+.1f}, {dy:+.1f} mm.", key, box)
    if (old.pens, old.layers, old.cuts) != (new.pens, new.layers, new.cuts):
        yield Difference("pens", f"“{name}” is drawn with other pens or fills.", key, box)


def _scale(ratio: float) -> str:
    return str(Scale.parse(f"1:{1 / ratio:.10g}")) if ratio <= 1 else f"{ratio:g}:1"


def _apart(a: Sequence[Point], b: Sequence[Point]) -> bool:
    return len(a) != len(b) or any(math.dist(p, q) > SAME for p, q in zip(a, b, strict=True))


def _shift(old: Drawing, new: Drawing) -> Point:
    """By how much a drawing has moved on the paper as a whole."""
    if not math.isclose(old.ratio, new.ratio, rel_tol=1e-9) or old.turn != new.turn:
        return 0.0, 0.0
    return new.place[0] - old.place[0], new.place[1] - old.place[1]


def _compared(item: Item, key: str) -> bool:
    """Whether an item belongs to what is compared as a drawing: title blocks are compared by their fields,
    the list of drawings follows the sheets, and clouds say themselves what has changed."""
    derived = (template_items.LAYER, drawing_list.LAYER, cloud_items.LAYER)
    return getattr(item, "viewport", "") == key and getattr(item, "layer", "") not in derived


def _flat(sheet: FrozenSheet, key: str) -> list[Item]:
    return [part for item in sheet.display.items if _compared(item, key) for part in parts_of(item)]


def _lines(
    old: Drawing | None,
    new: Drawing | None,
    before: FrozenSheet,
    after: FrozenSheet,
    key: str,
    shift: Point,
    sources: Sources,
) -> tuple[Floats, Floats]:
    """The parts of lines that have gone and that have come, of a viewport with its marks, or of the bare
    sheet; mm of the newer sheet."""
    outlines: list[Sequence[Point]] = [[(x + shift[0], y + shift[1]) for x, y in old.clip]] if old else []
    outlines += [new.clip] if new else []
    a = sampled(_pieces(before, key) + np.array(shift))
    b = sampled(_pieces(after, key))
    if old is None or new is None or not _drawn_alike(old, new, shift):
        drawn_a = within(sampled(_drawn(old, sources) + np.array(shift)), outlines)
        drawn_b = within(sampled(_drawn(new, sources)), outlines)
    else:
        drawn_a = drawn_b = sampled(np.empty((0, 2, 2)))
    return (
        np.concatenate([stretches_of(missing_from(drawn_a, drawn_b)), stretches_of(missing_from(a, b))]),
        np.concatenate([stretches_of(missing_from(drawn_b, drawn_a)), stretches_of(missing_from(b, a))]),
    )


def _drawn_alike(old: Drawing, new: Drawing, shift: Point) -> bool:
    """Whether two show the same lines in the same places, once the older is shifted."""
    place = old.place[0] + shift[0], old.place[1] + shift[1]
    return math.dist(place, new.place) < SAME and replace(old, clip=new.clip, place=new.place) == new


def _drawn(item: Drawing | None, sources: Sources) -> Floats:
    if item is None:
        return np.empty((0, 2, 2))
    placed = PlacedDrawing(item, sources.linework(item.linework))
    return pieces_of([lines for _, _, lines in placed.line_groups()])


def _pieces(sheet: FrozenSheet, key: str) -> Floats:
    """The straight pieces of the marks and annotation of a viewport, or of the bare sheet."""
    paths = (
        item for item in _flat(sheet, key) if isinstance(item, Path) and item.layer != drawing_title.LAYER
    )
    lines = [(*path.points, path.points[0]) if path.closed else path.points for path in paths]
    return pieces_of([Polylines.of(lines)]) if lines else np.empty((0, 2, 2))


def _texts(before: FrozenSheet, after: FrozenSheet, key: str, shift: Point) -> list[Words]:
    """The words of a viewport, or of the bare sheet, that have come or gone."""

    def known(sheet: FrozenSheet, by: Point) -> Counter[tuple[str, int, int]]:
        return Counter(_told(text, by) for text in _flat(sheet, key) if isinstance(text, Text))

    old, new = known(before, shift), known(after, (0.0, 0.0))
    found = []
    for sheet, by, theirs, is_new in ((before, shift, new, False), (after, (0.0, 0.0), old, True)):
        left = theirs.copy()
        for text in _flat(sheet, key):
            if isinstance(text, Text) and text.text.strip():
                told = _told(text, by)
                near = [(told[0], told[1] + i, told[2] + j) for i in (0, 1, -1) for j in (0, 1, -1)]
                same = next((each for each in near if left[each] > 0), None)
                if same:
                    left[same] -= 1
                else:
                    moved = replace(text, at=(text.at[0] + by[0], text.at[1] + by[1]))
                    found.append(Words(moved, is_new))
    return found


def _told(text: Text, by: Point) -> tuple[str, int, int]:
    """What tells lettering from other: what it says, and where to half a millimetre; of a drawing's title,
    which follows its outline, what it says alone."""
    if text.layer == drawing_title.LAYER:
        return text.text, 0, 0
    return text.text, round((text.at[0] + by[0]) * 2), round((text.at[1] + by[1]) * 2)


def _of_words(words: Sequence[Words]) -> Iterable[Difference]:
    """Words that have become others where they stand, and those that have come or gone."""
    by_place: dict[tuple[str, str], tuple[list[Text], list[Text]]] = defaultdict(lambda: ([], []))
    for text, new in words:
        by_place[text.viewport, text.layer][new].append(text)
    for (viewport, layer), (old, made) in by_place.items():
        kind: DifferenceKind = "dimension" if layer == "Dimensions" else "text"
        left = list(made)
        for text in old:
            box = bounds_of(text)
            beside = min(left, key=lambda other: math.dist(other.at, text.at), default=None)
            if beside is not None and math.dist(beside.at, text.at) < BESIDE:
                left.remove(beside)
                both = union([box, bounds_of(beside)])
                moved = beside.text == text.text
                said = f"“{text.text}” was moved." if moved else f"“{text.text}” is now “{beside.text}”."
                yield Difference(kind, said, viewport, both)
            else:
                yield Difference(kind, f"“{text.text}” is gone.", viewport, box)
        for text in left:
            yield Difference(kind, f"“{text.text}” is new.", viewport, bounds_of(text))
