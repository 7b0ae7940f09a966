"""Rows of projects through the API: whose they are, and one way to write them, singly or in a batch."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Iterable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import Q, QuerySet
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema, extend_schema_view
from rest_framework import serializers, status, viewsets
from rest_framework.request import Request
from rest_framework.response import Response

from drafting.errors import SheetError
from server.common.made_once import as_json, json_made_once
from server.common.problems import Conflict
from server.common.readable import DAMAGE, name_of, readable, why_not
from server.common.rows import Memo, RowService, StaleVersion
from server.common.serializers import TAKEN, RowSerializer
from server.projects.models import Project
from server.projects.roles import Ability, require


class ProjectRows:
    """For a view set: the rows of one's own projects, or of one of them where `?project=` names it."""

    #: All rows, and how they lead to their project.
    rows: Callable[[], QuerySet[Any]]
    to_project = "project"
    #: Whether there are rows of no project, for all.
    with_presets = False

    def get_queryset(self) -> QuerySet[Any]:
        request: Request = self.request  # type: ignore[attr-defined]
        rows = rows_of(type(self).rows(), self.to_project, request.user, with_presets=self.with_presets)
        wanted = request.query_params.get("project")
        if not wanted:
            return rows
        try:
            chosen = Q(**{self.to_project: uuid.UUID(wanted)})
        except ValueError as error:
            raise serializers.ValidationError({"project": f"“{wanted}” is no id of a project."}) from error
        return rows.filter(_or_of_none(chosen, self.to_project) if self.with_presets else chosen)


def _or_of_none(chosen: Q, to_project: str) -> Q:
    return chosen | Q(**{f"{to_project}__isnull": True})


def rows_of(rows: QuerySet[Any], to_project: str, user: Any, *, with_presets: bool = False) -> QuerySet[Any]:
    """Those rows that belong to the projects somebody works in, and where wanted those that belong to
    none."""
    own = Q(**{f"{to_project}__in": Project.of(user)})
    return rows.filter(_or_of_none(own, to_project) if with_presets else own)


#: Tells the schema of `?project=`.
listed_by_project = extend_schema_view(
    list=extend_schema(parameters=[OpenApiParameter("project", OpenApiTypes.UUID, required=False)])
)


#: Gives what a row that was deleted was, by its kind and by what is sent to make it again; None where it was
#: not there, or is not known any more.
Deleted = Callable[["RowKind", Any], "Mapping[str, Any] | None"]
_deleted_rows: list[Deleted] = []


def register_deleted(look: Deleted) -> None:
    """Have rows that were deleted found."""
    _deleted_rows.append(look)


Recorder = Callable[["RowKind", "dict[str, Any] | None", "dict[str, Any] | None", Mapping[str, Any]], None]
_recorders: list[Recorder] = []


def register_recorder(recorder: Recorder) -> None:
    """Have every write told: `recorder` is given its kind, the row as it was sent before and after (None
    where it was not there, or is not any more), and the context of the request."""
    _recorders.append(recorder)


