"""What can be wrong with what a user hands the core. Each message names the thing and the remedy."""


class DraftingError(Exception):
    """A user's input cannot be used; the message is a sentence fit for the screen."""


class BuildingFileError(DraftingError):
    """A building file cannot be read."""


class ViewError(DraftingError):
    """A view is specified wrongly, or asks for something the building has not."""


class ScaleError(DraftingError):
    """A scale is not a positive ratio."""


class PaperError(DraftingError):
    """A paper size is unknown or out of bounds."""


class SheetError(DraftingError):
    """A sheet or a viewport on it is outside what paper allows."""
