"""What is behind the link of a review, for whoever has it: found, entered with a word, and every use kept."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib.auth.hashers import check_password
from django.utils import timezone
from rest_framework.exceptions import NotFound, PermissionDenied, ValidationError
from rest_framework.request import Request
from rest_framework.throttling import SimpleRateThrottle

from server.accounts.models import digest_of
from server.reviews.models import LinkUse, ReviewLink

GONE = "There is no review behind this link. Check that all of it was copied, or ask whoever sent it."
OVER = "This review has ended. Ask whoever sent the link for another."
WAIT = "The sheets of this review are being made ready. Try again in a minute."
ASKS = "This review asks for a word. Ask whoever sent the link for it."
WRONG = "That is not the word of this review."
#: A page that is opened again within so long is the same use; no link has more uses that are kept.
SAME_USE, MAX_USES = timedelta(minutes=10), 5_000
#: Wrong words are slowed down: after so many within so long, none is taken.
MAX_WRONG, WRONG_WITHIN = 10, timedelta(minutes=15)


class LinkThrottle(SimpleRateThrottle):
    """So many things may be said by a link from an address within a minute."""

    scope = "comment"

    def get_cache_key(self, request: Request, view: Any) -> str:
        return f"comment-{digest_of(view.kwargs['secret'])}-{self.get_ident(request)}"


def found(secret: str) -> ReviewLink:
    """The link of a secret.

    Raises:
        NotFound: there is none, or it leads nowhere any more.
    """
    row = ReviewLink.objects.filter(digest=digest_of(secret)).select_related("review__project").first()
    if row is None:
        raise NotFound(GONE)
    review = row.review
    if review.withdrawn or review.until <= timezone.now():
        raise NotFound(OVER)
    if not review.pdf:
        raise NotFound(WAIT)
    return row


def _entered_key(link: ReviewLink) -> str:
    return f"review-{link.pk}"


def is_entered(request: Request, link: ReviewLink) -> bool:
    """Whether whoever asks may look: there is no word, or it was given in this browser, and is still that."""
    word = link.review.word
    return not word or request._request.session.get(_entered_key(link)) == word


def entered(request: Request, secret: str) -> ReviewLink:
    """The link of a secret, for whoever may look.

    Raises:
        NotFound: it leads nowhere.
        PermissionDenied: the word is not known.
    """
    link = found(secret)
    if not is_entered(request, link):
        raise PermissionDenied(ASKS)
    return link


def enter(request: Request, link: ReviewLink, word: str) -> None:
    """Let in whoever knows the word.

    Raises:
        ValidationError: it is another, or was guessed too often.
    """
    lately = timezone.now() - WRONG_WITHIN
    if link.uses.filter(kind=LinkUse.Kind.REFUSED, at__gt=lately).count() >= MAX_WRONG:
        raise ValidationError({"word": "There were too many wrong words. Try again in a quarter of an hour."})
    if not check_password(word.strip(), link.review.word):
        note(request, link, LinkUse.Kind.REFUSED)
        raise ValidationError({"word": WRONG})
    request._request.session[_entered_key(link)] = link.review.word


def note(request: Request, link: ReviewLink, kind: str, name: str = "") -> None:
    """Keep that a link was used."""
    address = request.META.get("REMOTE_ADDR") or None
    if kind == LinkUse.Kind.OPENED:
        same = link.uses.filter(kind=kind, address=address, at__gt=timezone.now() - SAME_USE)
        if same.exists():
            return
    if link.uses.count() < MAX_USES:
        LinkUse.objects.create(link=link, kind=kind, address=address, name=name or link.name)
