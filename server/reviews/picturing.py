"""Pictures of what a comment is about, as it was looked at and as it is now, with the answer that says so."""

from __future__ import annotations

import shutil

from django.db import transaction

from drafting.errors import SheetError
from drafting.geometry.boxes import Box, box_about
from drafting.render.items import Drawing
from drafting.review.before_after import PER_MM, shown_box
from drafting.review.marks import box_of
from drafting.review.places import Placement
from drafting.schema import parse
from server.common import storage
from server.issues.freezing import files_of, freeze_sheet, paths, store_state
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.reviews.models import Answer, Comment, CommentPicture
from server.sheets.shading import fine_pictures

#: Pictures under drawings are so fine; pixels to the inch.
RESOLUTION = 150.0


def can_be_pictured(comment: Comment) -> bool:
    """Whether it is known what a comment was about, and the sheet is still there."""
    reviewed = comment.reviewed
    return bool(comment.marks) and reviewed is not None and bool(reviewed.review.pdf) and bool(comment.sheet)


def order(answer: Answer) -> None:
    """Have an answer show what was commented, before and now.

    Raises:
        SheetError: it cannot be shown.
    """
    comment = answer.comment
    if not can_be_pictured(comment):
        raise SheetError(
            "This comment has no place on a sheet that was reviewed, so there is nothing to show."
        )
    jobs.start(comment.project, Job.Kind.PICTURE, f"comment {comment.number}", str(answer.pk))


def make(job: Job, work: Work) -> None:
    """Make the pictures of an answer."""
    answer = Answer.objects.filter(pk=job.subject).select_related("comment__reviewed__review").first()
    if answer is None or not can_be_pictured(answer.comment):
        return
    comment = answer.comment
    sheet, reviewed = comment.sheet, comment.reviewed
    before = box_of(comment.marks_as_core)
    if sheet is None or reviewed is None or before is None:  # can_be_pictured
        return
    now = freeze_sheet(sheet)
    drawings = {item.viewport: item for item in now.display.items if isinstance(item, Drawing)}
    shown = shown_box(before)
    after, by = _now(comment, shown, drawings.get(comment.viewport))
    fine_pictures(comment.project, now.shaded_keys, RESOLUTION, work)
    linework, pictures = files_of(comment.project, [now])
    folder = storage.temporary_path(".pictures")
    folder.mkdir(parents=True)
    try:
        work.run(
            "reviews:before_and_after",
            storage.path_of(reviewed.review.pdf),
            reviewed.position_in_pdf,
            storage.path_of(store_state(now)),
            paths(linework),
            paths(pictures),
            (shown, after),
            PER_MM / by,
            folder,
        )
        files = [storage.store(folder / f"{name}.png") for name in ("before", "after")]
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    captions = (f"Before, {comment.revision or 'as reviewed'}", f"Now, {sheet.revision or 'no revision yet'}")
    with transaction.atomic():
        for file, caption in zip(files, captions, strict=True):
            CommentPicture.objects.create(
                comment=comment, answer=answer, caption=caption, form="png", file=file
            )


def _now(comment: Comment, shown: Box, drawing: Drawing | None) -> tuple[Box, float]:
    """Where what was shown lies now, paper mm, and by how much larger it is drawn."""
    if drawing is None or not comment.placement:
        return shown, 1.0
    before: Placement = parse(Placement, comment.placement, "place", SheetError)
    lies = Placement.of(drawing)
    corners = [lies.on_paper(before.in_view(corner)) for corner in shown.corners]
    return box_about(corners), lies.ratio / before.ratio
