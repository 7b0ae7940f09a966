"""Which template a sheet has, and the pictures that it shows."""

from __future__ import annotations

from collections.abc import Mapping
from uuid import UUID

from drafting.sheets.picture import Picture as CorePicture
from drafting.sheets.picture import read_picture
from drafting.sheets.shipped_templates import LOGO, SHIPPED, STANDARD
from drafting.sheets.template import Template as CoreTemplate
from server.config import storage
from server.projects.models import Project
from server.templates.models import Picture, Template


def templates_of(project: Project) -> dict[str, CoreTemplate]:
    """All that sheets of a project can have, by what they call it."""
    return {**SHIPPED, **{str(row.pk): row.as_core for row in Template.objects.filter(project=project)}}


def template_named(project: Project, key: str) -> CoreTemplate:
    """A template by a sheet's name for it; the standard one for one that is there no more."""
    if key in SHIPPED:
        return SHIPPED[key]
    try:
        row = Template.objects.filter(project=project, pk=UUID(key)).first()
    except ValueError:
        row = None
    return row.as_core if row else STANDARD


def pictures_of(project: Project) -> Mapping[str, CorePicture]:
    """The pictures of a project by the keys that templates show them by."""
    found = {str(row.pk): row.as_core for row in Picture.objects.filter(project=project)}
    if project.logo_id and str(project.logo_id) in found:
        found[LOGO] = found[str(project.logo_id)]
    return found


def picture_files(project: Project) -> dict[str, str]:
    """Where the pixels of a project's pictures are kept: hashes by the pictures' keys."""
    return {str(row.pk): row.file for row in Picture.objects.filter(project=project).exclude(form="vector")}


def take_in(project: Project, name: str, data: bytes) -> Picture:
    """Keep a picture with its project.

    Raises:
        SheetError: it is none that paper can show.
    """
    picture = read_picture(data, name)
    file = storage.keep(storage.write_chunks([picture.to_bytes()]))
    return Picture.objects.create(
        project=project, name=name[:200], form=picture.form, width=picture.width, height=picture.height, file=file
    )
