"""What was said of the demo's first issue: four comments, of which two are settled and one waits."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.utils import timezone

from server.issues.models import Issue
from server.projects.models import Project
from server.reviews import asking, commenting
from server.reviews.models import Comment, ReviewSheet
from server.sheets.models import Viewport

PEOPLE = ("Oda Brand", "Per Lund")
MESSAGE = (
    "Please look at the rooms of the bunkhouse and at the way up the tower, before the timber is ordered."
)
#: Sheet, view, where on its drawing (shares of width and height), what is drawn there (mm about that place),
#: who says what, and what is answered: how it stands then.
SAID: tuple[tuple[str, str, tuple[float, float], dict[str, Any], str, str, str, str], ...] = (
    (
        "A-01", "Plan, Ground floor", (0.3, 0.44), {"kind": "cloud", "size": (34.0, 30.0)}, "Oda Brand",
        "The rings and scales lie on the desk by the window. Is there room for both of us at it?",
        "Yes, it is 1.80 m wide.", "answered",
    ),
    (
        "A-01", "Plan, Ground floor", (0.44, 0.37), {"kind": "arrow", "size": (28.0, -22.0)}, "Per Lund",
        "Three crates a day go through this door. They are 1.10 m wide.",
        "The ramp and the deck were widened.", "done",
    ),
    (
        "A-03", "South elevation", (0.166, 0.44), {"kind": "point"}, "Oda Brand",
        "Could this window be square, like the others?", "It is round to be told from the sea. It stays.",
        "declined",
    ),
    (
        "A-03", "South elevation", (0.46, 0.12), {"kind": "length", "size": (0.0, 11.0)}, "Per Lund",
        "Is this the height of the rail that was agreed?", "", "",
    ),
)  # fmt: skip


def review(project: Project, user: AbstractBaseUser) -> None:
    """Ask for a review of the last issue; `say` adds what comes of it."""
    given = {
        "name": "Before the timber is ordered",
        "message": MESSAGE,
        "until": timezone.now() + timedelta(days=21),
        "word": "",
    }
    issued = Issue.objects.filter(project=project).last()
    assert issued is not None
    asking.ask(project, user, given, issued, PEOPLE, anyone=False)


def say(project: Project, user: AbstractBaseUser) -> None:
    """What was said of the sheets that are reviewed, and answered."""
    for number, view, place, mark, author, text, answer, state in SAID:
        reviewed = ReviewSheet.objects.filter(review__project=project, number=number).last()
        row = Viewport.objects.filter(sheet__project=project, sheet__number=number, view__name=view).first()
        if reviewed is None or row is None:
            continue
        x, y = row.x + place[0] * row.width, row.y + place[1] * row.height
        comment = commenting.comment_on(
            commenting.PastSheet.reviewed(reviewed), [_mark(mark, x, y)], text, author, Comment.Origin.LINK
        )
        if answer:
            commenting.answer(comment, answer, user.get_username(), user=user, state=state)


def _mark(mark: dict[str, Any], x: float, y: float) -> dict[str, Any]:
    """A mark about a place, mm."""
    width, height = mark.get("size", (0.0, 0.0))
    match mark["kind"]:
        case "cloud":
            ways = ((-0.5, 0.5), (0.5, 0.5), (0.5, -0.5), (-0.5, -0.5))
            corners = [[x + across * width, y + up * height] for across, up in ways]
            return {"kind": "cloud", "corners": corners}
        case "arrow":
            return {"kind": "arrow", "tip": [x, y], "tail": [x + width, y + height]}
        case "length":
            return {"kind": "length", "first": [x, y], "last": [x + width, y + height]}
        case _:
            return {"kind": "point", "at": [x, y]}
