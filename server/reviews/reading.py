"""Comments that come in files: a PDF that was commented in a reader, or a BCF file from whoever works in the
model. Each is kept once, however often its file comes."""

from __future__ import annotations

import math
import uuid
from collections.abc import Iterable, Sequence
from datetime import datetime
from pathlib import Path
from typing import Any

from django.db import transaction
from django.utils import timezone

from drafting.errors import SheetError
from drafting.review.comments import ReadFile, ReadTopic, WrittenComment
from drafting.review.marks import place_of
from drafting.schema import dump
from server.common import storage
from server.issues.models import IssuedSheet
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.projects.room import require_room
from server.reviews import commenting
from server.reviews.commenting import PastSheet
from server.reviews.models import Answer, Comment, CommentFile, ReviewSheet

#: A file of more is refused; bytes.
MAX_FILE = 200_000_000
#: By which a ZIP is known, as a BCF file is one.
ZIP_MARK = b"PK\x03\x04"
#: Of a topic's elements, so many are looked for.
MAX_ELEMENTS = 20
#: Nobody has commented a PDF or a model before.
EARLIEST = 1980
#: So many of the latest sheets may be those of a PDF.
MAX_SHEETS = 400
#: What was said by the same person in the same words so near is the same; paper mm.
SAME_PLACE = 0.6


def order_reading(project: Project, name: str, size: int, chunks: Iterable[bytes]) -> CommentFile:
    """Have the comments of a file read, in the background.

    Raises:
        SheetError: it is too large.
    """
    if size > MAX_FILE:
        raise SheetError(
            f"“{name}” has {size / 1e6:.0f} MB and the limit is {MAX_FILE / 1e6:.0f} MB. Save the commented "
            "pages alone."
        )
    require_room(project, name, size)
    path = storage.write_chunks(chunks)
    with path.open("rb") as stream:
        form = "bcf" if stream.read(4) == ZIP_MARK else "pdf"
    source = storage.store(path)
    with transaction.atomic():
        job = jobs.start(project, Job.Kind.COMMENTS, name, str(project.pk), long=True)
        return CommentFile.objects.create(job=job, name=name[:200], source=source, form=form)


def _past_sheets(project: Project) -> list[PastSheet]:
    """The sheets that a PDF may show, as they were reviewed or issued, the latest first."""
    reviewed = ReviewSheet.objects.filter(review__project=project).exclude(tiles="")
    issued = IssuedSheet.objects.filter(issue__project=project).select_related("issue", "sheet")
    found = [
        (row.review.asked, PastSheet.reviewed(row)) for row in reviewed.select_related("review", "sheet")
    ]
    states = {past.state for _, past in found}
    found += [(row.issue.issued, PastSheet.issued(row)) for row in issued if row.state not in states]
    latest = sorted(found, key=lambda each: each[0], reverse=True)[:MAX_SHEETS]
    return [past for _, past in latest]


def read(job: Job, work: Work) -> None:
    """Read the comments of a file, and keep those that are new."""
    row = job.comment_file
    read = _read_topics if row.form == "bcf" else _read_pdf
    made, known, notes = read(job.project, storage.path_of(row.source), work)
    row.found = {"made": made, "known": known, "notes": notes}
    row.save()


def _read_pdf(project: Project, source: Path, work: Work) -> tuple[int, int, list[str]]:
    sheets = _past_sheets(project)
    if not sheets:
        raise SheetError("Nothing was issued or reviewed yet, so there is no sheet that this PDF could show.")
    states = [storage.path_of(each.state) for each in sheets]
    found: ReadFile = work.run("reviews:read_comments", source, states)
    made = known = 0
    notes = list(found.notes)
    with transaction.atomic():
        for page in found.sheets:
            past = sheets[page.sheet]
            notes += _older(past, notes)
            for said in page.comments:
                new = _keep(project, past, said)
                made, known = made + new, known + (not new)
    return made, known, notes


