"""What is shown in light and colour on the sheets of the demo project, for those who read no lines."""

from drafting.shading.appearance import LINES_ONLY, Appearance, AreaStyle, Light

#: The sun on a morning and an afternoon of early summer, as high as it is there.
MORNING, AFTERNOON = (
    Light("sun", month=5, day=21, hour=hour, latitude=57.0, soft=soft)
    for hour, soft in ((9.5, False), (15.0, True))
)
#: By sheet and view.
APPEARANCES = {
    ("A-01", "Axonometric from the south-east"): Appearance("shaded", light=AFTERNOON, shadows=0.5),
    ("A-03", "South elevation"): Appearance(areas=AreaStyle("both", opacity=25)),
    ("A-05", "Arriving from the ramp"): Appearance("shaded", light=MORNING, background="sky"),
    ("A-05", "South elevation"): Appearance("shaded", background="sky"),
}


def appearance_of(sheet: str, view: str) -> Appearance:
    """What a view is shown as on a sheet, by its number."""
    return APPEARANCES.get((sheet, view), LINES_ONLY)
