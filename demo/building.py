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

from demo.furniture import furnish
from demo.ground import dug_ground
from demo.ifc_writer import IfcWriter, Point
from demo.measures import (
    EAVES,
    GROUND,
    LENGTH,
    LOOKOUT,
    RIDGE,
    SLOPE,
    STORE,
    TOWER,
    TOWER_EAVES,
    TOWER_WALL,
    UPPER,
    WALL,
    WIDTH,
)
from demo.openings import along_wall, door, round_window, window
from demo.rooms import add_rooms

#: What stands in the ground: plinths as x0, y0, x1, y1, and the middles of the deck's piers.
PLINTHS = {
    "bunkhouse": (0.0, 0.0, LENGTH, WIDTH),
    "tower": (TOWER[0] - 100, TOWER[1] - 100, TOWER[2], TOWER[3] + 100),
    "store": STORE,
}
PIERS = [(x, y) for y in (-2700.0, -1500.0) for x in (1300.0, 3700.0, 6100.0, 8500.0)]
PLINTH_FOOT, PIER_FOOT = -1300.0, -1600.0

TIMBER_WALL, STONE_WALL, INNER_WALL = "Timber wall 285", "Stone wall 350", "Partition 120"
FLOOR, ROOF = "Timber floor 300", "Standing seam roof 250"


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
    _tower(w, ground, upper, lookout)
    _store(w, ground)
    _deck(w, ground)
    _stairs(w, ground, upper)
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
        w.colour(name, *colour)
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


def _wall(
    w: IfcWriter,
    storey: Any,
    name: str,
    low: tuple[float, float, float],
    high: tuple[float, float, float],
    style: str,
    material: str,
    outer: str,
    layer: str = "Walls",
) -> Any:
    """A straight wall; `outer` is the side on which its layers begin."""
    across = {
        "south": ("y", low[1], 1), "north": ("y", high[1], -1), "west": ("x", low[0], 1),
        "east": ("x", high[0], -1)
    }[outer]  # fmt: skip
    solid = [w.box(low, high, style)]
    return w.element("IfcWall", name, storey, solid, layer, material, across, PredefinedType="SOLIDWALL")


