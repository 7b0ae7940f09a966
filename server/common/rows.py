"""Making, changing and deleting rows that people change: one way for single writes, batches and commands
alike."""

from __future__ import annotations

import copy
from typing import Any, Generic, TypeVar

from django.db import models, transaction
from rest_framework import serializers

from server.common.models import VersionedModel

M = TypeVar("M", bound=VersionedModel)
#: What the writes of one batch need to look up only once, by a name of the service's own.
Memo = dict[Any, Any]


class StaleVersion(Exception):
    """A write was made from an older version than the row has now."""

    def __init__(self, current: VersionedModel) -> None:
        super().__init__("This was changed elsewhere in the meantime.")
        self.current = current


class RowService(Generic[M]):
    """What decides about one kind of row. A kind says what it checks, and what follows from a write."""

    model: type[M]
    #: How a row leads to its project, which holds for all that it refers to.
    to_project = "project"

    def project_id(self, row: M) -> Any:
        """The project of a row, which need not be saved."""
        at: Any = row
        for name in self.to_project.split("__"):
            at = getattr(at, name)
        return at.pk

    def check(self, row: M, changed: set[str], memo: Memo) -> None:
        """Refuse a row as it would be; `changed` are the names of what is new in it."""

    def check_change(self, row: M, before: M) -> None:
        """Refuse a change, by what the row was before it."""

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        """Fill in what a new row is not given."""

    def created(self, row: M, memo: Memo) -> None:
        """What follows from a new row."""

    def updated(self, row: M, before: M, changed: set[str], memo: Memo) -> None:
        """What follows from a change; `before` is the row as it was."""

    def check_deletion(self, row: M) -> None:
        """Refuse to delete a row that something still needs."""

    def deleting(self, row: M) -> Any:
        """What is to be known of a row before it is deleted; `deleted` is given it."""

    def deleted(self, row: M, known: Any) -> None:
        """What follows from a deletion."""

    @transaction.atomic
    def create(self, values: dict[str, Any], memo: Memo | None = None) -> M:
        """Make a row."""
        return self.make(values, {} if memo is None else memo)

    def make(self, values: dict[str, Any], memo: Memo) -> M:
        """Make a row as one of several that are made in a transaction, or not at all."""
        self.prepare(values, memo)
        plain, many = self._parted(values)
        row = self.model(**plain)
        self._check_references(row, set(values))
        self.check(row, set(values), memo)
        row.save(force_insert=True)
        self._relate(row, many)
        self.created(row, memo)
        return row

    @transaction.atomic
    def update(self, row: M, values: dict[str, Any], version: int, memo: Memo | None = None) -> M:
        """Change a row from a version. What it refers to is taken from `row`, where that was read with it; so
        `row` is read in the transaction that it is changed in.

        Raises:
            StaleVersion: the row has been changed since.
        """
        memo = {} if memo is None else memo
        current = self._at_version(row, version)
        _share_relations(row, current)
        before = copy.copy(current)
        plain, many = self._parted(values)
        for name, value in plain.items():
            setattr(current, name, value)
        self._check_references(current, set(values))
        self.check(current, set(values), memo)
        self.check_change(current, before)
        current.version += 1
        current.save()
        self._relate(current, many)
        self.updated(current, before, set(values), memo)
        return current

    @transaction.atomic
    def delete(self, row: M, version: int | None = None) -> None:
        """Delete a row, from a version where one is given.

        Raises:
            StaleVersion: the row has been changed since.
        """
        current = row if version is None else self._at_version(row, version)
        self.check_deletion(current)
        known = self.deleting(current)
        current.delete()
        self.deleted(current, known)

    def _at_version(self, row: M, version: int) -> M:
        current = self.model._default_manager.get(pk=row.pk)
        if current.version != version:
            raise StaleVersion(current)
        return current

    def _parted(self, values: dict[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
        """Columns, and relations to many."""
        names = {field.name for field in self.model._meta.many_to_many}
        many = {name: value for name, value in values.items() if name in names}
        return {name: value for name, value in values.items() if name not in names}, many

    def _relate(self, row: M, many: dict[str, Any]) -> None:
        for name, rows in many.items():
            getattr(row, name).set(rows)

    def _check_references(self, row: M, changed: set[str]) -> None:
        """What a row refers to is of its own project, or of none and for all."""
        for field in self.model._meta.concrete_fields:
            if (
                isinstance(field, models.ForeignKey)
                and field.name in changed
                and field.name != self.to_project
            ):
                other = getattr(row, field.name)
                project = getattr(other, "project_id", None)
                if other is not None and project is not None and project != self.project_id(row):
                    what = other._meta.verbose_name
                    raise serializers.ValidationError(
                        {field.name: f"There is no such {what} in this project."}
                    )


def _share_relations(read: M, row: M) -> None:
    """Spare a row the queries for what it refers to, where that has been read already."""
    for field in row._meta.concrete_fields:
        if (
            isinstance(field, models.ForeignKey)
            and field.is_cached(read)
            and getattr(read, field.attname) == getattr(row, field.attname)
        ):
            field.set_cached_value(row, field.get_cached_value(read))
