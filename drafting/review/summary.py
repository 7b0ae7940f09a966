"""All that was said of a set, printed and as a workbook."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from drafting.issuing.documents import Document, DocumentColumn, DocumentSection, document_pages
from drafting.linework.model import Linework
from drafting.progress import Progress, silent
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, Page
from drafting.review.comments import WrittenComment
from drafting.sheets.paper import Paper
from drafting.workbooks import workbook

#: Columns of the printed summary, mm.
NUMBER, STATE, BY, ASSIGNED = 12.0, 24.0, 34.0, 30.0
#: Comments that are about no sheet.
NO_SHEET = "Without a sheet"


@dataclass(frozen=True)
class SummarySheet:
    """What was said of a sheet, by its number and title; blank for no sheet."""

    number: str
    title: str
    comments: tuple[WrittenComment, ...]


@dataclass(frozen=True)
class Summary:
    """All that was said, by sheets in register order."""

    project: str
    date: str
    sheets: tuple[SummarySheet, ...]

    @property
    def comments(self) -> list[WrittenComment]:
        return [comment for sheet in self.sheets for comment in sheet.comments]


def summary_pages(summary: Summary) -> list[Page]:
    """The printed summary, A4."""
    columns = (
        DocumentColumn("No.", NUMBER),
        DocumentColumn("Comment and answers"),
        DocumentColumn("By", BY),
        DocumentColumn("Assigned to, due", ASSIGNED),
        DocumentColumn("State", STATE),
    )
    sections = [
        DocumentSection(
            f"{sheet.number} {sheet.title}".strip() or NO_SHEET, columns, tuple(map(_row, sheet.comments))
        )
        for sheet in summary.sheets
    ]
    counts = {
        state: len(list(group))
        for state, group in groupby(sorted(summary.comments, key=_stands), key=_stands)
    }
    facts = (
        ("Project", summary.project),
        ("As of", summary.date),
        ("Comments", str(len(summary.comments))),
        ("How they stand", ", ".join(f"{count} {state.lower()}" for state, count in counts.items())),
    )
    document = Document(
        "Comments", facts, tuple(sections), foot=summary.project, paper=Paper.of("A4", "landscape")
    )
    return document_pages(document, date=summary.date)


def _stands(comment: WrittenComment) -> str:
    return comment.standing.split(" in ")[0]


def _row(comment: WrittenComment) -> tuple[str, ...]:
    answers = [f"{answer.author}, {answer.made[:10]}: {_line(answer.text)}" for answer in comment.answers]
    words = "\n".join([_line(comment.text) or "A mark without words.", *answers])
    assigned = "\n".join(part for part in (comment.assigned or "–", comment.due) if part)
    by = f"{comment.author}\n{comment.made[:10]}"
    return str(comment.number), words, by, assigned, comment.standing


def _line(text: str) -> str:
    return " ".join(text.split())


def summary_pdf(summary: Summary, progress: Progress = silent) -> bytes:
    """The printed summary as a PDF."""
    no_linework: dict[str, Linework] = {}
    info = FileInfo(f"Comments, {summary.project}")
    return FORMATS["pdf"].write(summary_pages(summary), Sources(no_linework.__getitem__), info)


def summary_xlsx(summary: Summary, progress: Progress = silent) -> bytes:
    """The summary as a workbook: a line for each comment, its answers in one cell."""
    captions = [
        "No.", "Sheet", "State", "Comment", "By", "Said on", "Answers", "Assigned to", "Due", "Done in",
    ]  # fmt: skip
    rows: list[Sequence[str]] = [captions]
    for sheet in summary.sheets:
        for comment in sheet.comments:
            answers = "\n".join(f"{a.author}, {a.made[:10]}: {a.text}" for a in comment.answers)
            rows.append([
                str(comment.number), sheet.number, _stands(comment), comment.text, comment.author,
                comment.made[:10], answers, comment.assigned, comment.due, comment.done_in,
            ])  # fmt: skip
    return workbook("Comments", rows, [6, 10, 12, 60, 20, 12, 60, 18, 12, 10])
