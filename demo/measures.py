"""The measures of the demo building that more than one part of it keeps to. Millimetres."""

import math

GROUND, UPPER, LOOKOUT = 0.0, 2900.0, 6000.0
LENGTH, WIDTH = 12000.0, 7000.0  # the bunkhouse, outside
WALL = 285.0
EAVES = 4100.0
SLOPE = math.tan(math.radians(40))
RIDGE = EAVES + WIDTH / 2 * SLOPE
TOWER = (-4200.0, 1400.0, 0.0, 5600.0)  # x0, y0, x1, y1
TOWER_WALL = 350.0
TOWER_EAVES = 8600.0
STORE = (12000.0, 1500.0, 15000.0, 5500.0)
