"""How people go up and about the demo building: deck, ramp, balustrades and stairs."""

from __future__ import annotations

from typing import Any

from demo.ifc_writer import IfcWriter, Point
from demo.measures import GROUND, LOOKOUT, TOWER, TOWER_WALL, UPPER, WALL, WIDTH
from demo.openings import along_wall


def deck(w: IfcWriter, ground: Any) -> None:
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
    straight_rail(w, ground, "Deck balustrade, south", "x", y0, x0, x1, -20)
    straight_rail(w, ground, "Deck balustrade, west", "y", x0, y0 + 60, -60, -20)
    straight_rail(w, ground, "Deck balustrade, east", "y", x1 - 40, -1580, -60, -20)


def straight_rail(
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


def stairs(w: IfcWriter, ground: Any, upper: Any) -> None:
    d = WIDTH - WALL
    side = _flight(16, UPPER / 16, 222.0, 8000.0, GROUND, -1)
    flight = w.along_y(side, d - 1050, d, "Pine")
    w.element(
        "IfcStairFlight", "Stair", ground, [flight], "Stairs", "Pine", PredefinedType="STRAIGHT",
        NumberOfRisers=16, NumberOfTreads=15, RiserHeight=UPPER / 16, TreadLength=222.0,
    )  # fmt: skip
    straight_rail(w, upper, "Stair well balustrade", "x", d - 1150, 4420, 8000, UPPER)
    x0 = TOWER[0] + TOWER_WALL + 300
    y1 = TOWER[3] - TOWER_WALL
    for storey, floor, top in ((ground, GROUND, UPPER), (upper, UPPER, LOOKOUT)):
        steps = 15
        side = _flight(steps, (top - floor) / steps, 205.0, x0 + 15 * 205.0, floor, -1)
        solid = w.along_y(side, y1 - 950, y1, "Oak")
        w.element(
            "IfcStairFlight", "Tower stair", storey, [solid], "Stairs", "Oak", PredefinedType="STRAIGHT",
            NumberOfRisers=steps, NumberOfTreads=steps - 1,
            RiserHeight=(top - floor) / steps, TreadLength=205.0,
        )  # fmt: skip
