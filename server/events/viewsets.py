"""Being told of what happens in a project as it happens (server-sent events), and telling where one is."""

from __future__ import annotations

import json
import uuid
from collections.abc import AsyncIterator, Mapping
from dataclasses import dataclass
from typing import Any

from asgiref.sync import sync_to_async
from django.contrib.auth import get_user_model
from django.contrib.sessions.backends.db import SessionStore
from django.contrib.sessions.models import Session
from django.http import StreamingHttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.renderers import BaseRenderer
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import AccessToken
from server.common.written import remembered
from server.events.hub import Place, Stream, TooMany, hub
from server.events.serializers import EventSerializer, PagePlaceSerializer
from server.events.telling import MAX_TAB
from server.projects.models import Membership, Project

#: Something is sent at least this often, so that a broken connection is noticed; seconds.
BEAT = 15.0
#: After a break, a page listens again after so long; milliseconds.
LISTEN_AGAIN = 2000


class EventStreamRenderer(BaseRenderer):
    """So that a request for events is understood; what is answered instead of them is JSON."""

    media_type = "text/event-stream"
    format = "events"

    def render(
        self, data: Any, media_type: str | None = None, context: Mapping[str, Any] | None = None
    ) -> bytes:
        return json.dumps(data).encode()


class EventsView(APIView):
    """What happens in a project."""

    renderer_classes = [EventStreamRenderer]

    @extend_schema(
        parameters=[
            OpenApiParameter("project", OpenApiTypes.UUID, required=True),
            OpenApiParameter("tab", OpenApiTypes.STR, required=True, description="A name for the page."),
        ],
        responses={(200, "text/event-stream"): EventSerializer},
    )
    def get(self, request: Request) -> StreamingHttpResponse:
        """Server-sent events: `rows` has rows that others have changed, `changed` names kinds of which others
        have changed some that are not told, `people` says who else is there. A page's own changes, which it
        sends with its name in X-Dunefold-Tab, are not told to it."""
        try:
            wanted = uuid.UUID(request.query_params.get("project", ""))
        except ValueError as error:
            raise serializers.ValidationError({"project": "Say which project."}) from error
        tab = request.query_params.get("tab", "")
        if not 0 < len(tab) <= MAX_TAB:
            raise serializers.ValidationError({"tab": f"Give the page a name of 1 to {MAX_TAB} letters."})
        project = get_object_or_404(Project.of(request.user), pk=wanted)
        token = request.auth if isinstance(request.auth, AccessToken) else None
        session = request._request.session.session_key if token is None else None
        response = StreamingHttpResponse(
            _events(Listener(request.user, session, token), str(project.pk), tab),
            content_type="text/event-stream",
        )
        # Nothing on the way holds it back to compress it or to gather more.
        response.headers["Content-Encoding"] = "identity"
        response.headers["X-Accel-Buffering"] = "no"
        return response


@dataclass(frozen=True)
class Listener:
    """Who is told: somebody, and the session or the token that they came in with."""

    user: Any
    session: str | None
    token: AccessToken | None

    def may_listen(self, project: str) -> bool:
        """Whether they still work in a project, and are still let in. It is asked before anything is told,
        and of the database only when what it depends on was written to."""
        key = (self.user.pk, self.session, self.token and self.token.pk, project)
        depends_on = (AccessToken, Session, get_user_model(), Project, Membership)
        return bool(remembered(key, depends_on, lambda: self._is_let_in(project) or None))

    def _is_let_in(self, project: str) -> bool:
        if self.session is not None and not SessionStore().exists(self.session):
            return False
        if self.token is not None and not AccessToken.objects.filter(pk=self.token.pk).exists():
            return False
        active = get_user_model().objects.filter(pk=self.user.pk, is_active=True)
        return active.exists() and Project.of(self.user).filter(pk=project).exists()


async def _events(listener: Listener, project: str, tab: str) -> AsyncIterator[bytes]:
    stream = Stream(project, listener.user.get_username(), tab)
    try:
        hub.open(stream)
    except TooMany:
        yield _event("full", {})
        return
    try:
        yield f"retry: {LISTEN_AGAIN}\n\n".encode()
        yield _event("people", {"others": hub.others(stream)})
        while not stream.ended:
            something = await stream.wait(BEAT)
            if not await sync_to_async(listener.may_listen)(project):
                return
            if not something:
                yield b": still here\n\n"
                continue
            news = stream.collect()
            if news.rows:
                yield _told("rows", f'{{"rows": [{", ".join(changed.as_json for changed in news.rows)}]}}')
            if news.topics:
                yield _event("changed", {"topics": news.topics})
            if news.people:
                yield _event("people", {"others": hub.others(stream)})
    finally:
        hub.close(stream)


def _event(name: str, data: Any) -> bytes:
    return _told(name, json.dumps(data))


def _told(name: str, data: str) -> bytes:
    return f"event: {name}\ndata: {data}\n\n".encode()


class PlaceView(APIView):
    """Where a page is."""

    @extend_schema(request=PagePlaceSerializer, responses={204: None})
    def post(self, request: Request) -> Response:
        """Tell others in the project where one is and what one holds. It is kept as long as one listens."""
        given = PagePlaceSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        said = given.validated_data
        place = Place(said["station"], said["subject"], tuple(str(pk) for pk in said["holding"]))
        hub.move(str(said["project"]), request.user.get_username(), said["tab"], place)
        return Response(status=204)
