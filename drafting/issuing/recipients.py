"""Recipients: who is sent what, and how a sheet looks in the files that they get."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

from pydantic import Field

from drafting.errors import SheetError
from drafting.issuing.file_names import DEFAULT_PATTERN, check_pattern
from drafting.plotting.colours import ColourTreatment
from drafting.plotting.settings import PlotSettings
from drafting.render import (
    annotation_items,
    cloud_items,
    dimension_items,
    note_items,
    shape_items,
    symbol_items,
    table_items,
    tag_items,
)
from drafting.render.display_list import DisplayList
from drafting.schema import CLOSED, Flag, Whole
from drafting.sheets.paper import Paper

#: Formats of files, and the model itself as it was read.
Form = Literal["pdf", "dxf", "svg", "png", "model"]
FORMS: tuple[Form, ...] = get_args(Form)
#: Into a folder of the installation and a ZIP; by mail; by a link that ends.
Delivery = Literal["folder", "mail", "link"]
DELIVERIES: tuple[Delivery, ...] = get_args(Delivery)
#: All that annotation stands on, and nothing else.
ANNOTATION_LAYERS = frozenset(
    {
        annotation_items.IMAGES,
        cloud_items.LAYER,
        dimension_items.LAYER,
        note_items.LAYER,
        shape_items.LAYER,
        symbol_items.LAYER,
        table_items.LAYER,
        tag_items.LAYER,
    }
)
_Line = Annotated[str, Field(max_length=120)]


@dataclass(frozen=True)
class Recipient:
    """Somebody who is sent sheets, and what they need.

    Attributes:
        name, organisation, address: who it is, and the address of their mail.
        forms: the formats that they get.
        one_file: whether a format that holds several pages comes as one file.
        file_names: the pattern that files are named by.
        colours: the colour treatment; blank for that of the plot settings.
        onto: the paper that sheets are reduced onto; blank for full size.
        fills: whether what is cut is filled with colours.
        annotation: whether notes, dimensions, tags, schedules, clouds, shapes, symbols and pictures are
            drawn.
        layers_off: layers of which nothing is drawn. Then pictures of the building and its shadows are left
            out too, for they show all of it.
        delivery: how the files reach them.
        days: how long a link holds.
    """

    __pydantic_config__ = CLOSED

    name: Annotated[str, Field(min_length=1, max_length=120)]
    organisation: _Line = ""
    address: Annotated[str, Field(max_length=200)] = ""
    forms: Annotated[tuple[Form, ...], Field(max_length=5)] = ("pdf",)
    one_file: Flag = True
    file_names: Annotated[str, Field(max_length=120)] = DEFAULT_PATTERN
    colours: ColourTreatment | Literal[""] = ""
    onto: Annotated[str, Field(max_length=40)] = ""
    fills: Flag = True
    annotation: Flag = True
    layers_off: Annotated[tuple[_Line, ...], Field(max_length=100)] = ()
    delivery: Delivery = "folder"
    days: Annotated[Whole, Field(ge=1, le=365)] = 30

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise SheetError("A recipient has a name. Type one.")
        if not self.forms:
            raise SheetError(f"{self.name} is sent nothing yet. Choose a format.")
        check_pattern(self.file_names)
        if self.onto:
            Paper.of(self.onto)
        if self.delivery == "mail" and "@" not in self.address.strip("@ "):
            raise SheetError(f"{self.name} has no mail address. Type one, or deliver to a folder.")


def settings_for(recipient: Recipient, base: PlotSettings) -> PlotSettings:
    """What a recipient's files are plotted with: whole sheets, for no device."""
    made = replace(base, device="file", colours=recipient.colours or base.colours)
    if made.colours == "chosen" and not made.kept:
        made = replace(made, colours="black")
    if recipient.onto:
        return replace(
            made, paper=recipient.onto, orientation="", area="sheet", reduction="paper", place="centred"
        )
    return made


def display_for(recipient: Recipient, display: DisplayList) -> DisplayList:
    """What of a sheet a recipient gets to see; what is withheld is not in it."""
    layers = set(recipient.layers_off) | (set() if recipient.annotation else ANNOTATION_LAYERS)
    shown = display.without_layers(layers, of_building=recipient.layers_off)
    return shown if recipient.fills else shown.without_fills()
