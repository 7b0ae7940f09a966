"""Comments in files: a PDF that somebody commented in a reader, and what was said as a PDF and as lists."""

from __future__ import annotations

import math
import sys
import uuid
from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db import transaction
from django.utils import timezone

from drafting.errors import SheetError
from drafting.review.marks import place_of
from drafting.review.pdf_reading import ReadFile
from drafting.review.said import SaidAnswer, SaidComment
from drafting.review.summary import Summary, SummarySheet
from drafting.schema import dump
from server.common import storage
from server.issues.models import IssuedSheet
from server.jobs import services as jobs
from server.jobs.apart import run_apart
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.reviews import commenting
from server.reviews.commenting import Lookout
from server.reviews.models import Answer, Comment, CommentFile, Review, ReviewSheet

#: A file of more is refused; bytes.
MAX_FILE = 200_000_000
#: So many of the latest sheets may be those of a PDF.
MAX_SHEETS = 400
#: What was said by the same person in the same words so near is the same; paper mm.
SAME_PLACE = 0.6


def as_said(comment: Comment) -> SaidComment:
    """A comment as it travels."""
    answers = [
        SaidAnswer(each.source or str(each.pk), each.author, each.made.isoformat(), each.text)
        for each in comment.answers.all()
    ]
    return SaidComment(
        comment.source or str(comment.pk),
        comment.author,
        comment.made.isoformat(),
        comment.text,
        comment.marks_as_core,
        tuple(answers),
        comment.number,
        comment.state,
        comment.done_in,
        comment.assigned,
        comment.due.isoformat() if comment.due else "",
    )


def commented_pdf(review: Review) -> bytes:
    """The sheets of a review with what was said of them, as annotations that any reader shows.

    Raises:
        SheetError: they are not ready.
    """
    if not review.pdf:
        raise SheetError("The sheets of this review are being made ready. Try again in a minute.")
    by_sheet: dict[Any, list[SaidComment]] = defaultdict(list)
    for comment in Comment.objects.filter(reviewed__review=review).prefetch_related("answers"):
        by_sheet[comment.reviewed_id].append(as_said(comment))
    pages = [by_sheet[sheet.pk] for sheet in review.sheets.all()]
    written: bytes = run_apart(
        "drafting.review.pdf_writing:write_comments", storage.path_of(review.pdf), pages
    )
    return written


def summary_of(project: Project) -> Summary:
    """All that was said of a project's sheets, by these in register order."""
    by_sheet: dict[tuple[int, str, str], list[SaidComment]] = defaultdict(list)
    rows = Comment.objects.filter(project=project).select_related("sheet").prefetch_related("answers")
    for row in rows:
        sheet = row.sheet
        key = (sheet.position, sheet.number, sheet.title) if sheet else (sys.maxsize, row.sheet_number, "")
        by_sheet[key].append(as_said(row))
    sheets = [
        SummarySheet(number, title, tuple(said)) for (_, number, title), said in sorted(by_sheet.items())
    ]
    name = f"{project.number} {project.name}".strip()
    return Summary(name, timezone.localdate().isoformat(), tuple(sheets))


def order_reading(project: Project, user: Any, name: str, size: int, chunks: Iterable[bytes]) -> CommentFile:
    """Have the comments of a file read, in the background.

    Raises:
        SheetError: it is too large.
    """
    if size > MAX_FILE:
        raise SheetError(
            f"“{name}” has {size / 1e6:.0f} MB and the limit is {MAX_FILE / 1e6:.0f} MB. Save the commented "
            "pages alone."
        )
    source = storage.store(storage.write_chunks(chunks))
    with transaction.atomic():
        job = jobs.start(project, Job.Kind.COMMENTS, name, str(project.pk), long=True)
        return CommentFile.objects.create(
            job=job, name=name[:200], source=source, form="pdf", ordered_by=user
        )


