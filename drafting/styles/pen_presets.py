"""The pen tables that are built in. In each, cut, profile, edge and far lines read apart at arm's length."""

from __future__ import annotations

from drafting.styles.pen_table import CutStyle, PenTableSpec, hierarchy
from drafting.styles.pens import INK

TONE, PALE = "#d9d6cf", "#ecebe7"

CONSTRUCTION = PenTableSpec(
    hierarchy(0.5, 0.35, 0.18, 0.13),
    cuts=(
        CutStyle("concrete|screed", TONE, hatch="stipple", spacing=1.6),
        CutStyle("stone|brick|block|masonry", hatch="diagonal"),
        CutStyle("insulation|wool", hatch="loops", spacing=1.6),
        CutStyle("batten|stud|joist|framed", hatch="crossed", spacing=2.5),
        CutStyle("timber|larch|pine|oak|wood|board|lining|sheathing", hatch="grain", spacing=1.2),
        CutStyle("earth|soil|ground", hatch="earth", spacing=2.0),
        CutStyle("zinc|steel|metal|alumin", hatch="pairs", spacing=0.9),
        CutStyle("", TONE),
    ),
)
#: By their keys: the name for people, and what it is made of.
PEN_TABLE_PRESETS: dict[str, tuple[str, PenTableSpec]] = {
    "construction": ("Construction", CONSTRUCTION),
    "presentation": (
        "Presentation",
        PenTableSpec(hierarchy(0.7, 0.35, 0.18, 0.13, 50), cuts=(CutStyle("", INK),)),
    ),
    "survey": (
        "Survey, light",
        PenTableSpec(hierarchy(0.35, 0.25, 0.13, 0.13, 60), cuts=(CutStyle("", PALE),)),
    ),
    "toned": ("Toned", PenTableSpec(hierarchy(0.5, 0.35, 0.18, 0.13), cuts=(CutStyle("", TONE),))),
}
#: What sheets have where nobody has chosen.
DEFAULT_PEN_TABLE = "construction"
