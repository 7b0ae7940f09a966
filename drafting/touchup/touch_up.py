"""A touch-up as it is kept: what it chooses of a drawing, and what becomes of that."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

from drafting.annotation.anchors import Anchor, described
from drafting.errors import ViewError
from drafting.linework.model import Role
from drafting.schema import CLOSED, Flag, dump, parse
from drafting.styles.pen_table import CutStyle, StrokeChange
from drafting.styles.redrawn import Redrawn
from drafting.touchup.choices import AlikeChoice, AnyChoice, AreaChoice, ExtensionChoice, Name
from drafting.touchup.drawing import NOTHING, TouchedDrawing


@dataclass(frozen=True)
class TouchUpChange:
    """What becomes of what is chosen.

    Attributes:
        hidden: whether it is left out.
        role: the line role whose pen its lines get; None for their own.
        stroke: how their pen differs from that.
        cut: how areas are filled; None for as their material says.
    """

    __pydantic_config__ = CLOSED

    hidden: Flag = False
    role: Role | None = None
    stroke: StrokeChange = field(default_factory=StrokeChange)
    cut: CutStyle | None = None

    @property
    def of_lines(self) -> bool:
        return self.role is not None or self.stroke != StrokeChange()


@dataclass(frozen=True)
class TouchUp:
    """What is drawn otherwise in the drawings of a view.

    Attributes:
        view_kind: what kind of view it was made in; in one of another kind nothing is what it was.
    """

    __pydantic_config__ = CLOSED

    choice: AnyChoice
    change: TouchUpChange = field(default_factory=TouchUpChange)
    view_kind: Name = ""

    def attached(self, drawing: TouchedDrawing) -> TouchUp:
        """With new anchors, of which only place and element are known, told by the corners of a drawing."""

        def told(anchor: Anchor) -> Anchor:
            among = drawing.corners_of(anchor.element) if anchor.element and not anchor.ends else None
            return anchor if among is None else described(anchor.at, anchor.element, among)

        choice = self.choice.attached_to([told(each) for each in self.choice.anchors])
        return replace(self, choice=choice, view_kind=self.view_kind or drawing.view_kind)

    def redrawn(self, drawing: TouchedDrawing) -> Redrawn | None:
        """What it does to a drawing; None where it no longer finds there what it chooses."""
        chosen = self.choice.chosen(drawing) if self.view_kind == drawing.view_kind else NOTHING
        if not chosen:
            return None
        return Redrawn(
            self.change.hidden,
            self.change.role or chosen.role,
            self.change.stroke.change,
            chosen.whole,
            chosen.parts,
            chosen.areas,
            self.change.cut,
            chosen.added,
            chosen.layer,
        )


def parse_touch_up(given: Any) -> TouchUp:
    """The touch-up that `dump_touch_up` wrote.

    Raises:
        ViewError: a figure is missing, unknown or out of bounds; or it chooses nothing, or changes nothing.
    """
    touch_up: TouchUp = parse(TouchUp, given, "touch-up", ViewError)
    choice, change = touch_up.choice, touch_up.change
    if isinstance(choice, AlikeChoice) and not choice.says_something:
        raise ViewError("Say in what the lines are alike: an element, class, layer, role or length.")
    if isinstance(choice, ExtensionChoice) and change.hidden:
        raise ViewError("An extension that is hidden adds nothing. Delete it instead.")
    means = change.of_lines or isinstance(choice, ExtensionChoice)
    if isinstance(choice, AreaChoice):
        means = change.cut is not None
    if not (change.hidden or means):
        raise ViewError("The touch-up changes nothing. Hide what is chosen, or give it another pen or fill.")
    return touch_up


def dump_touch_up(touch_up: TouchUp) -> dict[str, Any]:
    """A touch-up as plain data; equal ones give equal data."""
    data: dict[str, Any] = dump(touch_up)
    return data
