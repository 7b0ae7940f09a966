"""What stands about in the demo building: tables, benches, bunks, what is plumbed in."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from demo.ifc_writer import IfcWriter
from demo.measures import LOOKOUT, UPPER, WALL, WIDTH


def furnish(w: IfcWriter, ground: Any, upper: Any, lookout: Any, revised: bool) -> None:
    def piece(name: str, storey: Any, parts: Sequence[tuple[float, ...]], style: str = "Pine") -> None:
        items = [w.box((p[0], p[1], p[2]), (p[3], p[4], p[5]), style) for p in parts]
        w.element("IfcFurniture", name, storey, items, "Furniture", style)

    def table(name: str, storey: Any, x: float, y: float, z: float, length: float, width: float) -> None:
        legs = [(x + i * (length - 60), y + j * (width - 60)) for i in (0, 1) for j in (0, 1)]
        top = (x - 40, y - 40, z + 710, x + length + 40, y + width + 40, z + 740)
        piece(name, storey, [*((a, b, z, a + 60, b + 60, z + 710) for a, b in legs), top], "Oak")

    def bench(name: str, storey: Any, x: float, y: float, z: float, length: float, wide: float) -> None:
        seat = (x, y, z + 410, x + length, y + wide, z + 450)
        across = wide > length
        ends = (
            [(x, y, z, x + length, y + 50, z + 410), (x, y + wide - 50, z, x + length, y + wide, z + 410)]
            if across
            else [
                (x, y, z, x + 50, y + wide, z + 410),
                (x + length - 50, y, z, x + length, y + wide, z + 410),
            ]
        )
        piece(name, storey, [*ends, seat], "Oak")

    def bunk(k: int, x: float, y: float, z: float, tiers: int) -> None:
        posts = [(x + i * 1940, y + j * 840) for i in (0, 1) for j in (0, 1)]
        high = 350.0 + (tiers - 1) * 1000 + 300
        parts: list[tuple[float, ...]] = [(a, b, z, a + 60, b + 60, z + high) for a, b in posts]
        for t in range(tiers):
            parts.append((x + 60, y, z + 300 + t * 1000, x + 1940, y + 900, z + 360 + t * 1000))
        piece(f"Bunk {k}", storey_of(z), parts)
        for t in range(tiers):
            level = z + 360 + t * 1000
            piece(
                f"Mattress {k}.{t + 1}",
                storey_of(z),
                [(x + 70, y + 60, level, x + 1930, y + 840, level + 120)],
                "Linen",
            )

    def storey_of(z: float) -> Any:
        return ground if z < UPPER else upper

    table("Long table", ground, 5200, 2000, 0, 2200, 800)
    bench("Bench 1", ground, 5200, 1450, 0, 2200, 350)
    bench("Bench 2", ground, 5200, 3000, 0, 2200, 350)
    table("Ringing table", ground, 900, 1000, 0, 1500, 700)
    bench("Bench 3", ground, 1000, 1900, 0, 1300, 350)
    piece("Kitchen counter", ground, [(3120, 6115, 0, 4250, 6715, 900)], "Oak")
    piece("Shelves", ground, [(300, 6300, 0, 1900, 6700, 2000)], "Oak")
    piece("Wood stove", ground, [(6950, 3900, 0, 7450, 4400, 800)], "Steel")
    piece("Bookcase", ground, [(8050, 700, 0, 8390, 2300, 2100)], "Oak")
    for k, y in enumerate((500.0, 2300.0)):
        bunk(k + 1, 8900, y, 0, 2)
    for k, (x, y) in enumerate(
        ((500.0, 1400.0), (500.0, 4700.0), (2300.0, 1400.0), (9000.0, 1400.0), (9000.0, 4700.0))
    ):
        bunk(k + 3, x, y, UPPER, 1)
    for k, x in enumerate((8700.0, 9400.0)):
        basin = w.box((x, 6300, 780), (x + 500, WIDTH - WALL, 900), "Plaster")
        w.element(
            "IfcSanitaryTerminal",
            f"Basin {k + 1}",
            ground,
            [basin],
            "Sanitary",
            "Plaster",
            PredefinedType="WASHHANDBASIN",
        )
    seat = [
        w.box((11000, 6000, 0), (11400, 6715, 420), "Plaster"),
        w.box((11000, 6515, 420), (11400, 6715, 900), "Plaster"),
    ]
    w.element("IfcSanitaryTerminal", "Seat", ground, seat, "Sanitary", "Plaster", PredefinedType="TOILETPAN")
    shower = w.box((8520, 3900, 0), (9420, 4800, 60), "Plaster")
    w.element(
        "IfcSanitaryTerminal", "Shower tray", ground, [shower], "Sanitary", "Plaster", PredefinedType="SHOWER"
    )
    for name, at in (("south", 1750.0), ("north", 4950.0)):
        piece(
            f"Scope shelf {name}", lookout, [(-3500, at, LOOKOUT + 860, -700, at + 300, LOOKOUT + 890)], "Oak"
        )
    for k, x in enumerate((-3300.0, -2300.0, -1300.0)):
        stool = w.post((x, 2300, LOOKOUT), 170, 620, "Oak")
        w.element("IfcFurniture", f"Stool {k + 1}", lookout, [stool], "Furniture", "Oak")
    for k, y in enumerate((1700.0, 3600.0, 4500.0)):
        piece(f"Store rack {k + 1}", ground, [(12100, y, -150, 12600, y + 800, 1700)], "Pine")
    if revised:
        piece("Map chest", ground, [(320, 5200, 0, 1220, 6000, 900)], "Oak")
        return
    piece(
        "Deck bench",
        ground,
        [
            (1500, -420, -20, 1600, -60, 400),
            (3000, -420, -20, 3100, -60, 400),
            (1400, -440, 400, 3200, -40, 450),
        ],
        "Larch",
    )