@dataclass(frozen=True)
class RowKind:
    """One kind of row that people change: how it is sent, and what decides about it.

    Attributes:
        serializer: reads and writes its fields.
        service: makes, changes and deletes it.
        rows: all of them, with what the serializer looks at.
        needs: what one must be able to do in the project to change it.
        signed: fields that say who has checked it, which only those change who may sign.
        read: reads what is stored of a row as the core does, or raises something where that is damaged.
    """

    serializer: type[RowSerializer]
    service: RowService[Any]
    rows: Callable[[], QuerySet[Any]]
    with_presets: bool = False
    needs: Ability = "draw"
    signed: frozenset[str] = frozenset()
    read: Callable[[Any], object] = lambda row: getattr(row, "as_core", None)

    def of(self, user: Any) -> QuerySet[Any]:
        """The rows that somebody may see."""
        return rows_of(self.rows(), self.service.to_project, user, with_presets=self.with_presets)

    def listed(self, project: uuid.UUID) -> bytes:
        """The rows of a project as they are sent, and those of none, as JSON: the same for all who may see
        them. Those that cannot be read are left out."""
        return b"[%b]" % b",".join(text for _, (_, text) in readable(self._in(project), self._sender({})))

    def sent(self, rows: Iterable[Any], context: Mapping[str, Any]) -> list[dict[str, Any]]:
        """Rows as they are sent, without those that cannot be read."""
        return [row for _, (row, _) in readable(rows, self._sender(context))]

    def unreadable(self, project: uuid.UUID) -> list[dict[str, str]]:
        """The rows of a project that `listed` leaves out: what each is called, and why it cannot be read."""
        found: list[dict[str, str]] = []

        def note(row: Any, error: Exception) -> None:
            found.append({"id": str(row.pk), "name": name_of(row), "why": why_not(error)})

        for _ in readable(self._in(project), self._sender({}), note):
            pass
        return found

    def _in(self, project: uuid.UUID) -> QuerySet[Any]:
        to_project = self.service.to_project
        chosen = Q(**{to_project: project})
        return self.rows().filter(_or_of_none(chosen, to_project) if self.with_presets else chosen)

    def _sender(self, context: Mapping[str, Any]) -> Callable[[Any], tuple[dict[str, Any], bytes]]:
        """What makes of a row that can be read what is sent, and that as JSON; with one serializer for all
        rows, for the fields of each are built anew."""
        serializer = self.serializer(context=context)

        def send(row: Any) -> tuple[dict[str, Any], bytes]:
            self.read(row)
            sent = dict(serializer.to_representation(row))
            return sent, as_json(sent)

        return send

    def _require(self, at: Any, path: Sequence[str], needs: Iterable[Ability], request: Request) -> None:
        """Refuse what one's role does not allow in the project that a path leads to; of each project it is
        asked once in a request.

        Raises:
            PermissionDenied: it says who may.
        """
        for name in path:
            at = getattr(at, name)
        if at is None:  # it is built in
            return
        allowed = vars(request).setdefault("_allowed", set())
        for ability in needs:
            if (at.pk, ability) not in allowed:
                require(at, request.user, [ability])
                allowed.add((at.pk, ability))

    def _was(self, data: Any, values: Mapping[str, Any]) -> bool:
        """Whether a row that is made again, as undoing its deletion does, was signed so before."""
        kept = {name: values.get(name) for name in self.signed}
        return any(
            all((before.get(name) or "") == (value or "") for name, value in kept.items())
            for before in (look(self, data) for look in _deleted_rows)
            if before is not None
        )

    @property
    def _path(self) -> list[str]:
        """How a row leads to its project."""
        to_project = self.service.to_project
        return [] if to_project == "pk" else to_project.split("__")

    def _needed(self, row: Any, data: Any) -> list[Ability]:
        """What one must be able to do to change a row so; nothing for what changes nothing."""
        given = data if isinstance(data, Mapping) else {}
        names = {name for name, value in given.items() if getattr(row, name, None) != value}
        names -= {"version", "id"}
        needs: list[Ability] = ["sign"] if names & self.signed else []
        return [*needs, self.needs] if names - self.signed else needs

    @transaction.atomic
    def create(self, several: Sequence[Any], context: Mapping[str, Any], memo: Memo) -> list[dict[str, Any]]:
        """Make rows from what was sent, one after the other, and tell them."""
        # One serializer reads and sends all that a batch makes, for the fields of each are built anew.
        taken: set[uuid.UUID] = memo.setdefault((TAKEN, self.serializer), set())
        serializer: RowSerializer = memo.setdefault(
            ("serializer", self.serializer), self.serializer(context={**context, TAKEN: taken})
        )
        taken.clear()
        taken.update(self._there(data.get("id") for data in several if isinstance(data, Mapping)))
        made = []
        for data in several:
            values = dict(serializer.run_validation(data))
            if self._path:  # everybody makes projects of their own
                signs = any(values.get(name) for name in self.signed) and not self._was(data, values)
                needs: list[Ability] = [self.needs, "sign"] if signs else [self.needs]
                self._require(values[self._path[0]], self._path[1:], needs, context["request"])
            made.append(self.service.make(values, memo))
            taken.add(made[-1].pk)
        return self.made(made, context, serializer)

    def _there(self, ids: Iterable[Any]) -> Iterable[uuid.UUID]:
        """Those of some ids, which may be none, that rows have."""
        known = set()
        for each in ids:
            with suppress(ValueError):
                known.add(uuid.UUID(str(each)))
        found: QuerySet[Any] = self.service.model._default_manager.filter(pk__in=known)
        return found.values_list("pk", flat=True) if known else ()

    def made(
        self, rows: Sequence[Any], context: Mapping[str, Any], by: RowSerializer | None = None
    ) -> list[dict[str, Any]]:
        """Tell rows that a service has made, as they are sent `by` a serializer, where there is one."""
        sender = by or self.serializer(context=context)
        now = self.rows().in_bulk([row.pk for row in rows])
        told = [dict(sender.to_representation(now[row.pk])) for row in rows]
        for after in told:
            self._record(None, after, context)
        return told

    def update(self, row: Any, data: Any, context: Mapping[str, Any], memo: Memo) -> dict[str, Any]:
        """Change a row as was sent, and tell it. The row is one of `of` or `rows`, read in this transaction.

        Raises:
            Conflict: it has been changed since.
        """
        self._require(row, self._path, self._needed(row, data), context["request"])
        serializer = self.serializer(row, data=data, partial=True, context=context)
        serializer.is_valid(raise_exception=True)
        values = dict(serializer.validated_data)
        version = values.pop("version", None)
        if version is None:
            raise serializers.ValidationError({"version": "Give the version that this change is made from."})
        # One serializer sends the row before and after, for the fields of each are built anew.
        before = dict(serializer.to_representation(row)) if _recorders else {}
        try:
            changed = self.service.update(row, values, version, memo)
        except StaleVersion as stale:
            raise Conflict(self.data(stale.current, context)) from None
        after = dict(serializer.to_representation(self._as_sent(changed)))
        self._record(before, after, context)
        return after

    def delete(self, row: Any, version: int | None, context: Mapping[str, Any]) -> None:
        """Delete a row.

        Raises:
            Conflict: it has been changed since.
        """
        self._require(row, self._path, [self.needs], context["request"])
        before = self._before(row, context) if _recorders else {}
        try:
            self.service.delete(row, version)
        except StaleVersion as stale:
            raise Conflict(self.data(stale.current, context)) from None
        self._record(before, None, context)

    def _record(
        self, before: dict[str, Any] | None, after: dict[str, Any] | None, context: Mapping[str, Any]
    ) -> None:
        for recorder in _recorders:
            recorder(self, before, after, context)

    def data(self, row: Any, context: Mapping[str, Any]) -> dict[str, Any]:
        """A row as it is sent, as it is now."""
        return dict(self.serializer(self._as_sent(row), context=context).data)

    def alone(self, row: Any, context: Mapping[str, Any]) -> dict[str, Any]:
        """One row as it is sent.

        Raises:
            SheetError: it cannot be read.
        """
        try:
            return self._sender(context)(row)[0]
        except DAMAGE as error:
            raise SheetError(f"The {name_of(row)} cannot be read: {why_not(error)}") from error

    def _before(self, row: Any, context: Mapping[str, Any]) -> dict[str, Any]:
        """A row that is deleted, as it was; of one that cannot be read, where it belongs."""
        try:
            return self.data(row, context)
        except DAMAGE:
            places = ("project", "sheet", "view")
            return {"id": row.pk, **{name: getattr(row, f"{name}_id", None) for name in places}}

    def _as_sent(self, row: Any) -> Any:
        """A row as it is now, with what its serializer looks at."""
        return self.rows().get(pk=row.pk)


