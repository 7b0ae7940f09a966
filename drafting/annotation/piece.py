"""What every kind of annotation answers, and how a piece stands to the drawing that it is on."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal, Self, get_args

from pydantic import Field

from drafting.annotation.anchors import Anchor, ElementCorners, followed
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.views.spec import AnyView

#: How a piece stands: all that it is attached to is where it was or was found again; a length has changed; or
#: something is gone.
Standing = Literal["followed", "changed", "lost"]
STANDINGS: tuple[Standing, ...] = get_args(Standing)

#: The id of a named style of the project; blank for none.
Named = Annotated[str, Field(max_length=40)]

#: The corners of an element in the drawing that a piece is on; None where it shows nothing of it.
CornersOf = Callable[[str], ElementCorners | None]


@dataclass(frozen=True)
class Location:
    """Where the anchors of a piece lie now, how it stands, and what there is to say of it: the old and the
    new figures of what has changed, or what is gone."""

    at: tuple[Point, ...]
    standing: Standing
    words: str = ""


class BasePiece(ABC):
    """A piece of annotation. Each kind is a frozen dataclass with the figures that belong to it.

    Attributes:
        name: what it is called in a sentence.
    """

    name: ClassVar[str]

    @property
    @abstractmethod
    def anchors(self) -> tuple[Anchor, ...]:
        """All that it is attached to."""

    @abstractmethod
    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        """The same attached to others, as many as it has."""

    @property
    def typed_over(self) -> bool:
        """Whether something is typed over a true figure."""
        return False

    def changes(self, at: Sequence[Point]) -> str:
        """What has changed of what it says, where its anchors lie at `at`; blank for nothing."""
        return ""

    def locate(self, corners_of: CornersOf) -> Location:
        """Where its anchors lie in a drawing now, and whether that has changed what it says."""
        found = [
            followed(anchor, corners_of(anchor.element) if anchor.element else None)
            for anchor in self.anchors
        ]
        at = tuple(where.at for where in found)
        lost = sum(where.state == "lost" for where in found)
        if lost:
            points = f"what {lost} of its {len(found)} points are on"
            gone = "what it is attached to" if len(found) == 1 else points
            return Location(at, "lost", f"{gone} is no longer in this drawing")
        words = self.changes(at)
        return Location(at, "changed" if words else "followed", words)

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:  # noqa: B027
        """Refuse what would be untrue where it stands.

        Args:
            view: the view that it is on; None for a piece on the bare sheet.
            upright: whether heights are seen in it.

        Raises:
            SheetError: it measures a view that has no true lengths, or no view at all, or it says nothing.
        """


def need_true_lengths(view: AnyView | None, name: str) -> None:
    """Refuse to measure where lengths are not those of the building.

    Raises:
        SheetError: there is no view, or its lengths are foreshortened.
    """
    if view is None:
        raise SheetError(f"A {name} measures a drawing. Begin it on a viewport.")
    if not view.true_lengths:
        raise SheetError(
            f"Lengths are foreshortened in “{view.title}”: a {name} would be untrue there. "
            "Put it on a plan, an elevation or a section."
        )
