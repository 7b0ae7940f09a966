"""Boxes, polygons and packed polylines: the shapes that everything else is made of."""
