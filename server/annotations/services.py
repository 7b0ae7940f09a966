"""Making and changing annotation, and what a project keeps for it."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping
from typing import Any

from django.db.models import Q
from rest_framework import serializers

from drafting.annotation.numbered_notes import NumberedNote
from drafting.annotation.pieces import AnyPiece, PieceKind, attached, dump_piece, parse_piece
from drafting.annotation.symbols import Symbol
from drafting.annotation.tags import Tag
from drafting.errors import SheetError
from server.annotations.drawn import corners_of, is_upright, lines_of
from server.annotations.known import data_of
from server.annotations.models import Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile
from server.buildings.models import ModelVersion, newest_version
from server.common import storage
from server.common.rows import Memo, RowService
from server.jobs.apart import run_apart
from server.projects.models import NamedRow, Project
from server.projects.room import require_room
from server.projects.services import NamedRowService
from server.sheets.services import next_position
from server.views.models import Drawn

#: A sheet, or a view, holds no more pieces than this: more nobody could read.
MAX_PIECES = 3_000
#: A project has no more notes in its list, styles, symbols, than this.
MAX_KEPT = 2_000


class AnnotationService(RowService[Annotation]):
    model = Annotation

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        if "position" not in values:
            values["position"] = next_position(Annotation.objects.filter(project=values["project"]))

    def check(self, row: Annotation, changed: set[str], memo: Memo) -> None:
        if (row.view_id is None) == (row.sheet_id is None):
            raise SheetError("A piece of annotation stands in a view, or on a sheet. Say in which.")
        if row.viewport is not None and row.viewport.sheet_id != row.sheet_id:
            raise serializers.ValidationError({"viewport": "There is no such viewport on this sheet."})
        self._check_number(row)
        if row.view_id is not None and row.spec.get("kind") == "cloud":
            raise SheetError("A cloud stands on the sheet, where the change is, and not in a view.")
        if not {"spec", "view", "sheet", "viewport"} & changed:
            return
        drawn = drawn_of(row)
        drawing = drawn.linework if drawn is not None else None
        view = row.view or (row.viewport.view if row.viewport is not None else None)
        piece = parse_piece(row.spec)
        if row._state.adding and piece.kind in _CHECKS:
            _CHECKS[piece.kind](row.project, piece)
        piece.check(view.as_core if view else None, upright=is_upright(drawing))
        lines = lines_of(newest_version(row.project)) if view and not view.is_received else ([], [])
        row.spec = dump_piece(attached(piece, corners_of(drawing, *lines)))

    def _check_number(self, row: Annotation) -> None:
        if not row._state.adding:
            return
        beside = Annotation.objects.filter(view=row.view_id, sheet=row.sheet_id)
        if beside.count() >= MAX_PIECES:
            where = f"the view “{row.view}”" if row.view else f"sheet {row.sheet.number if row.sheet else ''}"
            raise SheetError(f"There are {MAX_PIECES} pieces of annotation in {where}. Delete some first.")


def _check_tag(project: Project, tag: AnyPiece) -> None:
    """Refuse a tag of what is neither in the building nor in the drawing of anything."""
    assert isinstance(tag, Tag)
    if not tag.at.element:
        raise SheetError("A tag is the label of an element. Click a door, a window, or another.")
    if tag.shows != "value" and tag.at.element not in _openings_of(project):
        raise SheetError("Only doors and windows have a number and a size. Click one, or tag with a value.")


def _check_numbered(project: Project, note: AnyPiece) -> None:
    assert isinstance(note, NumberedNote)
    known = set(NoteOfList.objects.filter(project=project).values_list("pk", flat=True))
    if id_or_none(note.note) not in known:
        raise SheetError("There is no such note in the project's list. Choose one that is.")


def _check_symbol(project: Project, symbol: AnyPiece) -> None:
    assert isinstance(symbol, Symbol)
    own = LibrarySymbol.objects.filter(Q(project=project) | Q(project=None))
    if id_or_none(symbol.symbol) not in set(own.values_list("pk", flat=True)):
        raise SheetError("There is no such symbol in the library. Choose one that is.")


def id_or_none(text: str) -> uuid.UUID | None:
    """An id as it is written; None for what is none."""
    try:
        return uuid.UUID(text)
    except ValueError:
        return None


#: What a new piece refers to is there; what it refers to later may go, and then it says so.
_CHECKS: Mapping[PieceKind, Callable[[Project, AnyPiece], None]] = {
    "tag": _check_tag,
    "numbered": _check_numbered,
    "symbol": _check_symbol,
}


def _openings_of(project: Project) -> set[str]:
    """The ids of the doors and windows of a project's building, in any of its versions."""
    facts = ModelVersion.objects.filter(project=project).values_list("facts", flat=True)
    return {opening["id"] for each in facts for opening in each.get("openings", ())}


