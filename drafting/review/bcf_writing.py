"""Comments as a BCF file (BCF-XML 2.1 of buildingSMART), for those who work in the model: a topic for each,
with a viewpoint from the drawing that it was made on and the element that lies there."""

from __future__ import annotations

import io
import re
import uuid
import zipfile
from collections.abc import Sequence
from dataclasses import dataclass
from xml.etree import ElementTree as ET

import numpy as np
from numpy.typing import NDArray

from drafting.building.axes import Axes, in_file
from drafting.progress import Progress, silent
from drafting.review.comments import WrittenComment
from drafting.review.places import Axis, Eye

VERSION = "2.1"
#: An id of an element as the open building model compresses it.
IFC_ID = re.compile(r"[0-9A-Za-z_$]{22}")
#: From so far the eye looks at a place in a drawing without a perspective, and sees so much; mm.
AWAY, SEEN = 10_000.0, 6_000.0
#: What a perspective's field of view may be in this version; degrees.
MIN_ANGLE, MAX_ANGLE = 45.0, 60.0
#: The first moment that an archive can name: the same comments give the same bytes.
_NO_DATE = (1980, 1, 1, 0, 0, 0)
_OWN = uuid.UUID("6f2a3b0e-8f0c-4f0b-9c3e-6b1d5b1f7a10")


@dataclass(frozen=True)
class Topic:
    """A comment, and what it is about.

    Attributes:
        sheet: the number of its sheet; blank for none.
        eye: the camera of the drawing that it was made on.
        at: where of the building, mm in its own axes.
        element: its id in the building file; blank for none.
        picture: what is seen there, as PNG.
    """

    comment: WrittenComment
    sheet: str = ""
    eye: Eye | None = None
    at: Axis | None = None
    element: str = ""
    picture: bytes = b""


def write_bcf(project: str, topics: Sequence[Topic], axes: Axes, progress: Progress = silent) -> bytes:
    """A BCF file.

    Args:
        axes: of the building, in the figures of its file, which is what BCF speaks of.
    """
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:

        def write(name: str, data: bytes) -> None:
            entry = zipfile.ZipInfo(name, _NO_DATE)
            entry.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(entry, data)

        write("bcf.version", _xml(_version()))
        write("project.bcfp", _xml(_project(project)))
        for topic in topics:
            folder = _guid(topic.comment.key)
            has_view = topic.eye is not None and topic.at is not None
            write(f"{folder}/markup.bcf", _xml(_markup(topic, folder, has_view=has_view)))
            if has_view:
                write(f"{folder}/viewpoint.bcfv", _xml(_viewpoint(topic, folder, axes)))
                if topic.picture:
                    write(f"{folder}/snapshot.png", topic.picture)
    return out.getvalue()


def _guid(key: str) -> str:
    """The key itself where it is one, else one that is always made of it."""
    try:
        return str(uuid.UUID(key))
    except ValueError:
        return str(uuid.uuid5(_OWN, key))


def _xml(root: ET.Element) -> bytes:
    ET.indent(root)
    return bytes(ET.tostring(root, encoding="utf-8", xml_declaration=True))


def _add(parent: ET.Element, name: str, text: str) -> ET.Element:
    """A part with words, without the signs that XML cannot have."""
    made = ET.SubElement(parent, name)
    made.text = "".join(sign for sign in text if sign in "\n\t" or sign >= " ")
    return made


def _version() -> ET.Element:
    root = ET.Element("Version", VersionId=VERSION)
    _add(root, "DetailedVersion", VERSION)
    return root


def _project(name: str) -> ET.Element:
    root = ET.Element("ProjectExtension")
    project = ET.SubElement(root, "Project", ProjectId=_guid(name))
    _add(project, "Name", name)
    _add(root, "ExtensionSchema", "")
    return root


def _markup(topic: Topic, folder: str, *, has_view: bool) -> ET.Element:
    comment = topic.comment
    root = ET.Element("Markup")
    made = ET.SubElement(
        root, "Topic", Guid=folder, TopicType="Comment", TopicStatus=comment.standing.split(" in ")[0]
    )
    first = comment.text.split("\n")[0][:120] or "A mark without words"
    _add(made, "Title", f"{topic.sheet}: {first}" if topic.sheet else first)
    _add(made, "Index", str(comment.number))
    if topic.sheet:
        _add(made, "Labels", topic.sheet)
    _add(made, "CreationDate", comment.made)
    _add(made, "CreationAuthor", comment.author)
    if comment.due:
        _add(made, "DueDate", f"{comment.due}T00:00:00Z")
    if comment.assigned:
        _add(made, "AssignedTo", comment.assigned)
    _add(made, "Description", comment.text)
    for answer in comment.answers:
        each = ET.SubElement(root, "Comment", Guid=_guid(answer.key))
        _add(each, "Date", answer.made)
        _add(each, "Author", answer.author)
        _add(each, "Comment", answer.text)
    if has_view:
        view = ET.SubElement(root, "Viewpoints", Guid=_guid(f"view of {folder}"))
        _add(view, "Viewpoint", "viewpoint.bcfv")
        if topic.picture:
            _add(view, "Snapshot", "snapshot.png")
    return root


def _viewpoint(topic: Topic, folder: str, axes: Axes) -> ET.Element:
    root = ET.Element("VisualizationInfo", Guid=_guid(f"view of {folder}"))
    components = ET.SubElement(root, "Components")
    if IFC_ID.fullmatch(topic.element):
        selection = ET.SubElement(components, "Selection")
        ET.SubElement(selection, "Component", IfcGuid=topic.element)
    ET.SubElement(components, "Visibility", DefaultVisibility="true")
    assert topic.eye is not None and topic.at is not None  # has_view
    eye, at = topic.eye, np.array(topic.at)
    toward = np.array(eye.toward)
    if eye.distance is None:
        camera = ET.SubElement(root, "OrthogonalCamera")
        stands = at + toward * AWAY
    else:
        camera = ET.SubElement(root, "PerspectiveCamera")
        stands = np.array(eye.origin) + toward * eye.distance
        toward = (stands - at) / np.linalg.norm(stands - at)
    origin = np.array(in_file(axes, (0.0, 0.0, 0.0)))
    _triple(camera, "CameraViewPoint", np.array(in_file(axes, _three(stands))) / 1000.0)
    _triple(camera, "CameraDirection", np.array(in_file(axes, _three(-toward))) - origin)
    _triple(camera, "CameraUpVector", np.array(in_file(axes, eye.up)) - origin)
    if eye.distance is None:
        _add(camera, "ViewToWorldScale", f"{SEEN / 1000.0:g}")
    else:
        _add(camera, "FieldOfView", f"{min(max(eye.angle, MIN_ANGLE), MAX_ANGLE):g}")
    return root


def _three(values: NDArray[np.float64]) -> Axis:
    x, y, z = values.tolist()
    return x, y, z


def _triple(parent: ET.Element, name: str, values: NDArray[np.float64]) -> None:
    made = ET.SubElement(parent, name)
    for axis, value in zip("XYZ", values.tolist(), strict=True):
        _add(made, axis, f"{round(value, 9) + 0.0:.9g}")
