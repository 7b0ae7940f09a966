"""A set of sheets as rules look at it: everything composed, and how each drawing stands."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from drafting.geometry.boxes import Box, Point, intersection
from drafting.plotting.devices import Device
from drafting.render.backend import Sources
from drafting.render.display_list import DisplayList
from drafting.render.page import Page
from drafting.sheets import sheet as core
from drafting.sheets.viewport import Viewport
from drafting.views.spec import AnyView


@dataclass(frozen=True)
class Limit:
    """A figure that a rule goes by, which an office may set otherwise.

    Attributes:
        key: by which it is known within its rule.
        name, unit: what it is called on the screen.
        value: what it is where nobody has said otherwise.
        least, most: what it may be.
    """

    key: str
    name: str
    unit: str
    value: float
    least: float
    most: float


@dataclass(frozen=True)
class Datum:
    """What a version of the model is measured from: its storeys by name and elevation (mm), and true north
    (degrees from the model's y axis)."""

    levels: tuple[tuple[str, float], ...] = ()
    north: float | None = None


@dataclass(frozen=True)
class CheckedViewport:
    """A viewport.

    Attributes:
        view: the id of its view.
        state: how its drawing stands: undrawn, up_to_date, out_of_date, held.
        building: what is drawn of the building lies within it, paper mm; None where that is not known.
        datum: of the version of the model that it was drawn from; None where that is not known.
    """

    placed: Viewport
    view: str
    state: str
    building: Box | None = None
    datum: Datum | None = None

    @property
    def seen(self) -> Box:
        """Where something is drawn: the building within the outline."""
        box = self.placed.box
        return (intersection(box, self.building) if self.building else None) or box


@dataclass(frozen=True)
class CheckedSheet:
    """A sheet as it is composed and plotted.

    Attributes:
        template, pens: the ids of what it starts from and is drawn with.
        series: what sheets have in common that belong together, such as their discipline.
        number_warning: what is odd about its number; blank for nothing.
        page: as it is plotted; None where it cannot be.
        why_not: why it cannot be plotted.
        fingerprint: a hash of all that makes it another sheet.
        sources: what its drawings are drawn from; None where that is not looked at.
        issued: the revision and the fingerprint with which it was issued last; blank for never.
    """

    id: str
    sheet: core.Sheet
    display: DisplayList
    viewports: tuple[CheckedViewport, ...] = ()
    template: str = ""
    pens: str = ""
    series: str = ""
    number_warning: str = ""
    device: Device | None = None
    page: Page | None = None
    why_not: str = ""
    fingerprint: str = ""
    issued: tuple[str, str] = ("", "")
    sources: Sources | None = None

    @property
    def number(self) -> str:
        return self.sheet.field_values.get("number", "")


@dataclass(frozen=True)
class CheckedView:
    """A saved view, and how often it is placed."""

    id: str
    name: str
    spec: AnyView
    places: int = 0


@dataclass(frozen=True)
class UnansweredComment:
    """A comment that waits for an answer: its number, who says it and what, the id of its sheet (blank for
    none), and where on that, paper mm."""

    number: int
    author: str
    text: str
    sheet: str = ""
    at: Point | None = None


@dataclass(frozen=True)
class CheckedSet:
    """All sheets of a project in register order, its views, and what there is to know of its building.

    Attributes:
        storeys: their names.
        failed: names of elements that could not be read from the building file.
        datum: of the newest version of the model.
        limits: those that the office has set, by rule and limit: `too-small.text`.
        unanswered: comments that wait for an answer.
        has_ground: whether the newest version of the model has terrain, or ground that was given.
        uncomposed: the ids of sheets that cannot be composed, and why.
    """

    sheets: tuple[CheckedSheet, ...] = ()
    views: tuple[CheckedView, ...] = ()
    storeys: tuple[str, ...] = ()
    failed: tuple[str, ...] = field(default=())
    limits: Mapping[str, float] = field(default_factory=dict)
    datum: Datum = field(default_factory=Datum)
    unanswered: tuple[UnansweredComment, ...] = ()
    has_ground: bool = True
    uncomposed: tuple[tuple[str, str], ...] = ()

    def limit(self, rule: str, limit: Limit) -> float:
        """A figure that a rule goes by here."""
        return self.limits.get(f"{rule}.{limit.key}", limit.value)

    def each_viewport(self) -> Iterator[tuple[CheckedSheet, CheckedViewport]]:
        """Every viewport with its sheet."""
        for sheet in self.sheets:
            for viewport in sheet.viewports:
                yield sheet, viewport
