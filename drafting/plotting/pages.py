"""From a sheet and its plot settings to the page that is plotted."""

from __future__ import annotations

from dataclasses import replace

from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point, intersection, union
from drafting.plotting.colours import treatment
from drafting.plotting.devices import BY_KEY, Device
from drafting.plotting.reduction import reduction_items
from drafting.plotting.settings import PlotSettings, conflicts, ratio_between
from drafting.render.backends.extents import bounds_of
from drafting.render.display_list import DisplayList
from drafting.render.page import Page
from drafting.sheets.paper import Paper
from drafting.sheets.sheet import Plottable
from drafting.styles.pens import NARROWEST


def page_for(sheet: Plottable, display: DisplayList, settings: PlotSettings) -> Page:
    """The page that a sheet is plotted as; `display` is what it is composed to.

    Raises:
        SheetError: the settings do not go together, or not with this sheet.
    """
    found = conflicts(settings, sheet.paper)
    if found:
        raise SheetError(" ".join(found))
    paper, device = settings.paper_for(sheet.paper), BY_KEY[settings.device]
    printable = device.printable(paper)
    area = area_of(display, settings)
    scale = _scale(settings, sheet.paper, paper, area, printable)
    at = _place(settings, paper, area, printable, scale)
    values = sheet.field_values
    page = Page(
        number=values.get("number", ""),
        title=values.get("title", ""),
        width=paper.width,
        height=paper.height,
        display=_restyled(display, settings, scale),
        scale=scale,
        at=at,
        date=sheet.plot_date,
    )
    window = page.on_paper(area)
    return replace(
        page,
        window=None if window.holds(Box(0.0, 0.0, paper.width, paper.height)) else window,
        over=tuple(reduction_items(sheet, page, printable)) if abs(scale - 1) > 1e-9 else (),
    )


def as_printed(page: Page, device: Device) -> Page:
    """What comes out of a device: nothing in its margins."""
    printable = device.printable(page.paper)
    window = intersection(page.window, printable) if page.window else printable
    return replace(page, window=window or Box(0.0, 0.0, 0.0, 0.0))


def margins_on(sheet: Paper, settings: PlotSettings) -> tuple[float, float, float, float]:
    """What the device cannot print along each side of a whole sheet: left, bottom, right, top, mm of the
    sheet; nothing where the settings do not go together, or plot a part of it."""
    if settings.area != "sheet" or conflicts(settings, sheet):
        return 0.0, 0.0, 0.0, 0.0
    paper = settings.paper_for(sheet)
    printable = BY_KEY[settings.device].printable(paper)
    area = Box(0.0, 0.0, sheet.width, sheet.height)
    scale = _scale(settings, sheet, paper, area, printable)
    x, y = _place(settings, paper, area, printable, scale)
    left, bottom = (printable.x - x) / scale, (printable.y - y) / scale
    right, top = sheet.width - (printable.right - x) / scale, sheet.height - (printable.top - y) / scale
    return max(left, 0.0), max(bottom, 0.0), max(right, 0.0), max(top, 0.0)


def area_of(display: DisplayList, settings: PlotSettings) -> Box:
    """The part of a sheet that is plotted, mm of the sheet.

    Raises:
        SheetError: the sheet has no drawing whose extents could be plotted.
    """
    if settings.area in ("window", "board") and settings.window:
        return Box(*settings.window)
    if settings.area != "drawings":
        return Box(0.0, 0.0, display.width, display.height)
    boxes = [bounds_of(item) for item in display.drawings]
    boxes += [title.box for title in display.titles]
    if not boxes:
        raise SheetError(
            "There is no drawing on this sheet whose extents could be plotted. Plot the whole sheet."
        )
    return union(boxes)


def _scale(settings: PlotSettings, sheet: Paper, paper: Paper, area: Box, printable: Box) -> float:
    if settings.reduction == "percent":
        return settings.percent / 100
    if settings.reduction == "paper":
        return ratio_between(sheet, paper)
    if settings.reduction == "fit":
        return min(printable.width / area.width, printable.height / area.height)
    return 1.0


def _place(settings: PlotSettings, paper: Paper, area: Box, printable: Box, scale: float) -> Point:
    """Where the sheet's lower left corner lies on the paper."""
    if settings.place == "offset":
        left, bottom = printable.x + settings.offset[0], printable.y + settings.offset[1]
    else:
        # What fits is as large as can be printed; all else lies in the middle of the paper, as a sheet on its
        # own.
        room = printable if settings.reduction == "fit" else Box(0.0, 0.0, paper.width, paper.height)
        left, bottom = room.middle[0] - area.width * scale / 2, room.middle[1] - area.height * scale / 2
    return left - area.x * scale, bottom - area.y * scale


def _restyled(display: DisplayList, settings: PlotSettings, scale: float) -> DisplayList:
    """What is on the sheet in the colours, widths and opacities of a plot."""
    style = treatment(settings.colours, settings.kept)
    width = None if settings.widths else NARROWEST / scale
    if settings.colours == "full" and width is None and settings.transparency:
        return display
    return display.restyled(replace(style, width=width, opaque=not settings.transparency))
