"""Templates and the pictures on them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db.models import Q

from drafting.sheets.picture import Picture as CorePicture
from drafting.sheets.template import Blank, TemplateSpec, check_blank, parse_template
from drafting.sheets.template_presets import LOGO
from server.common import storage
from server.common.readable import readable
from server.common.rows import Memo
from server.jobs.apart import run_apart
from server.projects.models import NamedRow, Project
from server.projects.room import require_room
from server.projects.services import NamedRowService
from server.sheets.models import Picture, Register, Template


class TemplateService(NamedRowService):
    model = Template

    def check(self, row: Any, changed: set[str], memo: Memo) -> None:
        super().check(row, changed, memo)
        if "spec" in changed:
            template = parse_template(row.spec)
            for sheet in row.sheets.all() if not row._state.adding else ():
                check_blank(Blank(sheet.as_paper, template), row.name)

    def users(self, row: NamedRow) -> list[str]:
        return [sheet.number for sheet in Template.objects.get(pk=row.pk).sheets.all()]


template_service = TemplateService()


def templates_of(project: Project) -> dict[Any, TemplateSpec]:
    """All that sheets of a project can have and that can be read, by their ids."""
    rows = Template.objects.filter(Q(project=project) | Q(project=None))
    return {row.pk: spec for row, spec in readable(rows, lambda row: row.as_core)}


def pictures_of(project: Project) -> Mapping[str, CorePicture]:
    """The pictures of a project by the keys that templates show them by."""
    found = {str(row.pk): row.as_core for row in Picture.objects.filter(project=project)}
    logo = Register.objects.filter(project=project).values_list("logo", flat=True).first()
    if logo and str(logo) in found:
        found[LOGO] = found[str(logo)]
    return found


def picture_files(project: Project) -> dict[str, str]:
    """Where the pixels of a project's pictures are stored: hashes by the pictures' keys."""
    return {str(row.pk): row.file for row in Picture.objects.filter(project=project).exclude(form="vector")}


def add_picture(project: Project, name: str, data: bytes) -> Picture:
    """Store a picture with its project.

    Raises:
        DraftingError: it is none that paper can show.
        ChildProcessFailed: reading it takes too long or too much memory.
    """
    require_room(project, name, len(data))
    picture: CorePicture = run_apart("drafting.sheets.picture:read_picture", data, name)
    file = storage.store(storage.write_chunks([picture.to_bytes()]))
    return Picture.objects.create(
        project=project,
        name=name[:200],
        form=picture.form,
        width=picture.width,
        height=picture.height,
        file=file,
    )
