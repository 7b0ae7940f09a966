"""Comments of a review that nobody has answered."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

#: As many letters of a comment are told.
SHOWN = 60


def _find(checked: CheckedSet) -> Iterator[Found]:
    for comment in checked.unanswered:
        said = " ".join(comment.text.split()) or "a mark without words"
        said = f"{said[:SHOWN].rstrip()}…" if len(said) > SHOWN else said
        words = f"Comment {comment.number} of {comment.author} waits for an answer: “{said}”"
        yield Found(words, sheet=comment.sheet, subject=str(comment.number), at=comment.at)


RULE = Rule("comments-unanswered", "Comments without an answer", "warning", _find)
