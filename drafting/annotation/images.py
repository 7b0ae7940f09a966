"""Images on sheets: pictures of the project, cropped and scaled."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.piece import BasePiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point
from drafting.schema import CLOSED, Number
from drafting.views.spec import AnyView

#: So much of an image is left at least, of its width and of its height.
MIN_LEFT = 0.02
Share = Annotated[Number, Field(ge=0.0, lt=1.0)]


@dataclass(frozen=True)
class ImagePiece(BasePiece):
    """A picture of the project where it stands.

    Attributes:
        at: its upper left corner, as it is seen.
        picture: the id of the picture.
        width: of the whole picture on paper, mm; its height follows.
        crop: what is cut off at the left, the foot, the right and the top, as shares of the whole.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "image"

    at: Anchor
    picture: Annotated[str, Field(min_length=1, max_length=40)]
    width: Annotated[Number, Field(ge=2.0, le=2000.0)] = 80.0
    crop: tuple[Share, Share, Share, Share] = (0.0, 0.0, 0.0, 0.0)
    kind: Literal["image"] = "image"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        left, foot, right, top = self.crop
        if left + right > 1 - MIN_LEFT or foot + top > 1 - MIN_LEFT:
            raise SheetError("Nothing of this image would be left. Crop less of it.")


def image_boxes(image: ImagePiece, corner: Point, ratio: float) -> tuple[Box, Box]:
    """Where the whole of an image would lie, and what of that is seen; paper mm.

    Args:
        corner: the upper left corner of what is seen.
        ratio: the height of the picture for one of its width.

    >>> image_boxes(ImagePiece(Anchor((0, 0)), "p", 100, (0.1, 0, 0, 0.5)), (0, 0), 0.5)[1]
    Box(x=0.0, y=-25.0, width=90.0, height=25.0)
    """
    left, foot, right, top = image.crop
    wide, high = image.width, image.width * ratio
    whole = Box(corner[0] - left * wide, corner[1] + top * high - high, wide, high)
    seen = Box(
        float(corner[0]),
        corner[1] - (1 - foot - top) * high,
        (1 - left - right) * wide,
        (1 - foot - top) * high,
    )
    return whole, seen
