"""The symbols that are built in. Of real size: people, trees, vehicles. Of paper size: electrical outlets
(IEC 60617: half round on a wall, strokes for switches), the fall of a surface, a datum."""

from __future__ import annotations

import math
import random
from collections.abc import Mapping, Sequence

from drafting.annotation.shapes import smooth
from drafting.annotation.symbols import SymbolLine, SymbolSpec, SymbolWords
from drafting.geometry.boxes import Point
from drafting.styles.pens import INK, PAPER


def _round(
    x: float, y: float, radius: float, steps: int = 32, start: float = 0, end: float = 360
) -> list[Point]:
    whole = end - start == 360
    count = steps if whole else steps + 1
    turns = (math.radians(start + (end - start) * k / steps) for k in range(count))
    return [(x + radius * math.cos(a), y + radius * math.sin(a)) for a in turns]


def _ring(points: Sequence[Point], fill: str = PAPER, width: float = 0.18) -> SymbolLine:
    return SymbolLine(_plain(points), True, width, INK, fill)


def _line(points: Sequence[Point], width: float = 0.13) -> SymbolLine:
    return SymbolLine(_plain(points), False, width)


def _plain(points: Sequence[Point]) -> tuple[Point, ...]:
    return tuple((round(float(x), 3), round(float(y), 3)) for x, y in points)


def _curved(points: Sequence[Point], closed: bool = True) -> list[Point]:
    return smooth(points, closed)


def _mirrored(half: Sequence[Point]) -> list[Point]:
    """An outline whose right half is given from the top down, with its left half."""
    return [*half, *((-x, y) for x, y in reversed(half) if x > 1)]


def _person_standing() -> SymbolSpec:
    body = _mirrored([
        (55, 1490), (215, 1430), (265, 1150), (275, 860), (215, 850), (190, 1120), (170, 1180), (165, 860),
        (160, 450), (150, 70), (165, 0), (40, 0), (45, 80), (25, 450), (1, 800),
    ])  # fmt: skip
    return SymbolSpec((_ring(body), _ring(_round(0, 1620, 115))), real=True)


def _person_from_above() -> SymbolSpec:
    shoulders = _curved(
        [(-270, 0), (-230, 105), (0, 130), (230, 105), (270, 0), (210, -100), (0, -85), (-210, -100)]
    )
    return SymbolSpec((_ring(shoulders), _ring(_round(0, 20, 105))), real=True)


def _crown(radius: float, seed: int, lobes: int) -> list[Point]:
    """The outline of a crown: lobes of uneven depth, the same each time."""
    uneven = random.Random(seed)
    points = []
    for k in range(lobes * 2):
        turn = 2 * math.pi * k / (lobes * 2)
        out = radius * (1.0 if k % 2 else 0.84) * uneven.uniform(0.94, 1.04)
        points.append((out * math.cos(turn), out * math.sin(turn)))
    return _curved(points)


def _broadleaf_from_above() -> SymbolSpec:
    branches = []
    uneven = random.Random(7)
    for k in range(9):
        turn = 2 * math.pi * k / 9 + uneven.uniform(-0.2, 0.2)
        long = uneven.uniform(1100, 1750)
        x, y = math.cos(turn), math.sin(turn)
        branches.append(_line([(x * 160, y * 160), (x * long, y * long)]))
    return SymbolSpec((_ring(_crown(2200, 3, 13)), *branches, _ring(_round(0, 0, 160, 16), INK)), real=True)


def _conifer_from_above() -> SymbolSpec:
    spikes = []
    for k in range(36):
        turn, out = 2 * math.pi * k / 36, 1500 if k % 2 else 1180
        spikes.append((out * math.cos(turn), out * math.sin(turn)))
    rays = [
        _line([(0, 0), (1100 * math.cos(a), 1100 * math.sin(a))])
        for a in (2 * math.pi * k / 12 for k in range(12))
    ]
    return SymbolSpec((_ring(spikes), *rays), real=True)


def _broadleaf_standing() -> SymbolSpec:
    trunk = [(-170, 0), (-110, 2600), (110, 2600), (170, 0)]
    crown = [(x, y * 0.86 + 4700) for x, y in _crown(2300, 11, 11)]
    twigs = [
        _line([(0, 2600), (0, 4300)]), _line([(0, 3100), (760, 4500)]), _line([(0, 3300), (-820, 4700)]),
    ]  # fmt: skip
    return SymbolSpec((_ring(trunk), _ring(crown), *twigs), real=True)


def _conifer_standing() -> SymbolSpec:
    half = [(1, 7200), (520, 5700), (330, 5750), (900, 4100), (620, 4180), (1300, 2300), (900, 2400),
            (1600, 700), (150, 820), (150, 0)]  # fmt: skip
    return SymbolSpec((_ring(_mirrored(half)),), real=True)


