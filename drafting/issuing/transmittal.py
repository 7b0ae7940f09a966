"""The transmittal: what was sent, in which revision, to whom, why and when, with checksums."""

from __future__ import annotations

from dataclasses import dataclass

from drafting.issuing.documents import Document, DocumentColumn, DocumentSection, document_pages
from drafting.render.page import Page

#: Kibibyte and mebibyte.
_K, _M = 1024, 1024**2


@dataclass(frozen=True)
class SentSheet:
    """A sheet that is sent."""

    number: str
    title: str
    revision: str
    paper: str
    scale: str


@dataclass(frozen=True)
class SentFile:
    """A file that is sent: its name, its size in bytes, and its SHA-256."""

    name: str
    size: int
    checksum: str


@dataclass(frozen=True)
class Transmittal:
    """What goes to one recipient.

    Attributes:
        recipient: name and organisation.
        how: the way in which it reaches them, in words.
        remarks: what was not right and was issued all the same, with the reason.
    """

    issue: str
    purpose: str
    date: str
    project: str
    project_number: str
    practice: str
    recipient: str
    how: str
    issued_by: str
    sheets: tuple[SentSheet, ...]
    files: tuple[SentFile, ...]
    remarks: str = ""


def transmittal_pages(about: Transmittal) -> list[Page]:
    """The pages of a transmittal, A4."""
    facts = (
        ("Project", f"{about.project_number} {about.project}".strip()),
        ("From", about.practice),
        ("To", about.recipient),
        ("Delivered", about.how),
        ("Issue", about.issue),
        ("Issued for", about.purpose),
        ("Date of issue", about.date),
        ("Issued by", about.issued_by),
    )
    sheets = DocumentSection(
        f"Sheets ({len(about.sheets)})",
        (
            DocumentColumn("Number", 26.0),
            DocumentColumn("Title"),
            DocumentColumn("Revision", 18.0),
            DocumentColumn("Paper", 22.0),
            DocumentColumn("Scale", 26.0),
        ),
        tuple((each.number, each.title, each.revision, each.paper, each.scale) for each in about.sheets),
    )
    files = DocumentSection(
        f"Files ({len(about.files)})",
        (DocumentColumn("File, and its SHA-256"), DocumentColumn("Size", 22.0)),
        tuple((f"{each.name}\n{each.checksum}", size_words(each.size)) for each in about.files),
        "None.",
    )
    document = Document(
        "Transmittal",
        facts,
        (sheets, files),
        about.remarks,
        f"{about.project_number} {about.project}, {about.issue}".strip(),
    )
    return document_pages(document, date=about.date)


def size_words(size: int) -> str:
    """A size in bytes, as people read it.

    >>> size_words(812), size_words(48_300), size_words(5_600_000)
    ('812 bytes', '47 KB', '5.3 MB')
    """
    if size < _K:
        return f"{size} bytes"
    return f"{size / _K:.0f} KB" if size < _M else f"{size / _M:.1f} MB"
