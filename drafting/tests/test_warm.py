"""No drawing waits for the compiler."""

import subprocess
import sys
from unittest import TestCase

#: Counts what is compiled by warming up, then by drawing every kind of view with every option.
SCRIPT = """
from drafting.building import intersections, topology
from drafting.linework import covering, grid, intervals, joining, visibility
from drafting.linework.engine import draw
from drafting.tasks.ready import warm
from drafting.tests.scenes import box, building, cylinder
from drafting.views.notation import parse_view
from drafting.views.spec import dump_view, parse_view_spec

modules = (intersections, topology, covering, grid, intervals, joining, visibility)
kernels = [k for m in modules for k in vars(m).values() if hasattr(k, "signatures")]
count = lambda: sum(len(k.signatures) for k in kernels)
warm()
warmed = count()
points, faces = box((0, 0, 0), (900, 900, 900))
open_box, bar = (points + 400, faces[:-2]), box((5000, 0, 0), (6000, 10, 10))
scene = building([(points, faces), open_box, cylinder(500, 3000, 24), bar])
for text in ("plan:0", "roof", "elevation:north", "section:0,100,900,100,900,300,5000,300", "axonometric:se",
             "perspective:-9000,-8000,3000,0,0,0", "detail:0,0,500:plan:0"):
    for options in ({}, {"seams": True, "hidden": True, "far": 500, "bands": [200, 700]}):
        overhead = {"overhead": True} if text == "plan:0" else {}
        draw(scene, parse_view_spec(dump_view(parse_view(text)) | {"line_settings": options | overhead}))
print(len(kernels), warmed, count())
"""


class WarmTests(TestCase):
    def test_warming_up_compiles_all_that_any_drawing_needs(self):
        printed = subprocess.run(
            [sys.executable, "-c", SCRIPT], capture_output=True, text=True, check=True
        ).stdout
        kernels, warmed, after = map(int, printed.split())
        self.assertGreater(kernels, 20)
        self.assertGreaterEqual(warmed, 8)  # those that are called from outside
        self.assertEqual(after, warmed)
