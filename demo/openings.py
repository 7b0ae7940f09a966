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
) -> None:
    end, head, bar = start + width, sill + height, 60.0
    front, back = at + thick * 0.35, at + thick * 0.35 + 80
    pane = (front + 28, front + 52)
    items = [
        along_wall(w, axis, (start, end), (front, back), (sill, sill + bar), "Pine"),
        along_wall(w, axis, (start, end), (front, back), (head - bar, head), "Pine"),
    ]
    step = (width - bar) / lights
    for k in range(lights + 1):
        x = start + k * step
        items.append(along_wall(w, axis, (x, x + bar), (front, back), (sill + bar, head - bar), "Pine"))
    for k in range(lights):
        x = start + k * step + bar
        items.append(along_wall(w, axis, (x, x + step - bar), pane, (sill + bar, head - bar), "Glass"))
    window = w.element(
        "IfcWindow",
        name,
        storey,
        items,
        "Windows and doors",
        OverallHeight=float(height),
        OverallWidth=float(width),
    )
    hole = along_wall(w, axis, (start, end), (at - 20, at + thick + 20), (sill, head), "")
    w.opening(host, f"{name} opening", [hole], window)


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
    glazed: bool = False,
) -> None:
    end, head, bar = start + width, floor + height, 50.0
    deep = min(thick, 120.0)
    front = at + (thick - deep) / 2
    items = [
        along_wall(w, axis, (start, start + bar), (front, front + deep), (floor, head), "Oak"),
        along_wall(w, axis, (end - bar, end), (front, front + deep), (floor, head), "Oak"),
        along_wall(w, axis, (start + bar, end - bar), (front, front + deep), (head - bar, head), "Oak"),
    ]
    leaf = (front + deep / 2 - 22, front + deep / 2 + 22)
    inner = (start + bar, end - bar)
    if glazed:
        stile, pane = 110.0, (front + deep / 2 - 12, front + deep / 2 + 12)
        rail, top = floor + 300.0, head - bar - stile
        items += [
            along_wall(w, axis, (inner[0], inner[0] + stile), leaf, (floor, head - bar), "Oak"),
            along_wall(w, axis, (inner[1] - stile, inner[1]), leaf, (floor, head - bar), "Oak"),
            along_wall(w, axis, (inner[0] + stile, inner[1] - stile), leaf, (floor, rail), "Oak"),
            along_wall(w, axis, (inner[0] + stile, inner[1] - stile), leaf, (top, head - bar), "Oak"),
            along_wall(w, axis, (inner[0] + stile, inner[1] - stile), pane, (rail, top), "Glass"),
        ]
    else:
        items.append(along_wall(w, axis, inner, leaf, (floor, head - bar), "Oak"))
    knob = (inner[1] - 130, inner[1] - 60)
    items.append(along_wall(w, axis, knob, (leaf[0] - 40, leaf[0]), (floor + 1020, floor + 1045), "Steel"))
    door = w.element(
        "IfcDoor",
        name,
        storey,
        items,
        "Windows and doors",
        OverallHeight=float(height),
        OverallWidth=float(width),
    )
    hole = along_wall(w, axis, (start, end), (at - 20, at + thick + 20), (floor, head), "")
    w.opening(host, f"{name} opening", [hole], door)


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
