"""What was said, as files: the PDF with annotations, lists, and a BCF file."""

from __future__ import annotations

import sys
from collections import defaultdict
from typing import Any

from django.utils import timezone

from drafting.building.axes import Axes, axes_from
from drafting.errors import SheetError
from drafting.review.bcf_writing import Topic
from drafting.review.comments import WrittenAnswer, WrittenComment
from drafting.review.marks import place_of
from drafting.review.places import Eye
from drafting.review.summary import Summary, SummarySheet
from drafting.review.tiles import TILE, read_tile
from drafting.schema import parse
from server.buildings.models import newest_version
from server.common import storage
from server.jobs.apart import run_apart
from server.projects.models import Project
from server.reviews.models import Comment, Review

#: The picture of a topic is a part of its sheet about so fine; as many topics have one.
PER_MM, MAX_PICTURES = 3.0, 300


def as_said(comment: Comment) -> WrittenComment:
    """A comment as it travels."""
    answers = [
        WrittenAnswer(each.source or str(each.pk), each.author, each.made.isoformat(), each.text)
        for each in comment.answers.all()
    ]
    return WrittenComment(
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
    by_sheet: dict[Any, list[WrittenComment]] = defaultdict(list)
    for comment in Comment.objects.filter(reviewed__review=review).prefetch_related("answers"):
        by_sheet[comment.reviewed_id].append(as_said(comment))
    pages = [by_sheet[sheet.pk] for sheet in review.sheets.all()]
    written: bytes = run_apart(
        "drafting.review.pdf_writing:write_comments", storage.path_of(review.pdf), pages
    )
    return written


def summary_of(project: Project) -> Summary:
    """All that was said of a project's sheets, by these in register order."""
    by_sheet: dict[tuple[int, str, str], list[WrittenComment]] = defaultdict(list)
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


def bcf_of(project: Project) -> bytes:
    """All that was said of a project's sheets as a BCF file."""
    version = newest_version(project)
    axes = (axes_from(version.facts.get("axes")) if version else None) or Axes()
    rows = Comment.objects.filter(project=project).select_related("reviewed").prefetch_related("answers")
    topics = [_topic(row, k) for k, row in enumerate(rows)]
    name = f"{project.number} {project.name}".strip()
    written: bytes = run_apart("drafting.review.bcf_writing:write_bcf", name, topics, axes)
    return written


def _topic(row: Comment, k: int) -> Topic:
    eye = parse(Eye, row.eye, "camera", SheetError) if row.eye else None
    at = tuple(row.element["at"]) if row.element.get("at") else None
    picture = _picture(row) if k < MAX_PICTURES else b""
    return Topic(as_said(row), row.sheet_number, eye, at, row.element.get("id", ""), picture)


def _picture(row: Comment) -> bytes:
    """The part of the sheet, as it was looked at, in which a comment lies."""
    at, sheet = place_of(row.marks_as_core), row.reviewed
    if at is None or sheet is None or not sheet.tiles:
        return b""
    level = max(0, sum(each["per_mm"] <= PER_MM for each in sheet.levels) - 1)
    per_mm, rows, columns = (sheet.levels[level][key] for key in ("per_mm", "rows", "columns"))
    column = min(max(int(at[0] * per_mm / TILE), 0), columns - 1)
    line = min(max(int((sheet.height - at[1]) * per_mm / TILE), 0), rows - 1)
    return read_tile(storage.path_of(sheet.tiles), level, line, column)