def drawn_of(row: Annotation) -> Drawn | None:
    """What has the drawing that a piece is attached to; None for one on the bare sheet."""
    return row.view or (row.viewport.drawn if row.viewport is not None else None)


class KeptService(RowService[Any]):
    """What a project keeps for its annotation: no two of one name, and not without end."""

    #: By what people know a row.
    label = "name"

    def check(self, row: Any, changed: set[str], memo: Memo) -> None:
        beside = self.model.objects.filter(project=row.project).exclude(pk=row.pk)
        if row._state.adding and beside.count() >= MAX_KEPT:
            raise SheetError(f"A project keeps at most {MAX_KEPT} of these. Delete some first.")
        label = getattr(row, self.label)
        if self.label in changed and beside.filter(**{self.label: label}).exists():
            raise SheetError(
                f"There is a {row._meta.verbose_name} “{label}” already. Give it another {self.label}.",
                {self.label: f"“{label}” is there already."},
            )


class NoteOfListService(KeptService):
    model = NoteOfList
    label = "number"

    def check_deletion(self, row: NoteOfList) -> None:
        used = Annotation.objects.filter(project=row.project, spec__kind="numbered", spec__note=str(row.pk))
        if used.exists():
            raise SheetError(
                f"Note {row.number} stands on drawings in {used.count()} places. Delete it there first."
            )


class AnnotationStyleService(KeptService):
    model = AnnotationStyle


class LibrarySymbolService(NamedRowService):
    model = LibrarySymbol

    def users(self, row: NamedRow) -> list[str]:
        placed = Annotation.objects.filter(project=row.project, spec__kind="symbol", spec__symbol=str(row.pk))
        count = placed.count()
        return [f"{count} places on drawings"] if count else []


annotation_service = AnnotationService()
note_of_list_service, annotation_style_service = NoteOfListService(), AnnotationStyleService()
library_symbol_service = LibrarySymbolService()


def add_table_file(project: Project, name: str, data: bytes) -> TableFile:
    """Read a CSV or XLSX and keep its cells; one of a name that is there takes its place, and the tables that
    come from it say that it is newer.

    Raises:
        DraftingError: it is no table that a sheet can show.
        ChildProcessFailed: reading it takes too long or too much memory.
    """
    require_room(project, name, len(data))
    cells = run_apart("drafting.annotation.table_files:read_table", data, name)
    file = storage.store(storage.write_chunks([data]))
    row, _ = TableFile.objects.update_or_create(
        project=project, name=name[:200], defaults={"file": file, "cells": cells}
    )
    return row


def symbols_from_file(data: bytes, name: str) -> list[dict[str, Any]]:
    """Names and drawings of the symbols in an SVG or a DXF, to be kept by whoever asks.

    Raises:
        DraftingError: there is none in it that can be drawn.
        ChildProcessFailed: reading it takes too long or too much memory.
    """
    found: list[dict[str, Any]] = run_apart("drafting.annotation.symbol_files:read_symbols", data, name)
    return found


def element_sources(project: Project) -> list[str]:
    """What the elements and spaces of a building say of themselves in their file, by the names by which
    schedules and tags ask for it."""
    data = data_of(project)
    found = {key for element in data.elements for key in element.values}
    found.update(key for values in data.spaces.values() for key in values)
    return sorted(found)
