"""Recipients: who is sent what, and how a sheet looks in the files that they get."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

from pydantic import Field

from drafting.errors import SheetError
from drafting.issuing.file_names import DEFAULT_PATTERN, check_pattern
from drafting.plotting.colours import ColourTreatment
from drafting.plotting.settings import PlotSettings
from drafting.render import cloud_items, dimension_items, note_items, table_items, tag_items
from drafting.render.display_list import DisplayList
from drafting.render.items import Drawing, Item
from drafting.schema import CLOSED, Flag, Whole
from drafting.sheets.paper import Paper

#: Formats of files, and the model itself as it was read.
Form = Literal["pdf", "dxf", "svg", "png", "model"]
FORMS: tuple[Form, ...] = get_args(Form)
#: Into a folder of the installation and a ZIP; by mail; by a link that ends.
Delivery = Literal["folder", "mail", "link"]
DELIVERIES: tuple[Delivery, ...] = get_args(Delivery)
ANNOTATION_LAYERS = frozenset(
    {dimension_items.LAYER, note_items.LAYER, table_items.LAYER, cloud_items.LAYER, tag_items.LAYER}
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
        annotation: whether notes, dimensions, schedules and clouds are drawn.
        layers_off: layers of which nothing is drawn.
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
    """What of a sheet a recipient gets to see."""
    off = set(recipient.layers_off) | (set() if recipient.annotation else ANNOTATION_LAYERS)
    if not off and recipient.fills:
        return display

    def changed(item: Item) -> Item:
        if not isinstance(item, Drawing):
            return item
        cuts = item.cuts if recipient.fills else tuple(replace(cut, fill="") for cut in item.cuts)
        return replace(item, cuts=cuts, hidden=recipient.layers_off)

    kept = (item for item in display.items if isinstance(item, Drawing) or item.layer not in off)
    return replace(display, items=tuple(map(changed, kept)))
