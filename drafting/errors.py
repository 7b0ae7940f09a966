"""What can be wrong with what a user hands the core. Each message names the thing and the remedy."""

from __future__ import annotations

from collections.abc import Mapping


class DraftingError(Exception):
    """A user's input cannot be used; the message is a sentence fit for the screen.

    Attributes:
        fields: what is wrong with which field, by its path (`parts.3.width`); empty where it is about the
            whole.
    """

    def __init__(self, message: str, fields: Mapping[str, str] | None = None) -> None:
        super().__init__(message)
        self.fields = dict(fields or {})


class BuildingFileError(DraftingError):
    """A building file cannot be read."""


class ViewError(DraftingError):
    """A view is specified wrongly, or uses something that the building does not have."""


class ScaleError(DraftingError):
    """A scale is not a positive ratio."""


class PaperError(DraftingError):
    """A paper size is unknown or out of bounds."""


class SheetError(DraftingError):
    """A sheet or a viewport on it is outside what paper allows."""


class ReceivedFileError(DraftingError):
    """A drawing from others cannot be used."""
