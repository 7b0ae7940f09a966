"""A sheet as the core takes it: its paper and template, what its fields say, and what stands on it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Protocol

from drafting.sheets.fields import Revision, derived_fields
from drafting.sheets.paper import Paper
from drafting.sheets.picture import Picture
from drafting.sheets.scale import Scale
from drafting.sheets.template import Blank, TemplateSpec
from drafting.sheets.template_presets import STANDARD
from drafting.sheets.viewport import Viewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.sheets.words import SheetWords, words_in


@dataclass(frozen=True)
class DrawingList:
    """A list of the set's drawings on a sheet: its upper left corner (mm), and number, title, paper, scale
    and revision of each sheet, in register order; then its revision in each of `issues`, of which date and
    purpose are given."""

    at: tuple[float, float]
    rows: tuple[tuple[str, ...], ...]
    issues: tuple[tuple[str, str], ...] = ()


class Plottable(Protocol):
    """What plotting has to know of a sheet beside what is drawn on it."""

    @property
    def paper(self) -> Paper: ...

    @cached_property
    def field_values(self) -> Mapping[str, str]: ...

    @property
    def plot_date(self) -> str: ...

    @property
    def scales(self) -> tuple[Scale, ...]:
        """Those of the drawings on it that are to scale."""


@dataclass(frozen=True)
class Sheet:
    """A sheet ready to compose.

    Attributes:
        fields: what is given of FIELDS, by the project and for this sheet.
        overrides: what is typed over on this sheet alone, derived or not.
        place: its place in the set, and the number of sheets.
        marks: what is derived about each viewport, by its id of the viewport.
        pictures: by their keys, those that the template shows.
        unreadable: sentences about what stands on it but was damaged where it is stored, and is left out.
    """

    paper: Paper
    fields: Mapping[str, str] = field(default_factory=dict)
    viewports: tuple[Viewport, ...] = ()
    marks: Mapping[str, ViewportMarks] = field(default_factory=dict)
    drawing_list: DrawingList | None = None
    template: TemplateSpec = STANDARD
    overrides: Mapping[str, str] = field(default_factory=dict)
    revisions: tuple[Revision, ...] = ()
    place: tuple[int, int] = (1, 1)
    plot_date: str = ""
    pictures: Mapping[str, Picture] = field(default_factory=dict)
    unreadable: tuple[str, ...] = ()

    @cached_property
    def words(self) -> SheetWords:
        """What it says by itself, in the language of its project."""
        return words_in(self.fields.get("language", ""))

    @cached_property
    def blank(self) -> Blank:
        return Blank(self.paper, self.template)

    @property
    def scales(self) -> tuple[Scale, ...]:
        return tuple(v.scale for v in self.viewports if v.to_scale)

    @property
    def derived_values(self) -> dict[str, str]:
        """The value of each field where nothing is typed over it."""
        scales = [v.scale_text for v in self.viewports]
        names = [v.name for v in self.viewports if v.name]
        worked_out = derived_fields(
            self.fields,
            self.revisions,
            scales,
            self.paper.name,
            names,
            self.place,
            self.plot_date,
            self.words,
        )
        return {**worked_out, **self.fields}

    @cached_property
    def field_values(self) -> dict[str, str]:
        """The value of each field."""
        return {**self.derived_values, **self.overrides}
