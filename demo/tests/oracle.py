"""An oracle that knows nothing of the engine: rays through the building's triangles, and the creases of its
meshes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import cached_property
from typing import Any

import numpy as np
import trimesh

from drafting.building.model import Building
from drafting.views.camera import Camera

#: Points are looked at this far (mm, at their own place) beside where they are, on all sides: what the four
#: agree
#: on is more than that away from any outline.
BESIDE = 2.0
#: What stands less than this before a point may be a face that the point itself lies on; mm.
BEFORE = 20.0
#: What is nearer to a point than this is the surface that it lies on; rays are single precision. mm.
TOUCHING = 0.5
CREASE = 20.0


class Oracle:
    """What rays find of a building."""

    def __init__(self, building: Building) -> None:
        self.building = building
        mesh = trimesh.Trimesh(building.vertices, building.triangles, process=False)
        self.rays = trimesh.ray.ray_pyembree.RayMeshIntersector(mesh, scale_to_box=False)
        self.normals = mesh.face_normals
        self.names = np.array([e.id for e in building.elements])
        self.material = building.triangle_material

    def creases(self) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
        """Of all sharp edges: ends (n, 2, 3), element (n,), their faces' normals (n, 2, 3), whether convex
        (n,)."""
        ends, owner, normals, convex = [], [], [], []
        for number, mesh in enumerate(self._meshes()):
            sharp = mesh.face_adjacency_angles > math.radians(CREASE + 0.5)
            ends.append(mesh.vertices[mesh.face_adjacency_edges[sharp]])
            normals.append(mesh.face_normals[mesh.face_adjacency[sharp]])
            convex.append(mesh.face_adjacency_convex[sharp])
            owner.append(np.full(int(sharp.sum()), number))
        return np.concatenate(ends), np.concatenate(owner), np.concatenate(normals), np.concatenate(convex)

    def before(self, points: np.ndarray, camera: Camera) -> list[tuple[np.ndarray, np.ndarray, np.ndarray]]:
        """For each of the four places beside the points: point (m,), distance (m,) and triangle (m,) of all
        that stands before them up to the cut; and triangle -1 for a body that the cut goes through."""
        found = []
        for right, up in ((1, 1), (1, -1), (-1, -1), (-1, 1)):
            moved = points + BESIDE * (right * camera.right + up * camera.up)
            if camera.distance is None:
                way, limit = np.broadcast_to(camera.toward, moved.shape), np.full(len(moved), np.inf)
                if camera.cuts:
                    limit = camera.cuts[0].depth - camera.along_axes(moved)[:, 2]
            else:
                way = camera.origin + camera.toward * camera.distance - moved
                limit = np.linalg.norm(way, axis=1)
                way = way / limit[:, None]
            triangle, ray, distance = _all_hits(self.rays, moved, way)
            near = (distance > TOUCHING) & (distance < limit[ray])
            cut = self._cut_at(moved + way * limit[:, None], camera) if camera.cuts else np.empty(0, np.int64)
            found.append(
                (
                    np.concatenate([ray[near], cut]),
                    np.concatenate([distance[near], limit[cut]]),
                    np.concatenate([triangle[near], np.full(len(cut), -1)]),
                )
            )
        return found

    def _cut_at(self, places: np.ndarray, camera: Camera) -> np.ndarray:
        """Which places of the cutting plane lie inside a body: an odd number of its faces lies on one side of
        them."""
        inside = np.zeros(len(places), bool)
        for mesh, rays in self._bodies:
            low, high = mesh.bounds
            near = np.flatnonzero(((places > low) & (places < high)).all(axis=1))
            if len(near):
                _, ray, _ = _all_hits(rays, places[near], np.broadcast_to(camera.toward, (len(near), 3)))
                inside[near[np.bincount(ray, minlength=len(near)) % 2 == 1]] = True
        return np.flatnonzero(inside)

    @cached_property
    def _bodies(self) -> list[tuple[trimesh.Trimesh, Any]]:
        """Each body of each element, alone."""
        bodies = []
        for mesh in self._meshes():
            bodies += mesh.split(only_watertight=False)
        return [(b, trimesh.ray.ray_pyembree.RayMeshIntersector(b, scale_to_box=False)) for b in bodies]

    def _meshes(self) -> Iterator[trimesh.Trimesh]:
        for number in range(len(self.building.elements)):
            faces = self.building.triangles[self.building.triangle_element == number]
            mesh = trimesh.Trimesh(self.building.vertices, faces, process=False)
            mesh.remove_unreferenced_vertices()
            mesh.merge_vertices(digits_vertex=1)
            mesh.update_faces(mesh.nondegenerate_faces(height=1e-3))
            yield mesh

    def clearly_hidden(self, points: np.ndarray, camera: Camera) -> np.ndarray:
        """Whether something stands clearly before each point, wherever near it one looks."""
        hidden = np.ones(len(points), bool)
        for ray, distance, _ in self.before(points, camera):
            here = np.zeros(len(points), bool)
            here[ray[distance > BEFORE]] = True
            hidden &= here
        return hidden

    def clearly_seen(self, points: np.ndarray, normals: np.ndarray, camera: Camera) -> np.ndarray:
        """Whether nothing stands before each point, wherever near it one looks, but the faces that meet in
        it.

        `normals` (n, 2, 3) are those of the faces whose edge each point lies on.
        """
        seen = np.ones(len(points), bool)
        for ray, distance, triangle in self.before(points, camera):
            alike = (np.abs((normals[ray] * self.normals[triangle][:, None]).sum(axis=2)) > 0.9999).any(
                axis=1
            )
            corner = self.building.vertices[self.building.triangles[triangle, 0]]
            off = np.abs(((points[ray] - corner) * self.normals[triangle]).sum(axis=1))
            own = (triangle >= 0) & (distance < BEFORE) & alike & (off < 0.05)
            seen[ray[~own]] = False
        return seen

    def seams(
        self,
        points: np.ndarray,
        ends: np.ndarray,
        normals: np.ndarray,
        convex: np.ndarray,
        element: np.ndarray,
    ) -> np.ndarray:
        """Whether a face of the same element or material goes on across the edge in the plane of one of its
        faces."""
        along = ends[:, 1] - ends[:, 0]
        along /= np.linalg.norm(along, axis=1)[:, None]
        first = np.zeros(len(self.names), np.int64)
        first[self.building.triangle_element[::-1]] = self.material[::-1]
        result = np.zeros(len(points), bool)
        for k in range(2):
            normal, other = normals[:, k], normals[:, 1 - k]
            across = np.cross(along, normal)
            # Away from the face: the way the other face looks, but for an edge in a hollow.
            across *= np.where(((across * other).sum(axis=1) > 0) == convex, 1.0, -1.0)[:, None]
            from_ = points + across * 0.6 + normal * 1.0
            triangle, ray, deep = _all_hits(self.rays, from_, -normal)
            flat = (np.abs(deep - 1.0) < 0.1) & ((self.normals[triangle] * normal[ray]).sum(axis=1) > 0.999)
            alike = (self.material[triangle] == first[element[ray]]) | (
                self.building.triangle_element[triangle] == element[ray]
            )
            result[ray[flat & alike]] = True
        return result


def _all_hits(rays: Any, from_: np.ndarray, way: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Triangle, ray and distance of every hit."""
    triangle, ray, place = rays.intersects_id(
        from_, way, multiple_hits=True, return_locations=True, max_hits=80
    )
    return triangle, ray, ((place - from_[ray]) * way[ray]).sum(axis=1)
