"""What is sent of a building for 3D."""

import gzip
import json
from unittest import TestCase

import numpy as np

from drafting.building.solid import to_solid
from drafting.tests.scenes import box, building, cylinder


def read(data):
    """Header, places in model mm, triangles and edges, as docs/solid-format.md has them."""
    whole = gzip.decompress(data)
    length = int(np.frombuffer(whole, "<u4", 1, 4)[0])
    header = json.loads(whole[8 : 8 + length])
    at = 8 + length
    places = np.frombuffer(whole, "<f4", header["points"] * 3, at).reshape(-1, 3)
    triangles = np.frombuffer(whole, "<u4", header["triangles"] * 3, at + places.nbytes).reshape(-1, 3)
    edges = np.frombuffer(whole, "<u4", header["edges"] * 2, at + places.nbytes + triangles.nbytes).reshape(
        -1, 2
    )
    return header, places + np.array(header["origin"]), triangles, edges


class SolidTests(TestCase):
    SCENE = (box((0, 0, 0), (926, 40, 2040)), cylinder(300, 2500, 48), box((5000, 0, 0), (6000, 10, 10)))

    def test_each_element_has_its_own_points_triangles_and_sharp_edges(self):
        header, places, triangles, edges = read(to_solid(building(self.SCENE)))
        self.assertEqual([e["id"] for e in header["elements"]], ["e0", "e1", "e2"])
        wall = header["elements"][0]
        mine = places[slice(*wall["points"])]
        np.testing.assert_allclose([mine.min(0), mine.max(0)], [(0, 0, 0), (926, 40, 2040)], atol=0.01)
        self.assertEqual(len(edges[slice(*wall["edges"])]), 12)
        for e in header["elements"]:
            for numbers in (triangles[slice(*e["triangles"])], edges[slice(*e["edges"])]):
                self.assertTrue(((numbers >= e["points"][0]) & (numbers < e["points"][1])).all())
        # Of a round column only the rims are worth a line.
        self.assertEqual(len(edges[slice(*header["elements"][1]["edges"])]), 2 * 48)

    def test_places_keep_their_precision_ten_kilometres_away(self):
        far = np.array([1e7, -1e7, 0])
        _, places, _, _ = read(to_solid(building([(p + far, f) for p, f in self.SCENE])))
        here = read(to_solid(building(self.SCENE)))[1]
        np.testing.assert_allclose(places - far, here, atol=0.01)
