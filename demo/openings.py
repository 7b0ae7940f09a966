"""Windows and doors of the demo building, each with its opening. `axis` is "x" where the wall runs along x;
`at` is the wall's lower face across it."""

from __future__ import annotations

from typing import Any

from demo.ifc_writer import IfcWriter


def along_wall(
    w: IfcWriter,
    axis: str,
    a: tuple[float, float],
    d: tuple[float, float],
    z: tuple[float, float],
    style: str,
) -> Any:
    """A box given along the wall (a), across it (d) and upward (z)."""
    if axis == "x":
        return w.box((a[0], d[0], z[0]), (a[1], d[1], z[1]), style)
    return w.box((d[0], a[0], z[0]), (d[1], a[1], z[1]), style)


#: How the panels of windows with so many lights open (IfcWindowPanelOperationEnum), by their position; more
#: lights than these are fixed.
PANELS = {
    1: ("SINGLE_PANEL", {"MIDDLE": "TILTANDTURNRIGHTHAND"}),
    2: ("DOUBLE_PANEL_VERTICAL", {"LEFT": "SIDEHUNGRIGHTHAND", "RIGHT": "SIDEHUNGLEFTHAND"}),
}


def window(
    w: IfcWriter,
    storey: Any,
    host: Any,
    name: str,
    axis: str,
    at: float,
    thick: float,
    start: float,
    width: float,
    sill: float,
    height: float,
    lights: int = 1,
    *,
    opens: int,
) -> None:
    """A window that opens up the axis across its wall (1) or down it (-1). It has axes of its own, as a door
    has."""
    bar = 60.0
    front = thick * (0.35 if opens > 0 else 0.65) - (0.0 if opens > 0 else 80.0)
    frame, pane = (front, front + 80.0), (front + 28, front + 52)

    def box(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float], style: str) -> Any:
        return w.box((x[0], y[0], z[0]), (x[1], y[1], z[1]), style)

    items = [
        box((0, width), frame, (0, bar), "Pine"),
        box((0, width), frame, (height - bar, height), "Pine"),
    ]
    step = (width - bar) / lights
    for k in range(lights + 1):
        items.append(box((k * step, k * step + bar), frame, (bar, height - bar), "Pine"))
    for k in range(lights):
        items.append(box((k * step + bar, (k + 1) * step), pane, (bar, height - bar), "Glass"))
    partition, panels = PANELS.get(lights, ("NOTDEFINED", {}))
    window = w.element(
        "IfcWindow",
        name,
        storey,
        items,
        "Windows and doors",
        place=_place(axis, at, thick, start, start + width, sill, opens),
        OverallHeight=float(height),
        OverallWidth=float(width),
        PartitioningType=partition,
    )
    for position, operation in panels.items():
        w.properties(
            "IfcWindowPanelProperties", window, position, OperationType=operation, PanelPosition=position
        )
    hole = along_wall(w, axis, (start, start + width), (at - 20, at + thick + 20), (sill, sill + height), "")
    w.opening(host, f"{name} opening", [hole], window)


def _place(
    axis: str, at: float, thick: float, start: float, end: float, floor: float, opens: int
) -> tuple[tuple[float, float, float], tuple[float, float, float]]:
    """Where the width of a door or window begins, and which way it runs, so that what is to its left is where
    it opens to."""
    if axis == "x":
        return ((start, at, floor), (1, 0, 0)) if opens > 0 else ((end, at + thick, floor), (-1, 0, 0))
    return ((at, end, floor), (0, -1, 0)) if opens > 0 else ((at + thick, start, floor), (0, 1, 0))


def door(
    w: IfcWriter,
    storey: Any,
    host: Any,
    name: str,
    axis: str,
    at: float,
    thick: float,
    start: float,
    width: float,
    floor: float,
    height: float = 2100.0,
    *,
    opens: int = 1,
    hinge: str = "left",
    glazed: bool = False,
) -> None:
    """A door of one leaf, which opens up the axis across its wall (1) or down it (-1), with its hinge to the
    left or right as one goes that way. It has axes of its own: along its width, the way it opens, and up."""
    end, head, bar = start + width, floor + height, 50.0
    deep = min(thick, 120.0)
    front = (thick - deep) / 2

    def box(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float], style: str) -> Any:
        return w.box((x[0], y[0], z[0]), (x[1], y[1], z[1]), style)

    items = [
        box((0, bar), (front, front + deep), (0, height), "Oak"),
        box((width - bar, width), (front, front + deep), (0, height), "Oak"),
        box((bar, width - bar), (front, front + deep), (height - bar, height), "Oak"),
    ]
    middle = thick / 2
    leaf, inner = (middle - 22, middle + 22), (bar, width - bar)
    if glazed:
        stile, pane = 110.0, (middle - 12, middle + 12)
        rail, top = 300.0, height - bar - stile
        between = (inner[0] + stile, inner[1] - stile)
        items += [
            box((inner[0], inner[0] + stile), leaf, (0, height - bar), "Oak"),
            box((inner[1] - stile, inner[1]), leaf, (0, height - bar), "Oak"),
            box(between, leaf, (0, rail), "Oak"),
            box(between, leaf, (top, height - bar), "Oak"),
            box(between, pane, (rail, top), "Glass"),
        ]
    else:
        items.append(box(inner, leaf, (0, height - bar), "Oak"))
    knob = (inner[1] - 130, inner[1] - 60) if hinge == "left" else (inner[0] + 60, inner[0] + 130)
    items.append(box(knob, (leaf[0] - 40, leaf[0]), (1020, 1045), "Steel"))
    made = w.element(
        "IfcDoor",
        name,
        storey,
        items,
        "Windows and doors",
        place=_place(axis, at, thick, start, end, floor, opens),
        OverallHeight=float(height),
        OverallWidth=float(width),
        PredefinedType="DOOR",
        OperationType=f"SINGLE_SWING_{hinge.upper()}",
    )
    hole = along_wall(w, axis, (start, end), (at - 20, at + thick + 20), (floor, head), "")
    w.opening(host, f"{name} opening", [hole], made)


def round_window(
    w: IfcWriter,
    storey: Any,
    host: Any,
    name: str,
    at: tuple[float, float, float],
    radius: float,
    thick: float,
) -> None:
    x, y, z = at
    front = y + thick * 0.35
    items = [
        w.disc_y((x, front, z), radius, 80, "Pine", hollow=70),
        w.disc_y((x, front + 28, z), radius - 70, 24, "Glass"),
    ]
    window = w.element(
        "IfcWindow",
        name,
        storey,
        items,
        "Windows and doors",
        OverallHeight=2 * radius,
        OverallWidth=2 * radius,
    )
    w.opening(host, f"{name} opening", [w.disc_y((x, y - 20, z), radius, thick + 40, "")], window)
