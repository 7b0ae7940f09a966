"""The pictures under the lines of viewports: which is asked for, having it made, and giving it to those that
ask.

A picture is known by its key. The board has it coarse; a plot has it made as fine as it is printed.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from django.db.models import QuerySet

from drafting.errors import SheetError
from drafting.schema import dump
from drafting.shading.appearance import Appearance
from drafting.shading.colours import Palette
from drafting.shading.window import Window, picture_key
from drafting.views.spec import AnyView, dump_view
from server.buildings.models import ModelVersion
from server.common import storage
from server.common.pruning import is_old
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.models import ShadedPicture, Viewport
from server.sheets.services import register_of
from server.sheets.templates import picture_files


@dataclass(frozen=True)
class Recipe:
    """All that a picture is made of, but for its resolution."""

    version: ModelVersion
    view: AnyView
    appearance: Appearance
    window: Window
    palette: Palette

    @property
    def key(self) -> str:
        return picture_key(self.version.building, self.view, self.appearance, self.window, self.palette)

    @property
    def _backdrop(self) -> Path | None:
        """The file of the picture behind it, if the project has that."""
        file = picture_files(self.version.project).get(self.appearance.backdrop)
        return storage.path_of(file) if file else None

    def make(self, per_inch: float, work: Work) -> ShadedPicture:
        """The picture at a resolution; made, where it is not there already."""
        found = ShadedPicture.objects.filter(key=self.key, per_inch=per_inch).first()
        if found is not None:
            return found
        made = storage.temporary_path(".png")
        try:
            source = storage.path_of(self.version.building)
            given = (dump_view(self.view), self.appearance, self.window, self.palette, per_inch)
            notes = work.run("drawings:shade_view", source, *given, self._backdrop, made)
            values = {"file": storage.store(made), "notes": notes, "window": dump(self.window)}
            return ShadedPicture.objects.get_or_create(key=self.key, per_inch=per_inch, defaults=values)[0]
        finally:
            made.unlink(missing_ok=True)


def recipe_of(row: Viewport) -> Recipe | None:
    """What the picture of a viewport is made of; None where it shows lines only, or nothing is drawn yet."""
    appearance, drawn = row.appearance_as_core, row.drawn
    if not appearance.has_picture or drawn.drawn_from is None or row.view.is_received:
        return None
    register = register_of(row.sheet.project)
    palette = Palette(register.palette, register.layer_palette)
    return Recipe(drawn.drawn_from, row.view.shown_with(row.shown), appearance, window_of(row), palette)


def window_of(row: Viewport) -> Window:
    """What of its view is seen through a viewport."""
    return Window(row.width, row.height, float(row.scale.ratio), (row.centre_u, row.centre_v), row.turn)


def order_picture(row: Viewport) -> None:
    """Ask for the picture of a viewport as it is now; nothing is done where that is there, or on its way."""
    recipe = recipe_of(row)
    key = recipe.key if recipe else ""
    rows = Viewport.objects.filter(pk=row.pk)
    asked, row.wanted_picture = row.wanted_picture, key
    if recipe is None:
        if asked or row.shaded_id:
            rows.update(wanted_picture="", shaded=None)
        return
    there = ShadedPicture.objects.filter(key=key, per_inch=recipe.window.coarse).first()
    if there is not None:
        rows.update(wanted_picture=key, shaded=there)
        return
    rows.update(wanted_picture=key)
    if not jobs.active(Job.Kind.SHADE, key):
        jobs.start(row.view.project, Job.Kind.SHADE, row.view.name, key)


def order_pictures(project: Project) -> None:
    """Ask for the pictures of all viewports of a project."""
    for row in Viewport.objects.filter(sheet__project=project).in_light():
        order_picture(row)


def shade(job: Job, work: Work) -> None:
    """Make the picture of a job for the screen, unless nobody asks for it any more, and give it to all that
    do."""
    asking = Viewport.objects.filter(wanted_picture=job.subject)
    row = asking.select_related("view__project", "view__subset").first()
    recipe = recipe_of(row) if row else None
    if recipe is None or recipe.key != job.subject:
        return
    picture = recipe.make(recipe.window.coarse, work)
    asking.update(shaded=picture)


def fine_pictures(project: Project, wanted: Iterable[str], per_inch: float, work: Work) -> dict[str, str]:
    """The hashes of pictures as they are plotted, by their keys: made, where they are not there.

    Raises:
        SheetError: what one is made of has changed meanwhile.
    """
    keys = sorted(set(wanted))
    asking = Viewport.objects.filter(sheet__project=project, wanted_picture__in=keys)
    rows = {row.wanted_picture: row for row in asking.select_related("view__subset", "sheet")}
    found = {}
    for key in keys:
        row = rows.get(key)
        recipe = recipe_of(row) if row else None
        if recipe is None or recipe.key != key:
            if row:
                order_picture(row)  # so that the next plot has it
            raise SheetError("A picture on these sheets was changed meanwhile. Plot them again.")
        found[key] = recipe.make(per_inch, work).file
    return found


def kept_fine(keys: Iterable[str]) -> Mapping[str, str]:
    """The hashes of the finest that there is of some pictures, by their keys."""
    rows = ShadedPicture.objects.filter(key__in=list(keys)).order_by("per_inch")
    return {row.key: row.file for row in rows}


def may_see(key: str, projects: Any) -> ShadedPicture | None:
    """A picture for the screen by its key, if a viewport in these projects has it."""
    seen: QuerySet[ShadedPicture] = ShadedPicture.objects.filter(
        key=key, pk__in=Viewport.objects.filter(sheet__project__in=projects).values("shaded")
    )
    return seen.order_by("per_inch").first()


def prune_pictures() -> None:
    """Delete pictures that no viewport has any more, once they are old."""
    for picture in ShadedPicture.objects.exclude(
        pk__in=Viewport.objects.exclude(shaded=None).values("shaded")
    ):
        if is_old(storage.path_of(picture.file)):
            picture.delete()
