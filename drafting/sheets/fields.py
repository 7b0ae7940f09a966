"""Fields of title blocks (ISO 7200): what a sheet says of itself, each from one source."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field as Constraint

from drafting.schema import CLOSED
from drafting.sheets.words import ENGLISH, SheetWords

#: Whose a field is: edited for the whole project, for one sheet, or worked out.
Owner = Literal["project", "sheet", "derived"]


@dataclass(frozen=True)
class Field:
    """A field by its caption, and whose it is."""

    caption: str
    of: Owner


FIELDS: dict[str, Field] = {
    "practice": Field("Practice", "project"),
    "department": Field("Department", "project"),
    "reference": Field("Technical reference", "project"),
    "project": Field("Project", "project"),
    "project_number": Field("Project number", "project"),
    "client": Field("Client", "project"),
    "site": Field("Site", "project"),
    "language": Field("Language", "project"),
    "number": Field("Sheet number", "sheet"),
    "title": Field("Title", "sheet"),
    "supplementary_title": Field("Supplementary title", "sheet"),
    "document_type": Field("Document type", "sheet"),
    "status": Field("Status", "sheet"),
    "purpose": Field("Purpose", "sheet"),
    "creator": Field("Drawn by", "sheet"),
    "drawn_on": Field("Drawn on", "sheet"),
    "checker": Field("Checked by", "sheet"),
    "checked_on": Field("Checked on", "sheet"),
    "approver": Field("Approved by", "sheet"),
    "approved_on": Field("Approved on", "sheet"),
    "revision": Field("Revision", "derived"),
    "date": Field("Date of issue", "derived"),
    "sheet_of": Field("Sheet", "derived"),
    "scale": Field("Scale", "derived"),
    "paper": Field("Paper", "derived"),
    "drawings": Field("Drawings", "derived"),
    "file_name": Field("File name", "derived"),
    "plot_date": Field("Plotted on", "derived"),
}
#: No value is longer: what does not fit is shortened on paper, and this keeps a typing mistake from a whole
#: page.
MAX_LETTERS = 400


@dataclass(frozen=True)
class Revision:
    """A row of the revision table. The date is as it is written."""

    __pydantic_config__ = CLOSED

    revision: Annotated[str, Constraint(min_length=1, max_length=20)]
    date: Annotated[str, Constraint(max_length=20)] = ""
    description: Annotated[str, Constraint(max_length=300)] = ""
    initials: Annotated[str, Constraint(max_length=20)] = ""


def derived_fields(
    given: Mapping[str, str],
    revisions: Sequence[Revision],
    scales: Sequence[str],
    paper: str,
    drawings: Sequence[str],
    place: tuple[int, int],
    plot_date: str,
    words: SheetWords = ENGLISH,
) -> dict[str, str]:
    """What is worked out about a sheet: `place` is its place in the set and the number of sheets."""
    newest = revisions[-1] if revisions else Revision("")
    named = (given.get("project_number", ""), given.get("number", ""), newest.revision)
    return {
        "revision": newest.revision,
        "date": newest.date,
        "sheet_of": words.sheet_of.format(*place),
        "scale": words.scale(scales),
        "paper": paper,
        "drawings": ", ".join(dict.fromkeys(drawings)),
        "file_name": "-".join(part for part in named if part),
        "plot_date": plot_date,
    }
