"""The demo building: a small bird observatory, written as an IFC4 file.

    python -m demo.building OUT.ifc

A gabled timber bunkhouse of two storeys, a lookout tower, a lean-to store, a deck with a ramp and
balustrades, on a concrete plinth over sloping ground. Millimetres; x to the east, y to the north, z up; the
ground floor is at 0.
"""

from __future__ import annotations

import math
import sys
from typing import Any

import shapely

from demo.annexes import store, tower
from demo.furniture import furnish
from demo.ground import dug_ground
from demo.ifc_writer import IfcWriter
from demo.measures import (
    EAVES,
    GROUND,
    LENGTH,
    LOOKOUT,
    RIDGE,
    SLOPE,
    STORE,
    TOWER,
    TOWER_WALL,
    UPPER,
    WALL,
    WIDTH,
)
from demo.openings import door, window
from demo.rooms import add_rooms
from demo.surfaces import SURFACES, surface
from demo.walls import FLOOR, INNER_WALL, ROOF, STONE_WALL, TIMBER_WALL, straight_wall
from demo.ways import deck, stairs

#: What stands in the ground: plinths as x0, y0, x1, y1, and the middles of the deck's piers.
PLINTHS = {
    "bunkhouse": (0.0, 0.0, LENGTH, WIDTH),
    "tower": (TOWER[0] - 100, TOWER[1] - 100, TOWER[2], TOWER[3] + 100),
    "store": STORE,
}
PIERS = [(x, y) for y in (-2700.0, -1500.0) for x in (1300.0, 3700.0, 6100.0, 8500.0)]
PLINTH_FOOT, PIER_FOOT = -1300.0, -1600.0


def write_observatory(path: str, *, revised: bool = False) -> None:
    """Write the demo building to a file.

    Its revision has a wider window to the deck (W02), the office's partition moved by 300 mm with its door,
    no bench on the deck, and a map chest in the office.
    """
    when = "2026-05-18T16:30:00" if revised else "2026-03-02T09:00:00"
    w = IfcWriter("Bird observatory, Ternhaven", "North head, Ternhaven", "Observatory", when)
    _declare(w)
    ground, upper, lookout = (
        w.storey("Ground floor", GROUND),
        w.storey("Upper floor", UPPER),
        w.storey("Lookout", LOOKOUT),
    )
    _site(w)
    _plinth(w, ground)
    _bunkhouse_walls(w, ground, upper, revised)
    _floors(w, upper, lookout)
    _roof(w, upper)
    tower(w, ground, upper, lookout)
    store(w, ground)
    deck(w, ground)
    stairs(w, ground, upper)
    furnish(w, ground, upper, lookout, revised)
    add_rooms(w, ground, upper, lookout, 3300.0 if revised else 3000.0)
    w.grid(
        [(str(k + 1), (x, -4300.0), (x, WIDTH + 1200.0)) for k, x in enumerate((TOWER[0], 0.0, LENGTH))],
        [(letter, (TOWER[0] - 2000.0, y), (LENGTH + 3500.0, y)) for letter, y in (("A", 0.0), ("B", WIDTH))],
    )
    w.write(path)


def _declare(w: IfcWriter) -> None:
    for name, colour in {
        "Larch": (0.66, 0.50, 0.34),
        "Stone": (0.62, 0.60, 0.56),
        "Concrete": (0.74, 0.73, 0.70),
        "Plaster": (0.93, 0.91, 0.87),
        "Zinc": (0.47, 0.51, 0.54),
        "Pine": (0.82, 0.69, 0.50),
        "Oak": (0.58, 0.43, 0.28),
        "Steel": (0.36, 0.38, 0.40),
        "Earth": (0.55, 0.53, 0.38),
        "Linen": (0.80, 0.78, 0.72),
    }.items():
        w.colour(name, *colour, texture=surface(name, colour) if name in SURFACES else None)
        w.material(name)
    w.colour("Glass", 0.70, 0.82, 0.86, 0.6)
    w.layered(
        TIMBER_WALL,
        [
            ("Larch", 25),
            ("Ventilated battens", 40),
            ("Sheathing", 15),
            ("Framed insulation", 190),
            ("Lining", 15),
        ],
    )
    w.layered(STONE_WALL, [("Stone", 250), ("Insulation board", 80), ("Plaster", 20)])
    w.layered(INNER_WALL, [("Lining", 15), ("Timber stud", 90), ("Lining", 15)])
    w.layered(FLOOR, [("Floorboard", 25), ("Joist space", 250), ("Lining", 25)])
    w.layered(ROOF, [("Zinc", 10), ("Ventilated battens", 40), ("Framed insulation", 185), ("Lining", 15)])


