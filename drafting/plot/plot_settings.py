"""Plot settings: on which device and paper a sheet is plotted, which part of it, where, how large, and in which
colours."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import MISSING, asdict, dataclass, fields
from typing import Any

from drafting.errors import DraftingError, SheetError
from drafting.plot.devices import BY_KEY, Device
from drafting.plot.inking import TREATMENTS
from drafting.plot.png import RESOLUTIONS, check_pixels
from drafting.sheets.paper import ORIENTATIONS, Paper

#: The whole sheet; what its viewports cover; a window of it; what the board showed.
AREAS = ("sheet", "drawings", "window", "board")
PLACES = ("centred", "offset")
#: As it is; by the ratio of the two papers; as large as the device prints; so many per cent.
REDUCTIONS = ("full", "paper", "fit", "percent")
LEAST_PERCENT, MOST_PERCENT = 1.0, 400.0
_FAR = 5000.0
_COLOUR = re.compile(r"#[0-9a-f]{6}")
_ISO = re.compile(r"A(\d)")


@dataclass(frozen=True)
class PlotSettings:
    """Named settings.

    Attributes:
        device: the key of a device.
        paper, orientation: what lies in it; blank for the sheet's own.
        area: one of AREAS.
        window: of a window or of what the board showed: x, y, width and height on the sheet, mm.
        place: one of PLACES.
        offset: from the lower left of what the device prints on; mm.
        reduction: one of REDUCTIONS.
        percent: where the reduction is one of so many per cent.
        colours: one of TREATMENTS.
        kept: the colours that are kept where the treatment is `chosen`.
        widths: whether lines have the widths of their pens, or all the narrowest.
        transparency: whether areas may be seen through.
        resolution: pixels to the inch, where pixels are made.
    """

    name: str = ""
    device: str = "file"
    paper: str = ""
    orientation: str = ""
    area: str = "sheet"
    window: tuple[float, float, float, float] | None = None
    place: str = "centred"
    offset: tuple[float, float] = (0.0, 0.0)
    reduction: str = "full"
    percent: float = 100.0
    colours: str = "full"
    kept: tuple[str, ...] = ()
    widths: bool = True
    transparency: bool = True
    resolution: int = 300

    @classmethod
    def from_dict(cls, given: Mapping[str, Any]) -> PlotSettings:
        """From plain data, as `as_dict` gives it; what is left out is as usual.

        Raises:
            SheetError: something that no plot settings have, or a figure out of bounds.
            PaperError: no such paper.
        """
        known = {f.name for f in fields(cls)}
        if not isinstance(given, Mapping) or set(given) - known:
            raise SheetError(f"Plot settings have {', '.join(sorted(known))}.")
        usual = {f.name: f.default for f in fields(cls) if f.default is not MISSING}
        values = {**usual, **given}
        for name, choices in (
            ("device", tuple(BY_KEY)),
            ("orientation", ("", *ORIENTATIONS)),
            ("area", AREAS),
            ("place", PLACES),
            ("reduction", REDUCTIONS),
            ("colours", TREATMENTS),
            ("resolution", RESOLUTIONS),
        ):
            if values[name] not in choices or isinstance(values[name], bool):
                raise SheetError(f"{name.capitalize()} is one of {', '.join(map(str, choices))}, not “{values[name]}”.")
        for name in ("widths", "transparency"):
            if not isinstance(values[name], bool):
                raise SheetError(f"{name.capitalize()} are on or off, not “{values[name]}”.")
        percent = _figure("The percentage of a plot", values["percent"], LEAST_PERCENT, MOST_PERCENT)
        offset = [_figure("The offset of a plot", x, -_FAR, _FAR) for x in _list("offset", values["offset"], 2)]
        wrong = [str(c) for c in _list("kept", values["kept"]) if not _COLOUR.fullmatch(str(c))]
        if wrong:
            raise SheetError(f"A colour that is kept is written as #1b1f24; “{wrong[0]}” is not.")
        return cls(
            **{
                **values,
                "name": str(values["name"]),
                "paper": Paper.of(str(values["paper"])).name if values["paper"] else "",
                "percent": percent,
                "offset": (offset[0], offset[1]),
                "kept": tuple(values["kept"]),
                "window": _window(values["window"]),
            }
        )

    def as_dict(self) -> dict[str, Any]:
        """Plain data."""
        window = None if self.window is None else list(self.window)
        return {**asdict(self), "window": window, "offset": list(self.offset), "kept": list(self.kept)}

    def paper_for(self, sheet: Paper) -> Paper:
        """What a sheet is plotted on: laid as the sheet lies, where it is not said otherwise."""
        if not self.paper and not self.orientation:
            return sheet
        lies = "landscape" if sheet.width >= sheet.height else "portrait"
        return Paper.of(self.paper or sheet.name, self.orientation or lies)


def ratio_between(sheet: Paper, onto: Paper) -> float:
    """By how much a sheet is smaller on another paper. From one A size to another it is a power of the root of two
    (ISO 216), whatever the millimetres are rounded to."""
    a, b = (_ISO.fullmatch(paper.name) for paper in (sheet, onto))
    if a and b:
        halves, root = divmod(int(b[1]) - int(a[1]), 2)
        return 0.5**halves * math.sqrt(0.5) ** root
    return min(onto.width / sheet.width, onto.height / sheet.height)


def conflicts(settings: PlotSettings, sheet: Paper) -> list[str]:
    """What does not go together, each in a sentence with its remedy; nothing where a sheet can be plotted so."""
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
        found.append("The ratio of two papers is for whole sheets. Take a percentage or fit for a part of one.")
    if settings.reduction == "fit" and settings.place == "offset":
        found.append("What fits the paper is centred on it. Take a percentage to place it with an offset.")
    try:
        check_pixels(paper.width, paper.height, settings.resolution)
    except SheetError as error:
        found.append(str(error))
    return found


def _too_large(device: Device, paper: Paper) -> str:
    size = f"{paper.name} of {paper.width:g} x {paper.height:g} mm"
    if device.trays:
        return f"The {device.name.lower()} holds {' and '.join(device.trays)}, and no {size}. Plot onto one of these."
    return f"The {device.name.lower()} has a roll of {device.roll:g} mm, too narrow for {size}. Take a smaller paper."


def _window(given: Any) -> tuple[float, float, float, float] | None:
    if given is None:
        return None
    x, y, width, height = (_figure("A window of a plot", v, -_FAR, _FAR) for v in _list("window", given, 4))
    if min(width, height) < 1.0:
        raise SheetError("A window of a plot is at least 1 mm wide and high. Draw a larger one.")
    return x, y, width, height


def _list(name: str, given: Any, length: int | None = None) -> list[Any]:
    if not isinstance(given, list | tuple) or (length is not None and len(given) != length):
        raise SheetError(f"The {name} of plot settings has {length or 'a few'} values.")
    return list(given)


def _figure(what: str, value: Any, least: float, most: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not least <= value <= most:
        raise SheetError(f"{what} is a figure of {least:g} to {most:g}; “{value}” is not.")
    return float(value)


#: Those that ship, by their keys: what sheets have where nobody has made others.
SHIPPED: dict[str, PlotSettings] = {
    "file": PlotSettings("PDF, full size"),
    "office": PlotSettings("Office printer, A3", device="office", paper="A3", reduction="paper", colours="black"),
    "check": PlotSettings("Check print, A3 to fit", device="office", paper="A3", reduction="fit", colours="grey"),
    "roll": PlotSettings("Roll plotter, full size", device="roll"),
}
STANDARD = "file"