def _lookouts(project: Project) -> list[Lookout]:
    """The sheets that a PDF may show, as they were reviewed or issued, the latest first."""
    reviewed = ReviewSheet.objects.filter(review__project=project).exclude(tiles="")
    issued = IssuedSheet.objects.filter(issue__project=project).select_related("issue", "sheet")
    found = [(row.review.asked, Lookout.reviewed(row)) for row in reviewed.select_related("review", "sheet")]
    states = {lookout.state for _, lookout in found}
    found += [(row.issue.issued, Lookout.issued(row)) for row in issued if row.state not in states]
    latest = sorted(found, key=lambda each: each[0], reverse=True)[:MAX_SHEETS]
    return [lookout for _, lookout in latest]


def read(job: Job, work: Work) -> None:
    """Read the comments of a file, and keep those that are new."""
    row = job.comment_file
    project = job.project
    lookouts = _lookouts(project)
    if not lookouts:
        raise SheetError("Nothing was issued or reviewed yet, so there is no sheet that this PDF could show.")
    states = [storage.path_of(each.state) for each in lookouts]
    found: ReadFile = work.run("read_comments", storage.path_of(row.source), states)
    made = known = 0
    notes = list(found.notes)
    with transaction.atomic():
        for page in found.sheets:
            lookout = lookouts[page.sheet]
            notes += _older(lookout, notes)
            for said in page.comments:
                new = _keep(project, lookout, said)
                made, known = made + new, known + (not new)
    row.found = {"made": made, "known": known, "notes": notes}
    row.save()


def _older(lookout: Lookout, told: list[str]) -> list[str]:
    """A sentence about a PDF of an earlier revision."""
    sheet = lookout.sheet
    if sheet is None:
        words = f"{lookout.number} is no more. What is said of it is in the list alone."
    elif sheet.revision != lookout.revision:
        before, now = lookout.revision or "none yet", sheet.revision or "none yet"
        words = f"{lookout.number} is commented in revision {before}; it is {now} now."
    else:
        return []
    return [] if words in told else [words]


def _keep(project: Project, lookout: Lookout, said: SaidComment) -> bool:
    """Keep a comment with its answers; whether it is new."""
    known = _known(project, lookout, said)
    comment = known or commenting.comment_on(
        lookout,
        [dump(mark) for mark in said.marks],
        said.text,
        said.author,
        Comment.Origin.PDF,
        source=said.key,
        made=_when(said.made),
    )
    for answer in said.answers:
        there = comment.answers.filter(source=answer.key).exists() or _is_own(answer.key)
        same = comment.answers.filter(author=answer.author, text=answer.text).exists()
        if not there and not same:
            Answer.objects.create(
                comment=comment,
                author=answer.author,
                text=answer.text,
                source=answer.key,
                made=_when(answer.made),
            )
    return known is None


def _is_own(key: str) -> bool:
    """Whether it is known by the id of an answer here."""
    return _is_id(key) and Answer.objects.filter(pk=key).exists()


def _is_id(key: str) -> bool:
    try:
        return str(uuid.UUID(key)) == key
    except ValueError:
        return False


def _known(project: Project, lookout: Lookout, said: SaidComment) -> Comment | None:
    """The comment that this is again: by what it is known, or who says the same at the same place."""
    rows = Comment.objects.filter(project=project)
    found = rows.filter(source=said.key).first() or (
        rows.filter(pk=said.key).first() if _is_id(said.key) else None
    )
    if found is not None:
        return found
    at = place_of(said.marks)
    for row in rows.filter(author=said.author, text=said.text, sheet_number=lookout.number):
        other = place_of(row.marks_as_core)
        if at and other and math.dist(at, other) < SAME_PLACE:
            return row
    return None


def _when(moment: str) -> datetime:
    """When something was said; now where that is not known, or has not come yet."""
    now = timezone.now()
    if not moment:
        return now
    at = datetime.fromisoformat(moment)
    at = timezone.make_aware(at) if timezone.is_naive(at) else at
    return min(at, now)
