"""What every kind of view has: how it treats its lines, what it shows, and the camera that it is drawn
with."""

from __future__ import annotations

from abc import abstractmethod
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar

from pydantic import Field

from drafting.building.model import Building
from drafting.errors import ViewError
from drafting.schema import CLOSED, Number
from drafting.views.camera import Camera
from drafting.views.line_settings import DEFAULT_LINE_SETTINGS, LineSettings
from drafting.views.shown import SHOW_ALL, Shown

Point2 = tuple[Number, Number]
Point3 = tuple[Number, Number, Number]
Bearing = Annotated[Number, Field(description="Where the viewer stands: degrees clockwise from north.")]
Depth = Annotated[
    Number, Field(gt=0, description="How far is seen, from the cut or from the nearest point; mm.")
]


@dataclass(frozen=True, kw_only=True)
class BaseView:
    """A look at a building. Each kind is a dataclass of its own, with the figures that belong to it; lengths
    in mm.

    Attributes:
        line_settings: how lines are treated.
        shown: what is shown of the building.
        to_scale: whether it is drawn at a scale.
        cuts_overhead: whether it has a cut with things above it.
        marked: whether other views show where it lies.
    """

    __pydantic_config__ = CLOSED

    to_scale: ClassVar[bool] = True
    cuts_overhead: ClassVar[bool] = False
    marked: ClassVar[bool] = False

    line_settings: LineSettings = DEFAULT_LINE_SETTINGS
    shown: Shown = SHOW_ALL

    def __post_init__(self) -> None:
        settings = self.line_settings
        of_plans = settings.overhead or settings.outline_above or settings.beams_above or settings.below
        if of_plans and not self.cuts_overhead:
            raise ViewError(
                "Only a plan has a cut with things above it and a floor; leave overhead lines and what is "
                "below off for other views."
            )

    @abstractmethod
    def camera(self, building: Building) -> Camera:
        """How the building is looked at.

        Raises:
            ViewError: the view uses something that the building does not have.
        """

    @property
    @abstractmethod
    def title(self) -> str:
        """What the view is called when nobody has named it."""

    @property
    @abstractmethod
    def subject(self) -> tuple[Any, ...]:
        """What makes a plan of a storey that plan: not its cut height, its line settings or what it shows."""

    @property
    def true_lengths(self) -> bool:
        """Whether lengths along its axes are those of the building."""
        return self.to_scale

    def floor(self, building: Building) -> float | None:
        """The depth of the floor that a plan stands on, as its camera measures it; None for other views."""
        return None

    @property
    def area(self) -> Any:
        """The area of u, v that the drawing is limited to, a shapely polygon; None for no limit."""
        return None
