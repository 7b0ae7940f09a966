"""The cookie by which a browser is known."""

from __future__ import annotations

from django.conf import settings
from django.contrib.sessions.middleware import SessionMiddleware
from django.http import HttpRequest, HttpResponse


class Sessions(SessionMiddleware):
    """Django's, which takes a browser's cookie away when it is signed out, and not when a request comes with
    a session that has ended: a change of the password gives the browser another while requests are on their
    way, and what answers them would take that one away."""

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        signed_out = settings.SESSION_COOKIE_NAME in response.cookies
        response = super().process_response(request, response)
        cookie = response.cookies.get(settings.SESSION_COOKIE_NAME)
        if cookie is not None and not cookie.value and not signed_out:
            del response.cookies[settings.SESSION_COOKIE_NAME]
        return response


def forget_browser(response: HttpResponse) -> None:
    """Take the cookie of a browser that is signed out away."""
    response.delete_cookie(settings.SESSION_COOKIE_NAME, samesite="Lax")
