"""What reviewers are shown, as it was made ready: where its files are."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.review.tiles import TileLevel

#: All sheets, in the folder that they were made in.
PDF = "review.pdf"


@dataclass(frozen=True)
class Prepared:
    """The files of one sheet, in the folder that they were made in, and the levels of its tiles."""

    tiles: str
    places: str
    levels: tuple[TileLevel, ...]
