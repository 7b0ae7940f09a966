"""Areas of shadow under the lines of viewports: which are asked for, having them made, and reading them.

They are known by a key, like pictures, and are as fine on the screen as on paper.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from drafting.errors import SheetError
from drafting.schema import parse
from drafting.shading.appearance import Appearance
from drafting.shading.areas import ShadowAreas
from drafting.shading.window import Window, areas_key
from drafting.views.spec import AnyView, dump_view
from server.buildings.models import ModelVersion
from server.common import storage
from server.common.pruning import is_old
from server.jobs import services as jobs
from server.jobs.models import Job
from server.jobs.runner import Work
from server.sheets import shading
from server.sheets.models import Sheet, TracedShadow, Viewport

#: As many areas are kept ready as a few large sheets have.
MAX_KEPT = 64


@dataclass(frozen=True)
class AreasRecipe:
    """All that areas of shadow are made of."""

    version: ModelVersion
    view: AnyView
    appearance: Appearance
    window: Window

    @property
    def key(self) -> str:
        return areas_key(self.version.building, self.view, self.appearance, self.window)

    def make(self, work: Work) -> TracedShadow:
        """The areas; made, where they are not there already."""
        found = TracedShadow.objects.filter(key=self.key).first()
        if found is not None:
            return found
        made = storage.temporary_path(".json")
        try:
            source = storage.path_of(self.version.building)
            work.run(
                "drawings:trace_shadow", source, dump_view(self.view), self.appearance, self.window, made
            )
            values = {"file": storage.store(made)}
            return TracedShadow.objects.get_or_create(key=self.key, defaults=values)[0]
        finally:
            made.unlink(missing_ok=True)


def recipe_of(row: Viewport) -> AreasRecipe | None:
    """What the areas of a viewport are made of; None where it shows none, or nothing is drawn yet."""
    appearance, drawn = row.appearance_as_core, row.drawn
    if not appearance.has_areas or drawn.drawn_from is None or row.view.is_received:
        return None
    return AreasRecipe(drawn.drawn_from, row.view.shown_with(row.shown), appearance, shading.window_of(row))


def order_areas(row: Viewport) -> None:
    """Ask for the areas of shadow of a viewport as it is now; nothing is done where they are there, or on
    their way."""
    recipe = recipe_of(row)
    rows = Viewport.objects.filter(pk=row.pk)
    asked, row.wanted_areas = row.wanted_areas, recipe.key if recipe else ""
    if recipe is None:
        if asked or row.traced_id:
            rows.update(wanted_areas="", traced=None)
        return
    there = TracedShadow.objects.filter(key=recipe.key).first()
    rows.update(wanted_areas=recipe.key, **({"traced": there} if there else {}))
    if there is None and not jobs.active(Job.Kind.SHADE, recipe.key):
        jobs.start(row.view.project, Job.Kind.SHADE, row.view.name, recipe.key)


def order_light(row: Viewport) -> None:
    """Ask for all of a viewport that depends on light: its picture and its areas of shadow."""
    shading.order_picture(row)
    order_areas(row)


def is_lit(row: Viewport) -> bool:
    """Whether a viewport has all that it asks for of what depends on light."""
    has = {made.key for made in (row.shaded, row.traced) if made is not None}
    return {row.wanted_picture, row.wanted_areas} <= has | {""}


def shade(job: Job, work: Work) -> None:
    """Make what a job is for: areas of shadow, or a picture."""
    asking = Viewport.objects.filter(wanted_areas=job.subject)
    row = asking.select_related("view__project", "view__subset").first()
    if row is None:
        shading.shade(job, work)
        return
    recipe = recipe_of(row)
    if recipe is not None and recipe.key == job.subject:
        asking.update(traced=recipe.make(work))


def ready_areas(sheets: Iterable[Sheet], work: Work) -> None:
    """Have the areas of shadow on sheets as they are now, before they are plotted."""
    on = Viewport.objects.filter(sheet__in=list(sheets)).in_light()
    for row in on.select_related("view__subset", "sheet", "traced"):
        recipe = recipe_of(row)
        if recipe is not None and (row.traced is None or row.traced.key != recipe.key):
            made = recipe.make(work)
            Viewport.objects.filter(pk=row.pk).update(wanted_areas=recipe.key, traced=made)


def areas_in(row: Viewport) -> ShadowAreas | None:
    """The newest areas of shadow of a viewport that there are; None where it shows none."""
    if row.traced is None or not row.appearance_as_core.has_areas:
        return None
    return _read(row.traced.file)


@lru_cache(maxsize=MAX_KEPT)
def _read(file: str) -> ShadowAreas:
    """Areas by the hash of their file; what lies under a hash never changes."""
    given = json.loads(storage.path_of(file).read_bytes())
    areas: ShadowAreas = parse(ShadowAreas, given, "areas of shadow", SheetError)
    return areas


def prune_areas() -> None:
    """Delete areas that no viewport has any more, once they are old."""
    kept = Viewport.objects.exclude(traced=None).values("traced")
    for areas in TracedShadow.objects.exclude(pk__in=kept):
        if is_old(storage.path_of(areas.file)):
            areas.delete()
