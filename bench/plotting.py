"""`dunefold bench plot`: how fast sets are plotted, how much memory that takes, and how large the files are.

Each figure comes from one run; drawings are known, and read from where they are kept.
"""

from __future__ import annotations

import io
import os
import resource
import tempfile
from dataclasses import replace
from functools import partial
from pathlib import Path

import numpy as np
import pikepdf

from bench.timing import median, once
from demo.building import write_observatory
from drafting.building.reading import read_building
from drafting.geometry.polylines import Polylines
from drafting.linework.codec import encode
from drafting.linework.engine import draw
from drafting.linework.model import Linework, PackedLines
from drafting.render.backends import FORMATS
from drafting.render.compose import compose
from drafting.render.page import FileInfo, Page, whole_page
from drafting.sheets.paper import Paper
from drafting.sheets.placing import place_view
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD
from drafting.styles.pen_presets import PEN_TABLE_PRESETS
from drafting.tasks.sheets import plot_sheets
from drafting.views.notation import parse_view

#: What is asked for: sheets a second, MB of memory, and size over that of the best compression.
WANTED_RATE, WANTED_MEMORY, WANTED_SIZE = 20, 1024, 1.3
SHEETS, LINES = 50, 300_000


def large_set(folder: Path) -> tuple[list[Page], dict[str, Path]]:
    """SHEETS sheets of A1 with LINES lines of the demo building in all, each sheet with a drawing of its
    own."""
    source = folder / "observatory.ifc"
    write_observatory(str(source))
    drawn = draw(read_building(source), parse_view("section:-9500,3300,17500,3300"))
    each = LINES // SHEETS
    pages, kept = [], {}
    for number in range(SHEETS):
        linework = repeated_drawing(drawn, each, shift=float(number))
        key = f"drawing {number}"
        kept[key] = folder / f"{number}.gz"
        kept[key].write_bytes(encode(linework))
        paper = Paper.of("A1")
        viewport = replace(
            place_view(linework.extents, Blank(paper, STANDARD)), id=key, linework=key, name="Section"
        )
        sheet = Sheet(paper, {"number": f"A-{number + 1:02}", "title": "Section"}, (viewport,))
        pages.append(
            whole_page(compose(sheet, PEN_TABLE_PRESETS["toned"][1]), "Section", f"A-{number + 1:02}")
        )
    return pages, kept


def repeated_drawing(drawn: Linework, count: int, shift: float) -> Linework:
    """A drawing of so many lines: those of one, again and again above each other; all moved by `shift` mm."""
    packed, times = drawn.packed, -(-count // len(drawn.packed))
    each = np.diff(packed.lines.starts)
    points = np.concatenate(
        [packed.lines.points + np.array([shift, shift + 16_000.0 * k, shift]) for k in range(times)]
    )
    starts = np.concatenate([[0], np.cumsum(np.tile(each, times))])[: count + 1]
    columns = (
        np.tile(column, times)[:count] for column in (packed.role, packed.band, packed.element, packed.layer)
    )
    return replace(drawn, packed=PackedLines(Polylines(points[: starts[-1]], starts), *columns))


def demo_set() -> tuple[list[Page], dict[str, Path]]:
    """The sheets of the demo project, as the server has them."""
    import django

    os.environ["DJANGO_SETTINGS_MODULE"] = "server.config.settings"
    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
    from demo.project import load
    from drafting.render.items import Drawing
    from server.common import storage
    from server.projects.models import Project
    from server.sheets.composing import composed
    from server.sheets.models import Sheet as Row
    from server.sheets.whole_set import WholeSet
    from server.views.models import Linework as LineworkRow

    load()
    project = Project.objects.get(number="2607")
    whole = WholeSet.of(project)
    pages = [
        whole_page(composed(row, whole)[1], row.title, row.number)
        for row in Row.objects.filter(project=project)
    ]
    keys = {item.linework for page in pages for item in page.display.items if isinstance(item, Drawing)}
    rows = LineworkRow.objects.filter(key__in=keys)
    return pages, {row.key: storage.path_of(row.file) for row in rows}


def best_size(data: bytes) -> int:
    """How large a PDF is when its streams are compressed as well as can be."""
    out = io.BytesIO()
    pikepdf.settings.set_flate_compression_level(9)
    with pikepdf.open(io.BytesIO(data)) as pdf:
        pdf.save(out, recompress_flate=True, object_stream_mode=pikepdf.ObjectStreamMode.generate)
    pikepdf.settings.set_flate_compression_level(-1)
    return len(out.getvalue())


def main() -> int:
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        os.environ["DUNEFOLD_DATA"] = name
        target = folder / "made"

        pages, kept = large_set(folder)
        to = partial(
            plot_sheets, linework=kept, pictures={}, target=target, info=FileInfo("Set", resolution=100)
        )
        first = once(lambda: to(pages, form="pdf"))
        data = target.read_bytes()
        size, best = len(data), best_size(data)
        again = median(lambda: to(pages, form="pdf"))
        peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
        print(
            f"{SHEETS} sheets of A1, {LINES:,d} lines (at least {WANTED_RATE} sheets a second are asked for)"
        )
        for what, seconds in (
            ("drawings read from where they are kept", first),
            ("drawings in memory", again),
        ):
            print(f"  {what:40s} {seconds:7.2f} s {SHEETS / seconds:8.1f} sheets a second")
        print(f"  {'peak memory':40s} {peak:7.0f} MB (under {WANTED_MEMORY} is asked for)")
        print(
            f"  {'file':40s} {size / 1e6:7.2f} MB, {size / best:.3f} of the best compression "
            f"(at most {WANTED_SIZE})"
        )

        demo_pages, demo_kept = demo_set()
        print(f"The demo set, {len(demo_pages)} sheets")
        for form in FORMATS:
            plot = partial(
                plot_sheets, demo_pages, demo_kept, {}, target, form, FileInfo("Set", resolution=100)
            )
            seconds = median(plot)
            print(f"  {form.upper():40s} {seconds:7.2f} s {len(demo_pages) / seconds:8.1f} sheets a second")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
