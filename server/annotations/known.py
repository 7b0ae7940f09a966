"""What annotation says beside its own words: of the building, of a project's notes, styles and symbols;
looked up once for a whole set."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Any
from uuid import UUID

from django.db.models import Q

from drafting.annotation.dimensions import DimensionStyle
from drafting.annotation.numbered_notes import ListedNote
from drafting.annotation.styles import TextStyle
from drafting.annotation.symbols import SymbolSpec
from drafting.building.element_data import BuildingData, ElementData, load_data
from drafting.building.openings import Opening
from drafting.sheets.picture import Picture
from server.annotations.models import AnnotationStyle, LibrarySymbol, NoteOfList, TableFile
from server.buildings.models import newest_version
from server.common import storage
from server.common.made_once import part_made_once
from server.common.readable import readable
from server.projects.models import Project
from server.sheets.whole_set import WholeSet

#: As many buildings' data are kept ready as people look at at once.
_MAX_KEPT = 8


@lru_cache(maxsize=_MAX_KEPT)
def _read(file: str) -> BuildingData:
    """The data of a building by the hash of its file; what lies under a hash never changes."""
    return load_data(storage.path_of(file))


def data_of(project: Project) -> BuildingData:
    """What the newest version of a project's building says of its elements."""
    newest = newest_version(project)
    return _read(newest.data) if newest and newest.data else BuildingData()


def _styles_of(project: UUID) -> Mapping[str, TextStyle | DimensionStyle]:
    rows = AnnotationStyle.objects.filter(project=project)
    return {str(row.pk): style for row, style in readable(rows, lambda row: row.as_core)}


def _symbols_of(project: UUID) -> Mapping[str, tuple[str, SymbolSpec]]:
    rows = LibrarySymbol.objects.filter(Q(project=project) | Q(project=None))
    return {str(row.pk): (row.name, symbol) for row, symbol in readable(rows, lambda row: row.as_core)}


@dataclass(frozen=True)
class Known:
    """What pieces of annotation refer to; each is looked up when the first piece wants it."""

    project: Project
    whole: WholeSet

    @classmethod
    def of(cls, project: Project, whole: WholeSet) -> Known:
        """What there is, the same for all sheets that are composed with one set."""
        known: Known = whole.memo.setdefault("annotation", cls(project, whole))
        return known

    @cached_property
    def openings(self) -> Mapping[str, Opening]:
        return {opening.id: opening for opening in self.whole.openings}

    @cached_property
    def data(self) -> BuildingData:
        return data_of(self.project)

    @cached_property
    def elements(self) -> Mapping[str, ElementData]:
        return {element.id: element for element in self.data.elements}

    @cached_property
    def notes(self) -> Mapping[str, ListedNote]:
        return {str(row.pk): row.as_core for row in NoteOfList.objects.filter(project=self.project)}

    @cached_property
    def styles(self) -> Mapping[str, TextStyle | DimensionStyle]:
        return part_made_once(_styles_of, self.project.pk)

    @cached_property
    def symbols(self) -> Mapping[str, tuple[str, SymbolSpec]]:
        """Names and drawings of symbols, by their ids."""
        return part_made_once(_symbols_of, self.project.pk)

    @cached_property
    def table_files(self) -> Mapping[str, tuple[str, str]]:
        """Names and hashes of the files that tables come from, by their ids."""
        rows: Any = TableFile.objects.filter(project=self.project).values_list("pk", "name", "file")
        return {str(key): (name, file) for key, name, file in rows}

    @property
    def pictures(self) -> Mapping[str, Picture]:
        return self.whole.pictures
