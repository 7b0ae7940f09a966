"""What is said in a BCF file (BCF-XML 2.0, 2.1 and 3.0 of buildingSMART)."""

from __future__ import annotations

import hashlib
import uuid
import zipfile
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path
from typing import Any
from xml.etree.ElementTree import Element

from defusedxml import DefusedXmlException
from defusedxml import ElementTree as ET

from drafting.errors import SheetError
from drafting.progress import Progress, silent
from drafting.review.comments import MAX_NAME, MAX_TEXT, NO_NAME, ReadTopic, WrittenAnswer, WrittenComment

#: As many topics are read, and as much of a file; bytes.
MAX_TOPICS, MAX_XML, MAX_ALL = 5_000, 5_000_000, 500_000_000


def read_bcf(source: Path, progress: Progress = silent) -> list[ReadTopic]:
    """The topics of a BCF file.

    Raises:
        SheetError: it is none, is damaged, or is far too large.
    """
    try:
        with zipfile.ZipFile(source) as archive:
            return _read(archive, progress)
    except (zipfile.BadZipFile, EOFError, NotImplementedError, RuntimeError):
        raise SheetError("This file is damaged, or no BCF. Save it again where it comes from.") from None


def _read(archive: zipfile.ZipFile, progress: Progress) -> list[ReadTopic]:
    names = archive.namelist()
    if sum(entry.file_size for entry in archive.infolist()) > MAX_ALL:
        raise SheetError(
            f"This file is larger than {MAX_ALL / 1e6:.0f} MB unpacked. Save fewer topics in it."
        )
    marked = [name for name in names if name.endswith("/markup.bcf")]
    if "bcf.version" not in names and not marked:
        raise SheetError("This file is damaged, or no BCF. Save it again where it comes from.")
    if len(marked) > MAX_TOPICS:
        raise SheetError(
            f"This file has {len(marked)} topics, and {MAX_TOPICS} can be read. Save fewer in it."
        )
    found = []
    for k, name in enumerate(marked):
        progress(f"Reading topic {k + 1} of {len(marked)}", k / len(marked))
        root = _parsed(archive, name)
        topic = root.find("Topic")
        if topic is None or not topic.get("Guid"):
            raise SheetError(f"“{name}” in this file has no topic. Save it again where it comes from.")
        folder = name.removesuffix("markup.bcf")
        elements = tuple(_elements(archive, root, folder, set(names)))
        found.append(ReadTopic(_comment(root, topic), elements))
    return found


def _parsed(archive: zipfile.ZipFile, name: str) -> Any:
    if archive.getinfo(name).file_size > MAX_XML:
        raise SheetError(f"“{name}” in this file is far too large. Save it again where it comes from.")
    try:
        return ET.fromstring(archive.read(name))
    except (ET.ParseError, DefusedXmlException, UnicodeError, ValueError):
        raise SheetError(
            f"“{name}” in this file cannot be read. Save it again where it comes from."
        ) from None


def _comment(root: Element, topic: Element) -> WrittenComment:
    title, description = _text(topic, "Title"), _text(topic, "Description")
    text = description if description.startswith(title) else f"{title}\n{description}".strip()
    answers = [
        WrittenAnswer(_key(each), _author(each, "Author"), _moment(each, "Date"), _text(each, "Comment"))
        for each in root.iter("Comment")
        if each.get("Guid") and _text(each, "Comment")
    ]
    return WrittenComment(
        _key(topic),
        _author(topic, "CreationAuthor"),
        _moment(topic, "CreationDate"),
        text[:MAX_TEXT],
        answers=tuple(answers),
        assigned=_text(topic, "AssignedTo")[:MAX_NAME],
    )


def _text(parent: Element, name: str) -> str:
    return (parent.findtext(name) or "").strip()[:MAX_TEXT]


def _author(parent: Element, name: str) -> str:
    return _text(parent, name)[:MAX_NAME] or NO_NAME


def _moment(parent: Element, name: str) -> str:
    words = _text(parent, name)
    try:
        return datetime.fromisoformat(words).isoformat()
    except ValueError:
        return ""


def _key(element: Element) -> str:
    """By what a topic or a comment is known: its Guid, and a hash of what calls itself so and is none."""
    given = str(element.get("Guid"))
    try:
        return str(uuid.UUID(given))
    except ValueError:
        return hashlib.sha256(given.encode()).hexdigest()


def _elements(archive: zipfile.ZipFile, root: Element, folder: str, names: set[str]) -> Iterator[str]:
    """The elements that the viewpoints of a topic choose."""
    files = [each.text for each in root.iter("Viewpoint") if each.text and each.text.strip()]
    for file in dict.fromkeys(files):
        name = f"{folder}{str(file).strip()}"
        if name in names:
            view = _parsed(archive, name)
            for selection in view.iter("Selection"):
                yield from (str(c.get("IfcGuid")) for c in selection.iter("Component") if c.get("IfcGuid"))
