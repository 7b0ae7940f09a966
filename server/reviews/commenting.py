"""What is said of sheets: comments with their places, answers, and how they stand."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from django.db import transaction
from django.db.models import Max
from rest_framework.exceptions import ValidationError

from drafting.checks.checked import UnansweredComment
from drafting.errors import SheetError
from drafting.issuing.frozen import FrozenSheet, thaw
from drafting.review.marks import AnyMark, parse_marks, place_of
from drafting.review.places import Placement, Places, drawing_at, measured
from drafting.schema import dump
from drafting.sheets.picture import Picture as CorePicture
from server.common import storage
from server.common.rows import Memo, RowService
from server.issues.models import IssuedSheet
from server.jobs.apart import run_apart
from server.projects.models import Project
from server.projects.room import require_room
from server.reviews.models import Answer, Comment, CommentPicture, ReviewSheet
from server.sheets.models import Sheet

#: As many as a project and a comment have at most, so that nobody fills a disk.
MAX_COMMENTS, MAX_ANSWERS, MAX_PICTURES = 20_000, 200, 10
#: As many sheets are kept ready as a few people look at.
MAX_KEPT = 16


class CommentService(RowService[Comment]):
    """How a comment stands. What it says stays as it was said."""

    model = Comment

    def check(self, row: Comment, changed: set[str], memo: Memo) -> None:
        if row.state != Comment.State.DONE:
            row.done_in = ""
        elif not row.done_in and row.sheet is not None:
            row.done_in = row.sheet.revision

    def check_deletion(self, row: Comment) -> None:
        raise SheetError("What was said is kept. Decline the comment, and say why.")


comment_service = CommentService()


@lru_cache(maxsize=MAX_KEPT)
def frozen_sheet(state: str) -> FrozenSheet:
    """A frozen sheet by its hash; what lies under a hash never changes."""
    return thaw(storage.path_of(state).read_bytes())


@lru_cache(maxsize=MAX_KEPT)
def places_of(file: str) -> Places:
    """What is seen where, by the hash of its file."""
    return Places.from_bytes(storage.path_of(file).read_bytes())


@dataclass(frozen=True)
class PastSheet:
    """A sheet as it was reviewed or issued, and what it was called.

    Attributes:
        state, places: the hashes of the frozen sheet and of what is seen where; the second is blank where it
            was never reviewed.
        of: as which it was reviewed.
        sheet: the sheet now; None where it is no more.
    """

    project: Project
    state: str
    places: str
    sheet: Sheet | None
    number: str
    revision: str
    of: ReviewSheet | None = None

    @classmethod
    def reviewed(cls, row: ReviewSheet) -> PastSheet:
        """As it was reviewed."""
        return cls(row.review.project, row.state, row.places, row.sheet, row.number, row.revision, row)

    @classmethod
    def issued(cls, row: IssuedSheet) -> PastSheet:
        """As it was issued."""
        return cls(row.issue.project, row.state, "", row.sheet, row.number, row.revision)


def located(past: PastSheet, given: Any) -> tuple[tuple[AnyMark, ...], dict[str, Any]]:
    """Marks with their true lengths, and what lies at their place: the fields of a comment that say so."""
    marks = parse_marks(given)
    sheet = frozen_sheet(past.state)
    places = places_of(past.places) if past.places else None
    marks = tuple(measured(sheet, places.eyes if places else {}, mark) for mark in marks)
    at = place_of(marks)
    if at is None:
        return marks, {}
    found = places.find(sheet, at) if places else None
    if found is None:
        drawing = drawing_at(sheet, at)
        placed = {"viewport": drawing.viewport, "placement": dump(Placement.of(drawing))} if drawing else {}
        return marks, placed
    element = dict(dump(found.element)) if found.element else {}
    if found.at is not None:
        element["at"] = list(found.at)
    return marks, {
        "viewport": found.viewport,
        "placement": dump(found.placement),
        "eye": dump(found.eye),
        "element": element,
    }


def comment_on(past: PastSheet, marks: Any, text: str, author: str, origin: str, **more: Any) -> Comment:
    """Keep what somebody says of a sheet as it was looked at.

    Raises:
        SheetError: a mark is none, or the project has very many comments.
        ValidationError: nothing is said and nothing marked.
    """
    kept, where = located(past, marks)
    if not text.strip() and not kept:
        raise ValidationError({"text": "Say something, or draw on the sheet."})
    about = {
        "reviewed": past.of,
        "sheet": past.sheet,
        "sheet_number": past.number,
        "revision": past.revision,
        "marks": [dump(mark) for mark in kept],
        **where,
    }
    return store(past.project, {**about, **more}, text, author, origin)


@transaction.atomic
def store(project: Project, about: Mapping[str, Any], text: str, author: str, origin: str) -> Comment:
    """A comment under the next number of its project.

    Raises:
        SheetError: there are very many.
    """
    last = Comment.objects.filter(project=project).aggregate(last=Max("number"))["last"] or 0
    if last >= MAX_COMMENTS:
        raise SheetError(f"This project has {MAX_COMMENTS} comments, and takes no more.")
    return Comment.objects.create(
        project=project, number=last + 1, text=text.strip(), author=author, origin=origin, **about
    )


@transaction.atomic
def answer(comment: Comment, text: str, author: str, *, user: Any = None, state: str = "") -> Answer:
    """Answer a comment. It stands as `state` says; without that, an answer of the project's own people
    answers it, and one of the others opens it again.

    Raises:
        ValidationError: nothing is said, or there are very many answers.
    """
    if not text.strip():
        raise ValidationError({"text": "Say something."})
    current = Comment.objects.get(pk=comment.pk)
    if current.answers.count() >= MAX_ANSWERS:
        raise ValidationError("This comment has very many answers. Begin another.")
    made = Answer.objects.create(comment=current, author=author, user=user, text=text.strip())
    stands = state or (Comment.State.ANSWERED if user else Comment.State.OPEN)
    closed = current.state in (Comment.State.DONE, Comment.State.DECLINED)
    if state or not (user and closed):
        comment_service.update(current, {"state": stands}, current.version)
    return made


def add_picture(comment: Comment, data: bytes, name: str) -> CommentPicture:
    """Keep a picture with a comment: what is read of it, and not the file.

    Raises:
        DraftingError: it is none.
        ChildProcessFailed: reading it takes too long or too much memory.
        ValidationError: there are very many.
    """
    if comment.pictures.count() >= MAX_PICTURES:
        raise ValidationError(f"A comment has at most {MAX_PICTURES} pictures.")
    require_room(comment.project, name, len(data))
    picture: CorePicture = run_apart("drafting.sheets.picture:read_picture", data, name)
    if picture.form == "vector":
        raise SheetError(f"“{name}” is made of lines. Send a photo or a screenshot, as PNG or JPEG.")
    file = storage.store(storage.write_chunks([picture.to_bytes()]))
    return CommentPicture.objects.create(comment=comment, form=picture.form, file=file)


def unanswered(project: Project) -> Sequence[UnansweredComment]:
    """Comments that wait for an answer, the oldest first."""
    return [
        UnansweredComment(
            row.number, row.author, row.text, str(row.sheet_id or ""), place_of(row.marks_as_core)
        )
        for row in Comment.objects.filter(project=project, state=Comment.State.OPEN)
    ]