def _site(w: IfcWriter) -> None:
    plinths = shapely.union_all([shapely.box(*corners) for corners in PLINTHS.values()])
    pits = [(plinths, PLINTH_FOOT), *((shapely.box(*_pier(x, y)), PIER_FOOT) for x, y in PIERS)]
    points, faces = dug_ground(pits)
    solid = w.facets(points, faces, "Earth")
    w.element("IfcGeographicElement", "Ground", w.site, [solid], "Site", "Earth", PredefinedType="TERRAIN")


def _pier(x: float, y: float) -> tuple[float, float, float, float]:
    return x - 150, y - 150, x + 150, y + 150


def _plinth(w: IfcWriter, ground: Any) -> None:
    for name, (x0, y0, x1, y1) in PLINTHS.items():
        top = -150.0 if name == "store" else 0.0
        slab = w.box((x0, y0, top - 250), (x1, y1, top), "Concrete")
        w.element(
            "IfcSlab", f"Ground slab, {name}", ground, [slab], "Floors", "Concrete", PredefinedType="BASESLAB"
        )
        plinth = w.box((x0, y0, PLINTH_FOOT), (x1, y1, top - 250), "Concrete")
        w.element(
            "IfcFooting",
            f"Plinth, {name}",
            ground,
            [plinth],
            "Structure",
            "Concrete",
            PredefinedType="STRIP_FOOTING",
        )
    for x, y in PIERS:
        x0, y0, x1, y1 = _pier(x, y)
        pier = w.box((x0, y0, PIER_FOOT), (x1, y1, -400), "Concrete")
        w.element(
            "IfcFooting", "Deck pier", ground, [pier], "Structure", "Concrete", PredefinedType="PAD_FOOTING"
        )


def _bunkhouse_walls(w: IfcWriter, ground: Any, upper: Any, revised: bool) -> None:
    inner_l, inner_w = LENGTH - WALL, WIDTH - WALL
    south = straight_wall(
        w, ground, "South wall", (0, 0, 0), (LENGTH, WALL, UPPER), "Larch", TIMBER_WALL, "south"
    )
    north = straight_wall(
        w, ground, "North wall", (0, inner_w, 0), (LENGTH, WIDTH, UPPER), "Larch", TIMBER_WALL, "north"
    )
    west = straight_wall(
        w, ground, "West wall", (0, WALL, 0), (WALL, inner_w, UPPER), "Larch", TIMBER_WALL, "west"
    )
    east = straight_wall(
        w, ground, "East wall", (inner_l, WALL, 0), (LENGTH, inner_w, UPPER), "Larch", TIMBER_WALL, "east"
    )

    lift = WALL * SLOPE
    side = [(0.0, UPPER), (WALL, UPPER), (WALL, EAVES + lift), (0.0, EAVES)]
    far = [(WIDTH - y, z) for y, z in reversed(side)]
    for name, profile, across in (
        ("South wall, upper", side, ("y", 0.0, 1)),
        ("North wall, upper", far, ("y", WIDTH, -1)),
    ):
        w.element(
            "IfcWall", name, upper, [w.along_x(profile, 0, LENGTH, "Larch")], "Walls", TIMBER_WALL, across
        )
    gable = [
        (WALL, UPPER),
        (inner_w, UPPER),
        (inner_w, EAVES + lift),
        (WIDTH / 2, RIDGE),
        (WALL, EAVES + lift),
    ]
    gables = [
        w.element(
            "IfcWall",
            f"{name} gable",
            upper,
            [w.along_x(gable, x, x + WALL, "Larch")],
            "Walls",
            TIMBER_WALL,
            across,
        )
        for name, x, across in (("West", 0.0, ("x", 0.0, 1)), ("East", inner_l, ("x", LENGTH, -1)))
    ]

    wide = (5400, 2400, 4) if revised else (5400, 1800, 3)
    for k, (x, width, lights) in enumerate(((900, 1500, 2), wide, (9600, 1200, 2))):
        window(w, ground, south, f"W0{k + 1}", "x", 0, WALL, x, width, 900, 1250, lights, opens=-1)
    door(w, ground, south, "D01 deck", "x", 0, WALL, 3400, 1010, 0, 2150, glazed=True)
    for k, x in enumerate((1200, 4200, 7200, 9900)):
        window(w, ground, north, f"W1{k + 1}", "x", inner_w, WALL, x, 900, 1200, 950, opens=1)
    door(w, ground, east, "D02 store", "y", inner_l, WALL, 2600, 926, 0, opens=-1)
    door(w, ground, west, "D03 tower", "y", 0, WALL, 3050, 926, 0)
    door(w, upper, gables[0], "D11 tower", "y", 0, WALL, 3050, 926, UPPER)
    window(w, upper, gables[1], "W21", "y", inner_l, WALL, 2600, 1800, UPPER + 850, 1300, 2, opens=1)

    for k, x in enumerate((3300.0 if revised else 3000.0, 8400.0)):
        wall = straight_wall(
            w, ground, f"Partition {k + 1}", (x, WALL, 0), (x + 120, inner_w, UPPER - 300), "Plaster",
            INNER_WALL, "west", "Inner walls",
        )  # fmt: skip
        door(w, ground, wall, f"D0{k + 4}", "y", x, 120, 3900, 926, 0, opens=-1 if k else 1)
    wash = straight_wall(
        w, ground, "Partition 3", (8520, 3600, 0), (inner_l, 3720, UPPER - 300), "Plaster", INNER_WALL,
        "south", "Inner walls",
    )  # fmt: skip
    door(w, ground, wash, "D06", "x", 3600, 120, 10400, 826, 0)
    for k, x in enumerate((4300.0, 8200.0)):
        profile = [
            (WALL, UPPER), (inner_w, UPPER), (inner_w, EAVES + lift), (WIDTH / 2, RIDGE), (WALL, EAVES + lift)
        ]  # fmt: skip
        wall = w.element(
            "IfcWall", f"Partition {k + 11}", upper, [w.along_x(profile, x, x + 120, "Plaster")],
            "Inner walls",
            INNER_WALL, ("x", x, 1),
        )  # fmt: skip
        door(w, upper, wall, f"D1{k + 2}", "y", x, 120, 3050, 926, UPPER)


