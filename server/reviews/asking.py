"""Asking for a review: links for people without an account, and the sheets made ready for them to look at."""

from __future__ import annotations

import secrets
import shutil
from collections.abc import Iterable, Sequence
from datetime import datetime
from typing import Any

from django.contrib.auth.hashers import make_password
from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from drafting.errors import SheetError, ViewError
from drafting.issuing.frozen import FrozenSheet, freeze, thaw
from drafting.render.items import Drawing
from drafting.render.page import FileInfo
from drafting.review.prepared import PDF
from drafting.schema import dump
from drafting.views.spec import dump_view
from server.accounts.models import digest_of
from server.common import storage
from server.issues.freezing import at_one_moment, files_of, files_of_issue, paths, store_state
from server.issues.models import Issue
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.reviews.models import Review, ReviewLink, ReviewSheet
from server.sheets.composing import composed
from server.sheets.models import Sheet, Viewport
from server.sheets.shading import fine_pictures
from server.sheets.shadow_areas import ready_areas
from server.sheets.whole_set import WholeSet

#: As many people and sheets as one review has.
MAX_PEOPLE, MAX_SHEETS = 50, 300
#: Pictures under drawings are so fine on the screen of a reviewer; pixels to the inch.
RESOLUTION = 200.0


def ask(
    project: Project,
    user: Any,
    given: dict[str, Any],
    what: Issue | Sequence[Sheet],
    people: Sequence[str],
    *,
    anyone: bool,
) -> tuple[Review, list[tuple[ReviewLink, str]]]:
    """Ask for a review of an issue, or of sheets as they are. `given` are name, message, until and the word.

    Returns:
        The review, which is made ready in the background, and its links with their secrets, which are told
        only now.

    Raises:
        SheetError: nothing or nobody is chosen, or the date has passed.
    """
    names = _check(given["until"], what, people, anyone=anyone)
    word = make_password(given["word"]) if given["word"] else ""
    with transaction.atomic():
        last = Review.objects.filter(project=project).aggregate(last=Max("number"))["last"] or 0
        review = Review.objects.create(
            project=project,
            number=last + 1,
            name=given["name"],
            message=given["message"],
            issue=what if isinstance(what, Issue) else None,
            until=given["until"],
            word=word,
            asked_by=user.get_username(),
        )
        _add_sheets(review, what)
        links = [_link(review, name) for name in names]
        review.job = jobs.start(project, Job.Kind.REVIEW, review.name, str(review.pk), long=True)
        review.save()
    return review, links


def _check(
    until: datetime, what: Issue | Sequence[Sheet], people: Sequence[str], *, anyone: bool
) -> list[str]:
    """For whom there is a link each; blank for whoever has it."""
    names = list(dict.fromkeys(name.strip() for name in people if name.strip()))
    if not isinstance(what, Issue) and not what:
        raise SheetError("No sheet is chosen. Tick those that are to be reviewed.")
    if not isinstance(what, Issue) and len(what) > MAX_SHEETS:
        raise SheetError(f"A review has at most {MAX_SHEETS} sheets. Ask for several.")
    if not names and not anyone:
        raise SheetError("Nobody is named. Name somebody, or make a link for whoever has it.")
    if len(names) > MAX_PEOPLE:
        raise SheetError(f"A review has at most {MAX_PEOPLE} people. Make a link for whoever has it.")
    if until <= timezone.now():
        raise SheetError("The review would be over before it begins. Choose a later date.")
    return names + ([""] if anyone else [])


def _add_sheets(review: Review, what: Issue | Sequence[Sheet]) -> None:
    if isinstance(what, Issue):
        for issued in what.sheets.all():
            ReviewSheet.objects.create(
                review=review,
                sheet=issued.sheet,
                issued=issued,
                state=issued.state,
                position=issued.position,
                number=issued.number,
                title=issued.title,
                revision=issued.revision,
            )
        return
    for k, sheet in enumerate(sorted(what, key=lambda each: each.position)):
        ReviewSheet.objects.create(
            review=review,
            sheet=sheet,
            position=k,
            number=sheet.number,
            title=sheet.title,
            revision=sheet.revision,
        )


def _link(review: Review, name: str) -> tuple[ReviewLink, str]:
    secret = secrets.token_urlsafe(24)
    return ReviewLink.objects.create(review=review, name=name, digest=digest_of(secret)), secret


