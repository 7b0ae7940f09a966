"""The register: every sheet by every issue, with the revision and the purpose in each cell."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.issuing.documents import LEFT, RIGHT, Document, DocumentColumn, DocumentSection, document_pages
from drafting.linework.model import Linework
from drafting.progress import Progress, silent
from drafting.render.backend import Sources
from drafting.render.backends import FORMATS
from drafting.render.page import FileInfo, Page
from drafting.sheets.paper import Paper
from drafting.workbooks import workbook

#: Columns of the printed register, mm.
NUMBER, TITLE, NOW, ISSUE = 24.0, 88.0, 18.0, 22.0


@dataclass(frozen=True)
class RegisterIssue:
    """An issue, by its name, date and purpose."""

    name: str
    date: str
    purpose: str


@dataclass(frozen=True)
class RegisterSheet:
    """A sheet, its revision now (blank for one that is no more), and the revision in which each issue had it;
    blank where it had not."""

    number: str
    title: str
    now: str
    revisions: tuple[str, ...]


@dataclass(frozen=True)
class IssueRegister:
    """All sheets by all issues, oldest issue first."""

    project: str
    date: str
    issues: tuple[RegisterIssue, ...]
    sheets: tuple[RegisterSheet, ...]


def register_pdf(register: IssueRegister, progress: Progress = silent) -> bytes:
    """The printed register as a PDF."""
    no_linework: dict[str, Linework] = {}
    sources = Sources(no_linework.__getitem__)
    info = FileInfo(f"Drawing register, {register.project}")
    return FORMATS["pdf"].write(register_pages(register), sources, info)


def register_pages(register: IssueRegister) -> list[Page]:
    """The printed register, A3; issues that do not fit beside each other follow on further pages."""
    paper = Paper.of("A3")
    fit = int((paper.width - LEFT - RIGHT - NUMBER - TITLE - NOW) / ISSUE)
    parts = [range(k, min(k + fit, len(register.issues))) for k in range(0, len(register.issues), fit)]
    sections = tuple(_section(register, part, len(parts) > 1) for part in parts or [range(0)])
    facts = (("Project", register.project), ("As of", register.date))
    return document_pages(
        Document("Drawing register", facts, sections, foot=register.project, paper=paper), date=register.date
    )


def _section(register: IssueRegister, part: range, several: bool) -> DocumentSection:
    issues = [register.issues[k] for k in part]
    columns = (
        DocumentColumn("Number", NUMBER),
        DocumentColumn("Title", TITLE),
        DocumentColumn("Now", NOW),
        *(DocumentColumn(f"{issue.date} {issue.name}", ISSUE, upright=True) for issue in issues),
    )
    rows = tuple(
        (
            sheet.number,
            sheet.title,
            sheet.now,
            *(_cell(sheet.revisions[k], register.issues[k].purpose) for k in part),
        )
        for sheet in register.sheets
    )
    title = f"Issues {part.start + 1} to {part.stop}" if several else "Sheets and issues"
    return DocumentSection(title, columns, rows, "There is no sheet yet.")


def _cell(revision: str, purpose: str) -> str:
    return f"{revision}\n{purpose}" if revision else ""


def register_xlsx(register: IssueRegister, progress: Progress = silent) -> bytes:
    """The register as a workbook."""
    rows = [
        ["Number", "Title", "Now", *(issue.name for issue in register.issues)],
        ["", "", "", *(issue.date for issue in register.issues)],
        ["", "", "", *(issue.purpose for issue in register.issues)],
        *([sheet.number, sheet.title, sheet.now, *sheet.revisions] for sheet in register.sheets),
    ]
    return workbook("Register", rows, [14, 44, 10, *(16 for _ in register.issues)], head=3, left=3)
