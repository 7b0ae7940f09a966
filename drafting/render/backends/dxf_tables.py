"""Layers, patterns of lines and text styles of a DXF, made as they are first wanted."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

import numpy as np
from ezdxf.document import Drawing as Document
from ezdxf.entities.layer import Layer
from ezdxf.layouts.base import BaseLayout

from drafting.render.dimension_items import ABOVE, BEYOND, GAP, STROKE
from drafting.styles.lettering import BOLD, REGULAR
from drafting.styles.pens import Pen

#: Signs that names in a DXF cannot have.
_SIGNS = re.compile(r'[<>/\\":;?*|,=`\n\r]+')
#: Names of layers and layouts are no longer than this everywhere.
_MAX_NAME = 120
NO_LAYER = "No layer"
#: DXF reference, LAYER, group 370: the widths that there are, hundredths of a millimetre.
LINE_WEIGHTS = (
    5,
    9,
    13,
    15,
    18,
    20,
    25,
    30,
    35,
    40,
    50,
    53,
    60,
    70,
    80,
    90,
    100,
    106,
    120,
    140,
    158,
    200,
    211,
)


def allowed(name: str) -> str:
    """A name as a DXF can have it."""
    return _SIGNS.sub("_", name).strip()[:_MAX_NAME]


def colour_number(colour: str) -> int:
    """A colour as group code 420 has it."""
    return int(colour[1:], 16)


class Tables:
    """The tables of one document."""

    def __init__(self, doc: Document) -> None:
        self._doc = doc
        self._pens: dict[str, dict[str, Any]] = {}

    def attributes(self, layer: str, pen: Pen, scale: float = 1.0) -> dict[str, Any]:
        """What an entity drawn with a pen has. A layer has the pen of what is first put on it; what is drawn
        otherwise says so itself."""
        named = self._layer(layer)
        wanted = {
            "lineweight": self._width(pen.width * scale),
            "true_color": colour_number(pen.ink),
            "linetype": self._pattern(pen, scale),
        }
        # Names in a DXF do not differ by capitals alone.
        kept = self._pens.setdefault(named.dxf.name.lower(), wanted)
        if kept is wanted:
            named.update_dxf_attribs(wanted)
        return {"layer": named.dxf.name} | {key: now for key, now in wanted.items() if now != kept[key]}

    def coloured(self, layer: str, colour: str) -> dict[str, Any]:
        """What an entity without lines has."""
        return {"layer": self._layer(layer).dxf.name, "true_color": colour_number(colour)}

    def _layer(self, name: str) -> Layer:
        plain = allowed(name) or NO_LAYER
        return self._doc.layers.get(plain) if plain in self._doc.layers else self._doc.layers.add(plain)

    def style(self, bold: bool) -> str:
        """The text style of lettering, whose heights are those of capitals."""
        name = "Lettering bold" if bold else "Lettering"
        if name not in self._doc.styles:
            self._doc.styles.add(name, font=(BOLD if bold else REGULAR).name)
        return name

    def dimension_style(self, size: float, ratio: float) -> str:
        """The style of dimensions with figures of a height (paper mm) that measure at a ratio of paper over
        real. DXF reference, DIMSTYLE."""
        name = allowed(f"Dimensions {1 / ratio:g} {size:g}")
        if name not in self._doc.dimstyles:
            style = self._doc.dimstyles.add(name)
            style.update_dxf_attribs(
                {
                    "dimlfac": 1 / ratio, "dimdec": 0, "dimtxt": size, "dimtxsty": self.style(bold=False),
                    "dimtsz": STROKE / 2, "dimexo": GAP, "dimexe": BEYOND, "dimgap": ABOVE,
                    "dimtad": 1, "dimtih": 0, "dimtoh": 0, "dimclrd": 256, "dimclre": 256, "dimclrt": 256,
                }
            )  # fmt: skip
        return name

    def fill(
        self, layout: BaseLayout, rings: Sequence[np.ndarray], layer: str, colour: str, opacity: float = 1.0
    ) -> None:
        """A filled area."""
        hatch = layout.add_hatch(dxfattribs=self.coloured(layer, colour) | {"hatch_style": 0})
        for k, ring in enumerate(rings):
            hatch.paths.add_polyline_path(ring, is_closed=True, flags=1 if k == 0 else 16)
        if opacity < 1:
            hatch.transparency = 1 - opacity

    def _width(self, width: float) -> int:
        """The nearest of the widths that a DXF can have, hundredths of a millimetre."""
        return min(LINE_WEIGHTS, key=lambda weight: abs(weight - width * 100))

    def _pattern(self, pen: Pen, scale: float) -> str:
        if not pen.pattern:
            return "Continuous"
        lengths = [length * scale for length in pen.dashes]
        name = "pattern " + " ".join(f"{length:.3g}" for length in lengths)
        if name not in self._doc.linetypes:
            signed = [length if k % 2 == 0 else -length for k, length in enumerate(lengths)]
            self._doc.linetypes.add(
                name, pattern=[sum(lengths), *signed], description="Dash and gap by turns, mm"
            )
        return name
