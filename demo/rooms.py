"""The rooms of the demo building, each by its inside faces."""

from __future__ import annotations

from typing import Any

from demo.ifc_writer import IfcWriter
from demo.measures import GROUND, LENGTH, LOOKOUT, STORE, TOWER, TOWER_WALL, UPPER, WALL, WIDTH

#: A partition's thickness, and that of a floor with its finish.
PARTITION, FLOOR = 120.0, 300.0


def add_rooms(w: IfcWriter, ground: Any, upper: Any, lookout: Any, office: float) -> None:
    """Add all rooms; `office` is where the partition of the office begins."""
    low, high, end = WALL, WIDTH - WALL, LENGTH - WALL
    tower = (TOWER[0] + TOWER_WALL, TOWER[1] + TOWER_WALL, TOWER[2] - TOWER_WALL, TOWER[3] - TOWER_WALL)
    store = (STORE[0], STORE[1] + 100, STORE[2] - 100, STORE[3] - 100)
    for storey, floor, top, rooms in (
        (
            ground,
            GROUND,
            UPPER - FLOOR,
            (
                ("0.1", "Office", (WALL, low, office, high)),
                ("0.2", "Common room", (office + PARTITION, low, 8400.0, high)),
                ("0.3", "Wet room", (8400.0 + PARTITION, 3720.0, end, high)),
                ("0.4", "Bunks", (8400.0 + PARTITION, low, end, 3600.0)),
                ("0.5", "Tower hall", tower),
                ("0.6", "Store", store),
            ),
        ),
        (
            upper,
            UPPER,
            UPPER + 2400.0,
            (
                ("1.1", "Bunks", (WALL, low, 4300.0, high)),
                ("1.2", "Landing", (4300.0 + PARTITION, low, 8200.0, high)),
                ("1.3", "Bunks", (8200.0 + PARTITION, low, end, high)),
                ("1.4", "Tower room", tower),
            ),
        ),
        (lookout, LOOKOUT, LOOKOUT + 2400.0, (("2.1", "Lookout", tower),)),
    ):
        for number, name, (x0, y0, x1, y1) in rooms:
            w.room(storey, number, name, [(x0, y0), (x1, y0), (x1, y1), (x0, y1)], floor, top)