def _car_from_above() -> SymbolSpec:
    half = [(-2150, 700), (-1700, 880), (1500, 880), (2050, 720), (2200, 300)]
    body = _curved([(-2150, -700), *half, *((x, -y) for x, y in reversed(half[1:]))])
    front = [(650, -700), (1000, -620), (1080, 0), (1000, 620), (650, 700), (480, 600), (540, 0), (480, -600)]
    back = [(-1500, -640), (-1650, -560), (-1720, 0), (-1650, 560), (-1500, 640), (-1250, 560), (-1250, -560)]
    return SymbolSpec((_ring(body), _ring(_curved(front)), _ring(_curved(back))), real=True)


def _car_from_the_side() -> SymbolSpec:
    body = [(-2150, 330), (-2180, 700), (-2050, 900), (-1450, 980), (-900, 1420), (350, 1440), (1050, 980),
            (1900, 860), (2180, 650), (2180, 330)]  # fmt: skip
    glass = [(-1180, 980), (-820, 1330), (300, 1350), (860, 980)]
    wheels = [_ring(_round(x, 310, 310)) for x in (-1350, 1350)]
    hubs = [_ring(_round(x, 310, 170, 20), width=0.13) for x in (-1350, 1350)]
    return SymbolSpec(
        (_ring(body), _ring(glass), _line([(-220, 980), (-220, 1345)]), *wheels, *hubs), real=True
    )


def _bicycle_from_the_side() -> SymbolSpec:
    wheels = [_ring(_round(x, 340, 340), PAPER, 0.13) for x in (-520, 520)]
    frame = _line([(-520, 340), (-150, 880), (400, 880), (-60, 330), (-520, 340)], 0.18)
    rest = [_line([(520, 340), (380, 980), (480, 1040)], 0.18), _line([(-60, 330), (-190, 960)], 0.18),
            _line([(-300, 970), (-80, 960)], 0.25)]  # fmt: skip
    return SymbolSpec((*wheels, frame, *rest), real=True)


def _socket(count: int) -> SymbolSpec:
    cup = _round(0, 1.6, 1.6, 20, 180, 360)
    lines = [
        _line([(0, 1.6), (0, 3.4)], 0.25),
        SymbolLine(_plain(cup), False, 0.25),
        _line([(-1.6, 0), (1.6, 0)], 0.25),
    ]
    words = (SymbolWords((2.6, 1.8), 1.8, str(count)),) if count > 1 else ()
    return SymbolSpec(tuple(lines), words)


def _switch() -> SymbolSpec:
    way = (math.cos(math.radians(60)), math.sin(math.radians(60)))
    top = (4.6 * way[0], 4.6 * way[1])
    tick = (top[0] + 1.4 * way[1], top[1] - 1.4 * way[0])
    return SymbolSpec((_ring(_round(0, 0, 0.7, 16), INK), _line([(0, 0), top, tick], 0.25)))


def _lamp() -> SymbolSpec:
    half = 2.0 / math.sqrt(2)
    crossed = (_line([(-half, -half), (half, half)], 0.25), _line([(-half, half), (half, -half)], 0.25))
    return SymbolSpec((_ring(_round(0, 0, 2.0), PAPER, 0.25), *crossed))


def _fall() -> SymbolSpec:
    return SymbolSpec(
        (_line([(-9, 0), (9, 0)], 0.18), _ring([(9, 0), (6, 0.6), (6, -0.6)], INK, 0.13)),
        (SymbolWords((0, 1.0), 2.5, "2 %"),),
    )


def _datum() -> SymbolSpec:
    return SymbolSpec(
        (_ring([(0, 0), (1.8, 3.0), (-1.8, 3.0)], INK, 0.18), _line([(-4, 0), (12, 0)], 0.18)),
        (SymbolWords((7, 1.0), 2.5, "±0.000"),),
    )


#: By their keys.
SYMBOL_PRESETS: Mapping[str, tuple[str, SymbolSpec]] = {
    "person-standing": ("Person, standing", _person_standing()),
    "person-above": ("Person, from above", _person_from_above()),
    "broadleaf-above": ("Broadleaf tree, from above", _broadleaf_from_above()),
    "broadleaf-standing": ("Broadleaf tree, from the side", _broadleaf_standing()),
    "conifer-above": ("Conifer, from above", _conifer_from_above()),
    "conifer-standing": ("Conifer, from the side", _conifer_standing()),
    "car-above": ("Car, from above", _car_from_above()),
    "car-side": ("Car, from the side", _car_from_the_side()),
    "bicycle-side": ("Bicycle, from the side", _bicycle_from_the_side()),
    "socket": ("Socket outlet", _socket(1)),
    "socket-double": ("Socket outlet, double", _socket(2)),
    "switch": ("Switch", _switch()),
    "lamp": ("Lamp", _lamp()),
    "fall": ("Direction of fall", _fall()),
    "datum": ("Datum level", _datum()),
}