def _bunkhouse_walls(w: IfcWriter, ground: Any, upper: Any, revised: bool) -> None:
    inner_l, inner_w = LENGTH - WALL, WIDTH - WALL
    south = _wall(w, ground, "South wall", (0, 0, 0), (LENGTH, WALL, UPPER), "Larch", TIMBER_WALL, "south")
    north = _wall(
        w, ground, "North wall", (0, inner_w, 0), (LENGTH, WIDTH, UPPER), "Larch", TIMBER_WALL, "north"
    )
    west = _wall(w, ground, "West wall", (0, WALL, 0), (WALL, inner_w, UPPER), "Larch", TIMBER_WALL, "west")
    east = _wall(
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
        window(w, ground, south, f"W0{k + 1}", "x", 0, WALL, x, width, 900, 1250, lights)
    door(w, ground, south, "D01 deck", "x", 0, WALL, 3400, 1010, 0, 2150, glazed=True)
    for k, x in enumerate((1200, 4200, 7200, 9900)):
        window(w, ground, north, f"W1{k + 1}", "x", inner_w, WALL, x, 900, 1200, 950)
    door(w, ground, east, "D02 store", "y", inner_l, WALL, 2600, 926, 0, opens=-1)
    door(w, ground, west, "D03 tower", "y", 0, WALL, 3050, 926, 0)
    door(w, upper, gables[0], "D11 tower", "y", 0, WALL, 3050, 926, UPPER)
    window(w, upper, gables[1], "W21", "y", inner_l, WALL, 2600, 1800, UPPER + 850, 1300, 2)

    for k, x in enumerate((3300.0 if revised else 3000.0, 8400.0)):
        wall = _wall(
            w, ground, f"Partition {k + 1}", (x, WALL, 0), (x + 120, inner_w, UPPER - 300), "Plaster",
            INNER_WALL, "west", "Inner walls",
        )  # fmt: skip
        door(w, ground, wall, f"D0{k + 4}", "y", x, 120, 3900, 926, 0, opens=-1 if k else 1)
    wash = _wall(
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


def _tower(w: IfcWriter, ground: Any, upper: Any, lookout: Any) -> None:
    x0, y0, x1, y1 = TOWER
    t = TOWER_WALL
    for storey, z0, z1 in ((ground, GROUND, UPPER), (upper, UPPER, LOOKOUT)):
        name = "lower" if storey is ground else "middle"
        south = _wall(
            w, storey, f"Tower south, {name}", (x0, y0, z0), (x1, y0 + t, z1), "Stone", STONE_WALL, "south"
        )
        north = _wall(
            w, storey, f"Tower north, {name}", (x0, y1 - t, z0), (x1, y1, z1), "Stone", STONE_WALL, "north"
        )
        west = _wall(
            w,
            storey,
            f"Tower west, {name}",
            (x0, y0 + t, z0),
            (x0 + t, y1 - t, z1),
            "Stone",
            STONE_WALL,
            "west",
        )
        east = _wall(
            w,
            storey,
            f"Tower east, {name}",
            (x1 - t, y0 + t, z0),
            (x1, y1 - t, z1),
            "Stone",
            STONE_WALL,
            "east",
        )
        door(w, storey, east, f"D2{int(z0 > 0)}", "y", x1 - t, t, 3050, 926, z0, opens=-1)
        if storey is ground:
            door(w, storey, west, "D20 tower", "y", x0, t, 3000, 1010, 0, 2150)
            window(w, storey, south, "W31", "x", y0, t, -2500, 800, 900, 1200)
        else:
            round_window(w, storey, south, "W41 round", (-2100, y0, z0 + 1600), 650, t)
            round_window(w, storey, north, "W42 round", (-2100, y1 - t, z0 + 1600), 450, t)
            window(w, storey, west, "W43", "y", x0, t, 3050, 800, z0 + 900, 1300)
    b = 200.0
    sides = (
        ("south", "x", y0, x0, x1), ("north", "x", y1 - b, x0, x1),
        ("west", "y", x0, y0 + b, y1 - b), ("east", "y", x1 - b, y0 + b, y1 - b),
    )  # fmt: skip
    for name, axis, at, start, end in sides:
        solid = along_wall(w, axis, (start, end), (at, at + b), (LOOKOUT, TOWER_EAVES), "Larch")
        wall = w.element("IfcWall", f"Lookout {name}", lookout, [solid], "Walls", "Larch")
        length = end - start
        window(
            w, lookout, wall, f"W5 {name}", axis, at, b, start + 500, length - 1000, LOOKOUT + 900, 1200, 4
        )
    o, top = 550.0, TOWER_EAVES + 1700
    ring = [(x0 - o, y0 - o), (x1 + o, y0 - o), (x1 + o, y1 + o), (x0 - o, y1 + o)]
    points = [(*p, TOWER_EAVES) for p in ring] + [(*p, TOWER_EAVES + 160) for p in ring]
    points.append(((x0 + x1) / 2, (y0 + y1) / 2, top))
    faces = [(3, 2, 1, 0), *((k, (k + 1) % 4, 4 + (k + 1) % 4, 4 + k) for k in range(4))]
    faces += [(4 + k, 4 + (k + 1) % 4, 8) for k in range(4)]
    roof = w.element("IfcRoof", "Tower roof", lookout, [w.facets(points, faces, "Zinc")], "Roof", "Zinc")
    foot = ((x0 + x1) / 2, (y0 + y1) / 2, top - 200)
    w.opening(roof, "Mast opening", [w.post(foot, 40, 1500, "")])
    mast = w.post(foot, 40, 1500, "Steel")
    w.element("IfcBuildingElementProxy", "Weather mast", lookout, [mast], "Services", "Steel")


def _store(w: IfcWriter, ground: Any) -> None:
    x0, y0, x1, y1 = STORE
    t, floor, high, low = 150.0, -150.0, 2750.0, 2150.0
    top = [(x0, high), (x1, low)]
    side = [(x0, floor), (x1, floor), *reversed(top)]
    for name, y in (("south", y0), ("north", y1 - t)):
        w.element("IfcWall", f"Store {name}", ground, [w.along_y(side, y, y + t, "Larch")], "Walls", "Larch")
    lowered = low + (high - low) * t / (x1 - x0)
    end = [(x1 - t, floor), (x1, floor), (x1, low), (x1 - t, lowered)]
    east = w.element(
        "IfcWall", "Store east", ground, [w.along_y(end, y0 + t, y1 - t, "Larch")], "Walls", "Larch"
    )
    door(w, ground, east, "D07 store", "y", x1 - t, t, 2700, 1226, floor, 2000)
    fall = (high - low) / (x1 - x0)
    over = x1 + 400
    roof = [(x0, high), (over, low - 400 * fall), (over, low - 400 * fall + 160), (x0, high + 160)]
    solid = w.along_y(roof, y0 - 300, y1 + 300, "Zinc")
    w.element("IfcSlab", "Store roof", ground, [solid], "Roof", "Zinc", PredefinedType="ROOF")


def _deck(w: IfcWriter, ground: Any) -> None:
    x0, x1, y0 = 1000.0, 9000.0, -3000.0
    y, k = y0, 1
    while y < -20:
        board = w.box((x0, y, -60), (x1, min(y + 140, 0), -20), "Larch")
        w.element("IfcPlate", f"Deck board {k}", ground, [board], "Deck", "Larch", PredefinedType="SHEET")
        y, k = y + 146, k + 1
    for x in (1100.0, 2500.0, 3900.0, 5300.0, 6700.0, 8100.0, 8840.0):
        joist = w.box((x, y0 + 50, -240), (x + 60, 0, -60), "Larch")
        w.element("IfcBeam", "Deck joist", ground, [joist], "Structure", "Larch", PredefinedType="JOIST")
    for yb in (-2750.0, -1550.0):
        beam = w.box((x0 + 50, yb, -400), (x1 - 50, yb + 100, -240), "Larch")
        w.element("IfcBeam", "Deck beam", ground, [beam], "Structure", "Larch", PredefinedType="BEAM")

    start, foot, bottom = 9000.0, 16200.0, -620.0
    profile = [(start, -60.0), (foot, bottom - 40), (foot, bottom), (start, -20.0)]
    ramp = w.along_y(profile, -3000, -1600, "Concrete")
    w.element("IfcRamp", "Ramp", ground, [ramp], "Deck", "Concrete", PredefinedType="STRAIGHT_RUN_RAMP")
    fall = (bottom + 20) / (foot - start)
    for y in (-2980.0, -1640.0):
        items = []
        n = 6
        for i in range(n + 1):
            x = start + (foot - start - 60) * i / n
            z = -20 + fall * (x - start)
            items.append(w.box((x, y, z - 30), (x + 40, y + 40, z + 960), "Steel"))
        for offset in (450.0, 950.0):
            line = [
                (start, -20 + offset),
                (foot, bottom + offset),
                (foot, bottom + offset + 45),
                (start, 25 + offset),
            ]
            items.append(w.along_y(line, y - 5, y + 45, "Oak"))
        w.element("IfcRailing", "Ramp balustrade", ground, items, "Balustrades", PredefinedType="BALUSTRADE")
    _straight_rail(w, ground, "Deck balustrade, south", "x", y0, x0, x1, -20)
    _straight_rail(w, ground, "Deck balustrade, west", "y", x0, y0 + 60, -60, -20)
    _straight_rail(w, ground, "Deck balustrade, east", "y", x1 - 40, -1580, -60, -20)


def _straight_rail(
    w: IfcWriter, storey: Any, name: str, axis: str, at: float, start: float, end: float, floor: float
) -> None:
    n = max(1, round((end - start) / 1300))
    items = []
    for k in range(n + 1):
        a = start + (end - start - 40) * k / n
        items.append(along_wall(w, axis, (a, a + 40), (at, at + 40), (floor, floor + 960), "Steel"))
    for z in (250.0, 450.0, 650.0):
        items.append(
            along_wall(w, axis, (start, end), (at + 15, at + 25), (floor + z, floor + z + 10), "Steel")
        )
    items.append(along_wall(w, axis, (start, end), (at - 10, at + 50), (floor + 960, floor + 1010), "Oak"))
    w.element("IfcRailing", name, storey, items, "Balustrades", PredefinedType="BALUSTRADE")


def _flight(steps: int, rise: float, going: float, foot: float, floor: float, way: int) -> list[Point]:
    """The side of a flight: its sawtooth above, its slope below."""
    points: list[Point] = [(foot, floor)]
    for k in range(steps):
        points += [
            (foot + way * k * going, floor + (k + 1) * rise),
            (foot + way * (k + 1) * going, floor + (k + 1) * rise),
        ]
    head = foot + way * steps * going
    return [*points, (head, floor + steps * rise - rise - 120), (foot + way * going, floor)]


def _stairs(w: IfcWriter, ground: Any, upper: Any) -> None:
    d = WIDTH - WALL
    side = _flight(16, UPPER / 16, 222.0, 8000.0, GROUND, -1)
    flight = w.along_y(side, d - 1050, d, "Pine")
    w.element("IfcStairFlight", "Stair", ground, [flight], "Stairs", "Pine", PredefinedType="STRAIGHT")
    _straight_rail(w, upper, "Stair well balustrade", "x", d - 1150, 4420, 8000, UPPER)
    x0 = TOWER[0] + TOWER_WALL + 300
    y1 = TOWER[3] - TOWER_WALL
    for storey, floor, top in ((ground, GROUND, UPPER), (upper, UPPER, LOOKOUT)):
        steps = 15
        side = _flight(steps, (top - floor) / steps, 205.0, x0 + 15 * 205.0, floor, -1)
        solid = w.along_y(side, y1 - 950, y1, "Oak")
        w.element(
            "IfcStairFlight", "Tower stair", storey, [solid], "Stairs", "Oak", PredefinedType="STRAIGHT"
        )


if __name__ == "__main__":
    write_observatory(sys.argv[1], revised="--revised" in sys.argv)