def _read_topics(project: Project, source: Path, work: Work) -> tuple[int, int, list[str]]:
    topics: list[ReadTopic] = work.run("reviews:read_topics", source)
    sheets = [each for each in _past_sheets(project) if each.places]
    made = known = unplaced = 0
    with transaction.atomic():
        for topic in topics:
            found = _by_key(project, topic.comment.key)
            if found is None:
                made += 1
                found, placed = _keep_topic(project, sheets, topic)
                unplaced += not placed
            else:
                known += 1
            _keep_answers(found, topic.comment)
    which = "1 is" if unplaced == 1 else f"{unplaced} are"
    words = f"{which} about no element that a reviewed sheet shows, and in the list alone."
    return made, known, [words] if unplaced else []


def _keep_topic(project: Project, sheets: Sequence[PastSheet], topic: ReadTopic) -> tuple[Comment, bool]:
    """Keep a topic: on the latest sheet that shows its element, where there is one; and whether there is."""
    said = topic.comment
    more: dict[str, Any] = {"source": said.key, "made": _when(said.made), "assigned": said.assigned}
    for element in topic.elements[:MAX_ELEMENTS]:
        for past in sheets:
            shown = commenting.places_of(past.places).showing(element)
            if shown is not None:
                marks = [{"kind": "point", "at": list(shown[1])}]
                kept = commenting.comment_on(past, marks, said.text, said.author, Comment.Origin.BCF, **more)
                return kept, True
    more["element"] = {"id": topic.elements[0]} if topic.elements else {}
    return commenting.store(project, more, said.text, said.author, Comment.Origin.BCF), False


def _older(past: PastSheet, told: list[str]) -> list[str]:
    """A sentence about a PDF of an earlier revision."""
    sheet = past.sheet
    if sheet is None:
        words = f"{past.number} is no more. What is said of it is in the list alone."
    elif sheet.revision != past.revision:
        before, now = past.revision or "none yet", sheet.revision or "none yet"
        words = f"{past.number} is commented in revision {before}; it is {now} now."
    else:
        return []
    return [] if words in told else [words]


def _keep(project: Project, past: PastSheet, said: WrittenComment) -> bool:
    """Keep a comment with its answers; whether it is new."""
    known = _known(project, past, said)
    comment = known or commenting.comment_on(
        past,
        [dump(mark) for mark in said.marks],
        said.text,
        said.author,
        Comment.Origin.PDF,
        source=said.key,
        made=_when(said.made),
    )
    _keep_answers(comment, said)
    return known is None


def _keep_answers(comment: Comment, said: WrittenComment) -> None:
    """Keep those answers that are new."""
    for answer in said.answers:
        own = comment.answers.filter(pk=answer.key).exists() if _is_id(answer.key) else False
        there = own or comment.answers.filter(source=answer.key).exists()
        same = comment.answers.filter(author=answer.author, text=answer.text).exists()
        if not there and not same:
            Answer.objects.create(
                comment=comment,
                author=answer.author,
                text=answer.text,
                source=answer.key,
                made=_when(answer.made),
            )


def _is_id(key: str) -> bool:
    """Whether it may be the id of a row."""
    try:
        return str(uuid.UUID(key)) == key
    except ValueError:
        return False


def _known(project: Project, past: PastSheet, said: WrittenComment) -> Comment | None:
    """The comment that this is again: by what it is known, or who says the same at the same place."""
    found = _by_key(project, said.key)
    if found is not None:
        return found
    at = place_of(said.marks)
    rows = Comment.objects.filter(project=project)
    for row in rows.filter(author=said.author, text=said.text, sheet_number=past.number):
        other = place_of(row.marks_as_core)
        if at and other and math.dist(at, other) < SAME_PLACE:
            return row
    return None


def _by_key(project: Project, key: str) -> Comment | None:
    """The comment that is known by a key: that of the file it came in, or its own id."""
    rows = Comment.objects.filter(project=project)
    own = rows.filter(pk=key).first() if _is_id(key) else None
    return own or rows.filter(source=key).first()


def _when(moment: str) -> datetime:
    """When something was said; now where that is not known, has not come yet, or cannot be."""
    now = timezone.now()
    if not moment:
        return now
    at = datetime.fromisoformat(moment)
    at = timezone.make_aware(at) if timezone.is_naive(at) else at
    return min(at, now) if at.year >= EARLIEST else now
