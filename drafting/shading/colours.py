"""What colour a material has: the file's own, or that of what its name says."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.building.textures import Colour as ColourOfFile
from drafting.schema import CLOSED, Colour

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Palette:
    """Colours that a project has instead of the file's: by the names of materials; and of layers, whose
    colours go before those of their materials."""

    __pydantic_config__ = CLOSED

    materials: Mapping[str, Colour] = field(default_factory=dict)
    layers: Mapping[str, Colour] = field(default_factory=dict)


NO_PALETTE = Palette()
#: By a word in the name of a material: red, green, blue and opacity, each 0 to 1. The first that is found.
BY_NAME: tuple[tuple[str, ColourOfFile], ...] = (
    (r"glass|glaz", (0.66, 0.78, 0.83, 0.35)),
    (r"brick|clinker", (0.72, 0.45, 0.35, 1.0)),
    (r"tile|terracotta", (0.70, 0.42, 0.32, 1.0)),
    (r"timber|wood|oak|larch|spruce|plywood|parquet|board", (0.78, 0.62, 0.43, 1.0)),
    (r"steel|zinc|alumin|metal|copper|lead", (0.62, 0.65, 0.68, 1.0)),
    (r"concrete|cement|screed", (0.74, 0.73, 0.71, 1.0)),
    (r"stone|masonry|block|slate", (0.70, 0.67, 0.62, 1.0)),
    (r"plaster|render|gypsum|paint", (0.93, 0.92, 0.88, 1.0)),
    (r"insul|wool|foam", (0.91, 0.85, 0.62, 1.0)),
    (r"ground|earth|soil|terrain|gravel|sand", (0.71, 0.69, 0.58, 1.0)),
    (r"grass|green|turf|lawn|plant", (0.62, 0.70, 0.50, 1.0)),
    (r"water", (0.60, 0.72, 0.78, 0.8)),
)
#: Of everything else.
OTHER = (0.86, 0.85, 0.83, 1.0)
#: What is more transparent than this is seen through and casts no shadow.
SEEN_THROUGH = 0.9


def colours_of(building: Building, palette: Palette = NO_PALETTE) -> Floats:
    """(number of materials, 4) red, green, blue and opacity of each material, 0 to 1.

    Args:
        palette: of its materials, as transparent as they are.
    """
    found = []
    for name in building.materials:
        own = building.material_colours.get(name) or named_colour(name)
        instead = palette.materials.get(name)
        found.append((*parts_of(instead), own[3]) if instead else own)
    return np.array(found, float).reshape(-1, 4)


def parts_of(colour: str) -> tuple[float, float, float]:
    """Red, green and blue, each 0 to 1.

    >>> parts_of("#ff0000")
    (1.0, 0.0, 0.0)
    """
    red, green, blue = (int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5))
    return red, green, blue


def named_colour(material: str) -> ColourOfFile:
    """The colour of a material that only has a name.

    >>> named_colour("Facing brickwork")
    (0.72, 0.45, 0.35, 1.0)
    """
    return next((colour for word, colour in BY_NAME if re.search(word, material, re.IGNORECASE)), OTHER)
