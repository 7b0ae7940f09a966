"""Plot settings: on which device and paper a sheet is plotted, which part of it, where, how large, and in
which colours."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

from drafting.errors import DraftingError, SheetError
from drafting.plotting.colours import ColourTreatment
from drafting.plotting.devices import BY_KEY, Device, DeviceKey
from drafting.render.pixels import check_pixels
from drafting.schema import CLOSED, Colour, Flag, Number, parse
from drafting.sheets.paper import Orientation, Paper

#: The whole sheet; what its viewports cover; a window of it; what the board showed.
Area = Literal["sheet", "drawings", "window", "board"]
Place = Literal["centred", "offset"]
#: As it is; by the ratio of the two papers; as large as the device prints; so many per cent.
Reduction = Literal["full", "paper", "fit", "percent"]
Resolution = Literal[72, 100, 150, 200, 300, 400, 600]
MAX_DISTANCE = 5000.0
_ISO = re.compile(r"A(\d)")
_Distance = Annotated[Number, Field(ge=-MAX_DISTANCE, le=MAX_DISTANCE)]


@dataclass(frozen=True)
class PlotSettings:
    """What sheets are plotted with.

    Attributes:
        device: the key of a device.
        paper, orientation: what lies in it; blank for the sheet's own.
        area: which part of the sheet.
        window: of a window or of what the board showed: x, y, width and height on the sheet, mm.
        place: where on the paper.
        offset: from the lower left of what the device prints on; mm.
        reduction: how large.
        percent: where the reduction is one of so many per cent.
        colours: the colour treatment.
        kept: the colours that are kept where the treatment is `chosen`.
        widths: whether lines have the widths of their pens, or all the narrowest.
        transparency: whether areas may be seen through.
        resolution: pixels to the inch, where pixels are made.
    """

    __pydantic_config__ = CLOSED

    device: DeviceKey = "file"
    paper: Annotated[str, Field(max_length=40, description="Blank for the sheet's own.")] = ""
    orientation: Orientation | Literal[""] = ""
    area: Area = "sheet"
    window: Annotated[
        tuple[_Distance, _Distance, _Distance, _Distance] | None,
        Field(description="x, y, width and height; mm of the sheet."),
    ] = None
    place: Place = "centred"
    offset: tuple[_Distance, _Distance] = (0.0, 0.0)
    reduction: Reduction = "full"
    percent: Annotated[Number, Field(ge=1.0, le=400.0)] = 100.0
    colours: ColourTreatment = "full"
    kept: Annotated[tuple[Colour, ...], Field(max_length=200, description="Colours that are kept.")] = ()
    widths: Flag = True
    transparency: Flag = True
    resolution: Annotated[Resolution, Field(description="Pixels to the inch.")] = 300

    def __post_init__(self) -> None:
        if self.paper:
            object.__setattr__(self, "paper", Paper.of(self.paper).name)
        if self.window and min(self.window[2:]) < 1.0:
            raise SheetError("A window of a plot is at least 1 mm wide and high. Draw a larger one.")

    def paper_for(self, sheet: Paper) -> Paper:
        """What a sheet is plotted on: laid as the sheet lies, where it is not said otherwise."""
        if not self.paper and not self.orientation:
            return sheet
        lies = "landscape" if sheet.width >= sheet.height else "portrait"
        return Paper.of(self.paper or sheet.name, self.orientation or lies)


def parse_plot_settings(given: Any) -> PlotSettings:
    """From plain data, as `dump` gives it; what is left out is as usual.

    Raises:
        SheetError: something that no plot settings have, or a figure out of bounds.
        PaperError: no such paper.
    """
    settings: PlotSettings = parse(PlotSettings, given, "plot settings", SheetError)
    return settings


def ratio_between(sheet: Paper, onto: Paper) -> float:
    """By how much a sheet is smaller on another paper. From one A size to another it is a power of the root
    of two (ISO 216), whatever the millimetres are rounded to."""
    a, b = (_ISO.fullmatch(paper.name) for paper in (sheet, onto))
    if a and b:
        halves, root = divmod(int(b[1]) - int(a[1]), 2)
        return 0.5**halves * math.sqrt(0.5) ** root
    return min(onto.width / sheet.width, onto.height / sheet.height)


def conflicts(settings: PlotSettings, sheet: Paper) -> list[str]:
    """What does not go together, each in a sentence with its remedy; nothing where a sheet can be plotted
    so."""
    device = BY_KEY[settings.device]
    try:
        paper = settings.paper_for(sheet)
    except DraftingError as error:
        return [str(error)]
    found = []
    if not device.takes(paper):
        found.append(_too_large(device, paper))
    if settings.area in ("window", "board") and settings.window is None:
        found.append("There is no window yet. Give its place and size, or plot the whole sheet.")
    if settings.colours == "chosen" and not settings.kept:
        found.append("No colour is chosen to be kept. Choose one, or plot all in black.")
    if settings.reduction == "paper" and not settings.paper:
        found.append("The ratio of two papers needs a paper to plot onto. Choose one.")
    if settings.reduction == "paper" and settings.area != "sheet":
        found.append(
            "The ratio of two papers is for whole sheets. Choose a percentage or fit for a part of one."
        )
    if settings.reduction == "fit" and settings.place == "offset":
        found.append("What fits the paper is centred on it. Choose a percentage to place it with an offset.")
    try:
        check_pixels(paper.width, paper.height, settings.resolution)
    except SheetError as error:
        found.append(str(error))
    return found


def _too_large(device: Device, paper: Paper) -> str:
    size = f"{paper.name} of {paper.width:g} x {paper.height:g} mm"
    if device.trays:
        return (
            f"The {device.name.lower()} holds {' and '.join(device.trays)}, and no {size}. Plot onto "
            f"one of these."
        )
    return (
        f"The {device.name.lower()} has a roll of {device.roll:g} mm, too narrow for {size}. Take a "
        f"smaller paper."
    )


#: Those that are built in, by their keys: the name for people, and what they are.
PLOT_PRESETS: dict[str, tuple[str, PlotSettings]] = {
    "file": ("PDF, full size", PlotSettings()),
    "office": ("Office printer, A3", PlotSettings("office", "A3", reduction="paper", colours="black")),
    "check": ("Check print, A3 to fit", PlotSettings("office", "A3", reduction="fit", colours="grey")),
    "roll": ("Roll plotter, full size", PlotSettings("roll")),
}
DEFAULT_PLOT_SETTINGS = "file"
