"""Layers, patterns of lines and text styles of a DXF, made as they are first wanted."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from ezdxf.document import Drawing as Document
from ezdxf.entities.layer import Layer
from ezdxf.layouts.base import BaseLayout
from ezdxf.render.arrows import ARROWS

from drafting.render.dimension_items import ABOVE, BEYOND, STROKE
from drafting.render.items import Dimensioned, Fill, Inserted, Path
from drafting.render.leader_items import ARROW, DOT
from drafting.styles.hatches import HatchLine
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
        self._blocks: dict[str, str] = {}

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

    def dimension_style(self, item: Dimensioned, scale: float) -> str:
        """The style of a dimension that measures at its ratio of paper over real, on paper that is shown at a
        scale. DXF reference, DIMSTYLE."""
        size, ratio = item.size * scale, item.ratio * scale
        name = allowed(f"Dimensions {1 / ratio:g} {size:g} {item.terminator} {item.gap:g}")
        if name not in self._doc.dimstyles:
            style = self._doc.dimstyles.add(name)
            every: dict[str, dict[str, Any]] = {
                "stroke": {"dimtsz": STROKE / 2},
                "arrow": {"dimtsz": 0.0, "dimasz": ARROW},
                "dot": {"dimtsz": 0.0, "dimasz": 2 * DOT, "dimblk": ARROWS.dot},
            }
            if item.terminator == "dot":
                ARROWS.create_block(self._doc.blocks, ARROWS.dot)
            style.update_dxf_attribs(
                {
                    "dimlfac": 1 / ratio, "dimdec": 0, "dimtxt": size, "dimtxsty": self.style(bold=False),
                    "dimexo": item.gap, "dimexe": BEYOND, "dimgap": ABOVE,
                    "dimtad": 1, "dimtih": 0, "dimtoh": 0, "dimclrd": 256, "dimclre": 256, "dimclrt": 256,
                    **every[item.terminator],
                }
            )  # fmt: skip
        return name

    def leader_style(self, arrow: bool, scale: float) -> str:
        """The style of leaders, which have arrows of a size."""
        name = allowed(f"Leaders {'arrow' if arrow else 'plain'} {scale:g}")
        if name not in self._doc.dimstyles:
            style = self._doc.dimstyles.add(name)
            style.update_dxf_attribs({"dimasz": ARROW * scale, "dimclrd": 256, "dimgap": 0.0})
        return name

    def block(self, item: Inserted) -> str:
        """The block of a symbol, made from the first that is put in: its lines and fills in lengths of the
        library."""
        known = self._blocks.get(item.symbol)
        if known is not None:
            return known
        name = allowed(f"{item.name}") or "Symbol"
        if name in self._doc.blocks:
            name = f"{name} {len(self._blocks) + 1}"
        self._blocks[item.symbol] = name
        block = self._doc.blocks.new(name)
        turn = math.radians(item.turn)
        cos, sin = math.cos(turn) / item.size, math.sin(turn) / item.size
        back = np.array([[cos, -sin], [sin, cos]])
        way = np.array([-1.0 if item.mirrored else 1.0, 1.0])
        for part in item.parts:
            if isinstance(part, Path):
                points = (np.array(part.points) - item.at) @ back * way
                block.add_lwpolyline(
                    points, close=part.closed, dxfattribs=self.attributes(part.layer, part.pen)
                )
            elif isinstance(part, Fill):
                rings = [(np.array(ring) - item.at) @ back * way for ring in part.rings]
                self.fill(block, rings, part.layer, part.colour, part.opacity)
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

    def hatch(
        self,
        layout: BaseLayout,
        rings: Sequence[np.ndarray],
        attributes: Mapping[str, Any],
        name: str,
        families: Sequence[HatchLine],
        unit: float,
        turn: float,
        by: np.ndarray,
    ) -> None:
        """A hatched area, by its families of lines.

        Args:
            unit: the hatch's spacing in the layout's mm.
            turn: by how much the hatch is turned, degrees anticlockwise.
            by: a point that its lines are counted from.
        """
        for number, family in enumerate(families):
            hatch = layout.add_hatch(dxfattribs={**attributes, "hatch_style": 0})
            for k, ring in enumerate(rings):
                hatch.paths.add_polyline_path(ring, is_closed=True, flags=1 if k == 0 else 16)
            hatch.set_pattern_fill(
                f"{name}{number or ''}".upper(),
                color=7,
                style=0,
                pattern_type=0,
                definition=[_family(family, unit, family.angle + turn, by)],
            )

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


def _family(family: HatchLine, unit: float, degrees: float, by: np.ndarray) -> list[Any]:
    """A family of hatch lines as a DXF defines it (DXF reference, HATCH, pattern data)."""
    angle = math.radians(degrees)
    across = np.array([-math.sin(angle), math.cos(angle)])
    step = across * family.apart * unit
    along = np.array([math.cos(angle), math.sin(angle)]) * family.slide * unit
    dashes = [length * unit if k % 2 == 0 else -length * unit for k, length in enumerate(family.dashes)]
    return [degrees, tuple(by + step * family.shift), tuple(step + along), dashes]