def _floors(w: IfcWriter, upper: Any, lookout: Any) -> None:
    a, b, c, d = WALL, WALL, LENGTH - WALL, WIDTH - WALL
    # The stair well is a bite out of the north side.
    well = [(a, b), (c, b), (c, d), (8000, d), (8000, d - 1100), (4420, d - 1100), (4420, d), (a, d)]
    deck = w.prism(well, UPPER - 50, UPPER, "Pine")
    w.element("IfcSlab", "Upper floor", upper, [deck], "Floors", FLOOR, PredefinedType="FLOOR")
    x = a + 400
    while x < c - 100:
        end = d - 1100 if 4300 < x < 8000 else d
        joist = w.box((x, b, UPPER - 270), (x + 60, end, UPPER - 50), "Pine")
        w.element("IfcBeam", "Joist", upper, [joist], "Structure", "Pine", PredefinedType="JOIST")
        x += 450
    t = TOWER_WALL
    x0, y0, x1, y1 = TOWER[0] + t, TOWER[1] + t, TOWER[2] - t, TOWER[3] - t
    for storey, z in ((upper, UPPER), (lookout, LOOKOUT)):
        ring = [(x0, y0), (x1, y0), (x1, y1 - 1000), (x0 + 300, y1 - 1000), (x0 + 300, y1), (x0, y1)]
        plate = w.prism(ring, z - 220, z, "Concrete")
        w.element("IfcSlab", "Tower floor", storey, [plate], "Floors", "Concrete", PredefinedType="FLOOR")


def _roof(w: IfcWriter, upper: Any) -> None:
    over, thick = 500.0, 250 / math.cos(math.radians(40))
    low, mid = EAVES - over * SLOPE, WIDTH / 2
    slope = [(-over, low), (mid, RIDGE), (mid, RIDGE + thick), (-over, low + thick)]
    for name, profile in (("South", slope), ("North", [(WIDTH - y, z) for y, z in reversed(slope)])):
        solid = w.along_x(profile, 0, LENGTH + 600, "Zinc")
        plane = w.element("IfcSlab", f"{name} slope", upper, [solid], "Roof", ROOF, PredefinedType="ROOF")
        if name == "South":
            w.opening(plane, "Flue opening", [w.post((7200, 3100, RIDGE - 1500), 90, 3000, "")])
    x = WALL + 300
    while x < LENGTH - WALL - 200:
        if not any(abs(x - p) < 200 for p in (4300, 8200)):
            for flip in (False, True):
                rafter = [
                    (WALL, EAVES + WALL * SLOPE),
                    (mid, RIDGE),
                    (mid, RIDGE - 200),
                    (WALL, EAVES + WALL * SLOPE - 200),
                ]
                if flip:
                    rafter = [(WIDTH - y, z) for y, z in reversed(rafter)]
                solid = w.along_x(rafter, x, x + 60, "Pine")
                w.element("IfcMember", "Rafter", upper, [solid], "Structure", "Pine", PredefinedType="RAFTER")
        x += 600
    for y in (-over - 110, WIDTH + over):
        gutter = w.box((0, y, low + 20), (LENGTH + 600, y + 110, low + 140), "Zinc")
        w.element("IfcBuildingElementProxy", "Gutter", upper, [gutter], "Roof", "Zinc")
    flue = w.post((7200, 3100, UPPER), 90, RIDGE + 1300 - UPPER, "Steel")
    w.element("IfcBuildingElementProxy", "Flue", upper, [flue], "Services", "Steel")


if __name__ == "__main__":
    write_observatory(sys.argv[1], revised="--revised" in sys.argv)
