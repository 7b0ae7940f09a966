"""The lookout tower and the store of the demo building."""

from __future__ import annotations

from typing import Any

from demo.ifc_writer import IfcWriter
from demo.measures import GROUND, LOOKOUT, STORE, TOWER, TOWER_EAVES, TOWER_WALL, UPPER
from demo.openings import along_wall, door, round_window, window
from demo.walls import STONE_WALL, straight_wall


def tower(w: IfcWriter, ground: Any, upper: Any, lookout: Any) -> None:
    x0, y0, x1, y1 = TOWER
    t = TOWER_WALL
    for storey, z0, z1 in ((ground, GROUND, UPPER), (upper, UPPER, LOOKOUT)):
        name = "lower" if storey is ground else "middle"
        south = straight_wall(
            w, storey, f"Tower south, {name}", (x0, y0, z0), (x1, y0 + t, z1), "Stone", STONE_WALL, "south"
        )
        north = straight_wall(
            w, storey, f"Tower north, {name}", (x0, y1 - t, z0), (x1, y1, z1), "Stone", STONE_WALL, "north"
        )
        west = straight_wall(
            w,
            storey,
            f"Tower west, {name}",
            (x0, y0 + t, z0),
            (x0 + t, y1 - t, z1),
            "Stone",
            STONE_WALL,
            "west",
        )
        east = straight_wall(
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
            window(w, storey, south, "W31", "x", y0, t, -2500, 800, 900, 1200, opens=-1)
        else:
            round_window(w, storey, south, "W41 round", (-2100, y0, z0 + 1600), 650, t)
            round_window(w, storey, north, "W42 round", (-2100, y1 - t, z0 + 1600), 450, t)
            window(w, storey, west, "W43", "y", x0, t, 3050, 800, z0 + 900, 1300, opens=-1)
    b = 200.0
    sides = (
        ("south", "x", y0, x0, x1), ("north", "x", y1 - b, x0, x1),
        ("west", "y", x0, y0 + b, y1 - b), ("east", "y", x1 - b, y0 + b, y1 - b),
    )  # fmt: skip
    for name, axis, at, start, end in sides:
        solid = along_wall(w, axis, (start, end), (at, at + b), (LOOKOUT, TOWER_EAVES), "Larch")
        wall = w.element("IfcWall", f"Lookout {name}", lookout, [solid], "Walls", "Larch")
        length = end - start
        opens = 1 if name in ("north", "east") else -1
        window(
            w, lookout, wall, f"W5 {name}", axis, at, b, start + 500, length - 1000, LOOKOUT + 900, 1200, 4,
            opens=opens,
        )  # fmt: skip
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


def store(w: IfcWriter, ground: Any) -> None:
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
