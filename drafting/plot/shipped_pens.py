"""The pen tables that ship. In each, cut, profile, edge and far lines read apart at arm's length."""

from __future__ import annotations

from drafting.plot.pen_table import Cut, PenTable, hierarchy
from drafting.plot.pens import INK

TONE, PALE = "#d9d6cf", "#ecebe7"

CONSTRUCTION = PenTable(
    "Construction",
    hierarchy(0.5, 0.35, 0.18, 0.13),
    cuts=(
        Cut("concrete|screed", TONE, hatch="stipple", spacing=1.6),
        Cut("stone|brick|block|masonry", hatch="diagonal"),
        Cut("insulation|wool", hatch="loops", spacing=1.6),
        Cut("batten|stud|joist|framed", hatch="crossed", spacing=2.5),
        Cut("timber|larch|pine|oak|wood|board|lining|sheathing", hatch="grain", spacing=1.2),
        Cut("earth|soil|ground", hatch="earth", spacing=2.0),
        Cut("zinc|steel|metal|alumin", hatch="pairs", spacing=0.9),
        Cut("", TONE),
    ),
)
#: By their keys.
SHIPPED: dict[str, PenTable] = {
    "construction": CONSTRUCTION,
    "presentation": PenTable("Presentation", hierarchy(0.7, 0.35, 0.18, 0.13, 50), cuts=(Cut("", INK),)),
    "survey": PenTable("Survey, light", hierarchy(0.35, 0.25, 0.13, 0.13, 60), cuts=(Cut("", PALE),)),
    "toned": PenTable("Toned", hierarchy(0.5, 0.35, 0.18, 0.13), cuts=(Cut("", TONE),)),
}
#: What sheets have where nobody has chosen.
STANDARD = "construction"