_VERSION = OpenApiParameter(
    "version", OpenApiTypes.INT, required=False, description="What it is deleted from."
)


@extend_schema_view(destroy=extend_schema(parameters=[_VERSION]))
class RowViewSet(ProjectRows, viewsets.ModelViewSet[Any]):
    """Rows that people change, one at a time."""

    kind: RowKind
    #: Of what is done by these, the kind says what is needed, in single writes as in batches.
    decided_by_kind = ("create", "partial_update", "destroy")
    http_method_names = ["get", "post", "patch", "delete", "head", "options"]

    def get_queryset(self) -> QuerySet[Any]:
        if getattr(self, "swagger_fake_view", False):
            return self.kind.rows().none()
        return super().get_queryset()

    def get_serializer_class(self) -> type[RowSerializer]:
        return self.kind.serializer

    def list(self, request: Request, *args: Any, **kwargs: Any) -> Any:
        wanted = request.query_params.get("project")
        # An id that is none is refused, and of a project of others nothing is listed, as of any rows.
        rows = self.get_queryset()
        if wanted and Project.of(request.user).filter(pk=wanted).exists():
            return json_made_once(request._request, self.kind.listed, uuid.UUID(wanted))
        return Response(self.kind.sent(rows, self.get_serializer_context()))

    def retrieve(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        return Response(self.kind.alone(self.get_object(), self.get_serializer_context()))

    def create(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        (row,) = self.kind.create([request.data], self.get_serializer_context(), {})
        return Response(row, status=status.HTTP_201_CREATED)

    def partial_update(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        context = self.get_serializer_context()
        with transaction.atomic():
            return Response(self.kind.update(self.get_object(), request.data, context, {}))

    def destroy(self, request: Request, *args: Any, **kwargs: Any) -> Response:
        version = request.query_params.get("version", "")
        if version and not version.isdigit():
            raise serializers.ValidationError({"version": f"“{version}” is no version."})
        self.kind.delete(self.get_object(), int(version) if version else None, self.get_serializer_context())
        return Response(status=status.HTTP_204_NO_CONTENT)


def row_viewset(kind: RowKind, doc: str) -> type[RowViewSet]:
    """A view set of one kind that needs nothing of its own."""
    made = type(
        f"{kind.service.model.__name__}ViewSet",
        (RowViewSet,),
        {
            "__doc__": doc,
            "kind": kind,
            "rows": staticmethod(kind.rows),
            "to_project": kind.service.to_project,
            "with_presets": kind.with_presets,
            "queryset": kind.service.model._default_manager.none(),
        },
    )
    viewset: type[RowViewSet] = listed_by_project(made)
    return viewset