def renew(link: ReviewLink) -> str:
    """Another secret for a link, in place of the one that it has; told only now."""
    secret = secrets.token_urlsafe(24)
    link.digest = digest_of(secret)
    link.save(update_fields=["digest"])
    return secret


def add_link(review: Review, name: str) -> tuple[ReviewLink, str]:
    """One more link.

    Raises:
        SheetError: there is one for this name, or there are many.
    """
    if review.links.filter(name=name).exists():
        raise SheetError(f"There is a link for {name or 'whoever has it'} already. Make that one anew.")
    if review.links.count() > MAX_PEOPLE:
        raise SheetError(f"A review has at most {MAX_PEOPLE} people. Make a link for whoever has it.")
    return _link(review, name)


def prepare(job: Job, work: Work) -> None:
    """Make the sheets of a review ready: as they are now, or as they were issued."""
    review = Review.objects.filter(job=job).first()
    if review is None:
        return
    rows = list(review.sheets.select_related("sheet", "issued"))
    frozen, linework, pictures = _frozen(review, rows, work)
    origins = [_origins(sheet) for sheet in frozen]
    folder = storage.temporary_path(".review")
    folder.mkdir(parents=True)
    try:
        states = [storage.path_of(row.state) for row in rows]
        info = FileInfo(f"{review.name}, {review.project.name}", review.project.practice, round(RESOLUTION))
        made = work.run(
            "reviews:prepare_review", states, origins, paths(linework), paths(pictures), folder, info
        )
        for row, sheet, files in zip(rows, frozen, made, strict=True):
            row.width, row.height = sheet.width, sheet.height
            row.number, row.revision = sheet.number, sheet.revision
            row.title = sheet.field_values.get("title", "")
            row.tiles = storage.store(folder / files.tiles)
            row.places = storage.store(folder / files.places)
            row.levels = [dump(level) for level in files.levels]
        pdf = storage.store(folder / PDF)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    with transaction.atomic():
        for row in rows:
            row.save()
        Review.objects.get(pk=review.pk)
        review.pdf = pdf
        review.save(update_fields=["pdf"])


def _frozen(
    review: Review, rows: Sequence[ReviewSheet], work: Work
) -> tuple[list[FrozenSheet], dict[str, str], dict[str, str]]:
    """The sheets of a review, and the hashes of the linework and pictures that they are drawn from."""
    if review.issue is not None:
        linework, pictures = files_of_issue(review.issue.sheets.all()[0])
        return [thaw(storage.path_of(row.state).read_bytes()) for row in rows], linework, pictures
    project = review.project
    sheets = [row.sheet for row in rows if row.sheet is not None]
    if len(sheets) < len(rows):
        raise SheetError("A sheet of this review has been deleted. Ask for it again.")
    ready_areas(sheets, work)
    frozen = at_one_moment(project, lambda: _all_now(project, [sheet.pk for sheet in sheets], work))
    for row, sheet in zip(rows, frozen, strict=True):
        row.state = store_state(sheet)
        fine_pictures(project, sheet.shaded_keys, RESOLUTION, work)
    return frozen, *files_of(project, frozen)


def _all_now(project: Project, sheets: Iterable[Any], work: Work) -> list[FrozenSheet]:
    found = []
    whole, wanted = WholeSet.of(project), list(sheets)
    for k, pk in enumerate(wanted):
        row = Sheet.objects.select_related("project", "template", "plot_settings").get(pk=pk)
        work.step(f"Composing {row.number}", k / len(wanted))
        found.append(freeze(*composed(row, whole)))
    return found


def _origins(sheet: FrozenSheet) -> dict[str, tuple[Any, dict[str, Any]]]:
    """From which stored building and view the drawings of a sheet were made, by the ids of their viewports:
    known as long as a viewport still has the drawing."""
    drawings = {item.viewport: item for item in sheet.display.items if isinstance(item, Drawing)}
    rows = Viewport.objects.filter(pk__in=drawings).select_related("view__subset")
    found = {}
    for row in rows:
        version = row.drawn.drawn_from
        same = row.drawn.linework_id == drawings[str(row.pk)].linework
        if version is not None and same and not row.view.is_received:
            try:
                view = dump_view(row.view.shown_with(row.shown))
            except ViewError:
                continue
            found[str(row.pk)] = storage.path_of(version.building), view
    return found
