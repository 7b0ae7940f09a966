"""Revision schemes: how an office counts its revisions. Each office has its own, so a scheme is data."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from drafting.errors import SheetError
from drafting.schema import CLOSED, Whole

#: What sheets are issued for; an office may use other words too.
PURPOSES = ("Information", "Comment", "Coordination", "Approval", "Tender", "Construction", "Record")
#: Letters that are not taken for figures.
LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
_Words = Annotated[str, Field(min_length=1, max_length=60)]

Counting = Literal["figures", "letters"]


@dataclass(frozen=True)
class Series:
    """Revisions that are counted on: P01, P02, or A, B.

    Attributes:
        prefix: what each begins with.
        counting: whether it goes on with figures or letters.
        digits: at least so many figures.
        purposes: what it is for; none for all that no other series is for.
    """

    __pydantic_config__ = CLOSED

    prefix: Annotated[str, Field(max_length=6, pattern=r"^[^\W_]*$")] = ""
    counting: Counting = "figures"
    digits: Annotated[Whole, Field(ge=1, le=4)] = 2
    purposes: Annotated[tuple[_Words, ...], Field(max_length=20)] = ()

    def place_of(self, revision: str) -> int:
        """Which of the series a revision is, from 1; 0 for one of another series.

        >>> Series("P").place_of("P07"), Series("P").place_of("C07"), Series(counting="letters").place_of("C")
        (7, 0, 3)
        """
        rest = revision.removeprefix(self.prefix)
        if not revision.startswith(self.prefix) or not rest:
            return 0
        if self.counting == "figures":
            return int(rest) if re.fullmatch(r"[0-9]{1,9}", rest) else 0
        if len(rest) > 4 or any(letter not in LETTERS for letter in rest):
            return 0
        place = 0
        for letter in rest:
            place = place * len(LETTERS) + LETTERS.index(letter) + 1
        return place

    def revision_at(self, place: int) -> str:
        """The revision at a place of the series, from 1.

        >>> Series("C").revision_at(3), Series(counting="letters").revision_at(25)
        ('C03', 'AA')
        """
        if self.counting == "figures":
            return f"{self.prefix}{place:0{self.digits}d}"
        letters = ""
        while place > 0:
            place, which = divmod(place - 1, len(LETTERS))
            letters = LETTERS[which] + letters
        return self.prefix + letters


@dataclass(frozen=True)
class RevisionScheme:
    """How revisions are counted: one series for each stage of the work."""

    __pydantic_config__ = CLOSED

    series: Annotated[tuple[Series, ...], Field(min_length=1, max_length=8)]

    def __post_init__(self) -> None:
        seen: set[tuple[str, str]] = set()
        for each in self.series:
            if (each.prefix, each.counting) in seen:
                raise SheetError("Two series of this scheme count alike. Give one of them another prefix.")
            seen.add((each.prefix, each.counting))

    def series_for(self, purpose: str) -> Series:
        """The series that sheets of a purpose have."""
        wanted = purpose.strip().casefold()
        for each in self.series:
            if wanted in (known.casefold() for known in each.purposes):
                return each
        return next((each for each in self.series if not each.purposes), self.series[0])

    def next_revision(self, revisions: Iterable[str], purpose: str = "") -> str:
        """The revision after those that a sheet has had, for a purpose.

        >>> SCHEMES["P01, C01"].next_revision(["P01", "P02"], "Comment")
        'P03'
        >>> SCHEMES["P01, C01"].next_revision(["P01", "P02"], "Construction")
        'C01'
        """
        series = self.series_for(purpose)
        return series.revision_at(max((series.place_of(each) for each in revisions), default=0) + 1)


#: Schemes in common use, by what they look like.
SCHEMES: dict[str, RevisionScheme] = {
    "P01, C01": RevisionScheme((Series("P"), Series("C", purposes=("Construction", "Record")))),
    "A, B, C": RevisionScheme((Series(counting="letters"),)),
    "1, 2, 3": RevisionScheme((Series(digits=1),)),
}
DEFAULT_SCHEME = "P01, C01"
