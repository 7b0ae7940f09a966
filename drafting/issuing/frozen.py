"""A sheet as it was at one moment: all that is needed to plot it again to the byte, and to compare it."""

from __future__ import annotations

import gzip
import hashlib
import json
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from drafting.errors import SheetError
from drafting.render import drawing_list, template_items
from drafting.render.display_list import DisplayList
from drafting.schema import CLOSED, adapter, dump, parse
from drafting.sheets.fields import Revision
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.versions import KeptForm, as_it_is

#: In what form sheets are kept. The first said no version.
FORM = KeptForm("record of a sheet", 1, {0: as_it_is}, SheetError)
#: What a sheet says of itself that does not make it another one.
_PASSING = ("revision", "date", "plot_date", "file_name", "sheet_of")
#: What is drawn from these, and what says of every sheet how it stands.
_DERIVED_LAYERS = (template_items.LAYER, drawing_list.LAYER)


@dataclass(frozen=True)
class FrozenSheet:
    """A sheet as it was.

    Attributes:
        paper_name, width, height: of its paper, mm.
        field_values: what its title block says.
        scale_texts: those of the drawings on it that are to scale.
        drawings: the names of its viewports, by their ids.
        revisions: its revision table.
        display: all that was on it.
    """

    __pydantic_config__ = CLOSED

    paper_name: str
    width: float
    height: float
    field_values: Mapping[str, str]
    plot_date: str
    scale_texts: tuple[str, ...]
    drawings: Mapping[str, str]
    display: DisplayList
    revisions: tuple[Revision, ...] = field(default_factory=tuple)

    @property
    def paper(self) -> Paper:
        return Paper(self.paper_name, self.width, self.height)

    @cached_property
    def scales(self) -> tuple[Scale, ...]:
        return tuple(map(Scale.parse, self.scale_texts))

    @property
    def number(self) -> str:
        return self.field_values.get("number", "")

    @property
    def revision(self) -> str:
        return self.field_values.get("revision", "")

    @property
    def linework_keys(self) -> set[str]:
        """The keys of all drawings on it."""
        return {item.linework for item in self.display.drawings}

    @property
    def picture_keys(self) -> set[str]:
        """The keys of all pictures of pixels on it."""
        return {item.picture for item in self.display.pictures}

    @property
    def shaded_keys(self) -> set[str]:
        """The keys of those that show the building."""
        return {item.picture for item in self.display.shaded}


def freeze(sheet: Sheet, display: DisplayList) -> FrozenSheet:
    """A sheet as it is now; `display` is what it is composed to. What is frozen has been written and read, so
    that a file made of it now and one made of it in years are the same."""
    made = FrozenSheet(
        sheet.paper.name,
        sheet.paper.width,
        sheet.paper.height,
        dict(sheet.field_values),
        sheet.plot_date,
        tuple(str(scale) for scale in sheet.scales),
        {viewport.id: viewport.name for viewport in sheet.viewports},
        display,
        sheet.revisions,
    )
    return thaw(frozen_bytes(made))


def frozen_bytes(sheet: FrozenSheet) -> bytes:
    """A frozen sheet as a file; equal sheets give equal bytes."""
    return gzip.compress(_plain({"version": FORM.newest, **dump(sheet)}), mtime=0)


def thaw(data: bytes) -> FrozenSheet:
    """The sheet that `frozen_bytes` wrote.

    Raises:
        SheetError: it is none, or of a version that is not known here.
    """
    try:
        given = dict(json.loads(gzip.decompress(data)))
        version = int(given.pop("version", 0))
    except (OSError, EOFError, ValueError, TypeError) as error:
        raise SheetError("This record of a sheet is damaged. Restore it from a backup.") from error
    sheet: FrozenSheet = parse(FrozenSheet, FORM.brought_up(given, version), FORM.what, SheetError)
    return sheet


def fingerprint(sheet: Sheet, display: DisplayList) -> str:
    """A hash of all that makes a sheet another one: what is drawn, lettered and said on it, but for its
    revision, the dates of issue and plotting, and its place in the set."""
    values = {key: value for key, value in sheet.field_values.items() if key not in _PASSING}
    drawn = [item for item in display.items if getattr(item, "layer", "") not in _DERIVED_LAYERS]
    listed = [list(row[:4]) for row in sheet.drawing_list.rows] if sheet.drawing_list else []
    parts = [
        [sheet.paper.name, sheet.paper.width, sheet.paper.height],
        values,
        adapter(tuple[Any, ...]).dump_python(tuple(dump(item) for item in drawn), mode="json"),
        dump(sheet.template),
        listed,
    ]
    return hashlib.sha256(_plain(parts)).hexdigest()


def _plain(value: Any) -> bytes:
    return json.dumps(value, sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode()
