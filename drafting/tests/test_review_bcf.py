"""Comments as BCF: what is written holds to the schema and is read again; what others write is read, and what
is none refused."""

import io
import tempfile
import zipfile
from pathlib import Path
from unittest import TestCase

import numpy as np
import xmlschema

from drafting.building.axes import Axes
from drafting.errors import SheetError
from drafting.review.bcf_reading import read_bcf
from drafting.review.bcf_writing import Topic, write_bcf
from drafting.review.comments import WrittenAnswer, WrittenComment
from drafting.review.places import Eye

SCHEMAS = Path(__file__).parent / "bcf"
KEY, ANSWER = "0f8fad5b-d9cb-469f-a165-70867728950e", "7c9e6679-7425-40de-944b-e07fc1f90ae7"
SOUTH = Eye((1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, -1.0, 0.0), (0.0, 0.0, 0.0))
STREET = Eye(
    (1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, -1.0, 0.0), (0.0, 0.0, 1500.0), distance=20_000.0, angle=70.0
)
WALL = "1F6umJ5H50aeL3A1As_wVG"


def said(**more):
    given = {
        "key": KEY, "author": "Oda Brand", "made": "2031-05-04T10:20:30+02:00", "number": 3,
        "text": "Is this <opening> wide enough?\nThe crates are 1.10 m.",
        "assigned": "Kim", "due": "2031-06-01", "state": "answered",
        "answers": (WrittenAnswer(ANSWER, "Kim", "2031-05-05T08:00:00+00:00", "It is 1.20 m & more."),),
    }  # fmt: skip
    return WrittenComment(**{**given, **more})


class BcfCase(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "comments.bcf"

    def read(self, data):
        self.file.write_bytes(data)
        return read_bcf(self.file)


class WritingTests(BcfCase):
    def written(self, *topics, axes=None):
        data = write_bcf("2607 Bird observatory", topics, axes or Axes())
        return zipfile.ZipFile(io.BytesIO(data)), data

    def test_markups_and_viewpoints_hold_to_their_schemas(self):
        topics = [
            Topic(said(), "A-01", SOUTH, (1000.0, 0.0, 2500.0), WALL, b"\x89PNG"),
            Topic(
                said(key=ANSWER, text="", answers=(), due="", assigned=""),
                "",
                STREET,
                (0.0, 500.0, 900.0),
                "m",
            ),
            Topic(said(key="mark-7 of a reader", text="x\x00\x0by"), "A-02"),
        ]
        archive, _ = self.written(*topics)
        markup, view = (xmlschema.XMLSchema(SCHEMAS / f"{name}.xsd") for name in ("markup", "visinfo"))
        names = archive.namelist()
        self.assertEqual(sum(name.endswith("markup.bcf") for name in names), 3)
        self.assertEqual(sum(name.endswith(".bcfv") for name in names), 2)
        for name in names:
            if name.endswith("markup.bcf"):
                markup.validate(io.BytesIO(archive.read(name)))
            elif name.endswith(".bcfv"):
                view.validate(io.BytesIO(archive.read(name)))
        self.assertIn(f"{KEY}/snapshot.png", names)

    def test_a_viewpoint_looks_at_the_place_in_the_figures_of_the_file(self):
        # The building's own axes lie a quarter turned and 50 m away in its file.
        axes = Axes((50_000.0, 0.0, 0.0), 90.0)
        archive, _ = self.written(Topic(said(), "A-01", SOUTH, (1000.0, 200.0, 2500.0), WALL), axes=axes)
        view = xmlschema.XMLSchema(SCHEMAS / "visinfo.xsd").to_dict(
            io.BytesIO(archive.read(f"{KEY}/viewpoint.bcfv"))
        )
        camera = view["OrthogonalCamera"]
        eye, way, up = (
            np.array([camera[name][axis] for axis in "XYZ"])
            for name in ("CameraViewPoint", "CameraDirection", "CameraUpVector")
        )
        place = np.array([50.0 - 0.2, 1.0, 2.5])  # (1.0, 0.2) m turned by a quarter, from 50 m
        np.testing.assert_allclose(eye + 10.0 * way, place, atol=1e-9)
        np.testing.assert_allclose(up, [0.0, 0.0, 1.0])
        self.assertEqual(view["Components"]["Selection"]["Component"][0]["@IfcGuid"], WALL)

    def test_what_is_written_is_read_again(self):
        _, data = self.written(Topic(said(), "A-01", SOUTH, (1000.0, 0.0, 2500.0), WALL))
        (topic,) = self.read(data)
        self.assertEqual(topic.elements, (WALL,))
        self.assertEqual(
            (topic.comment.key, topic.comment.author, topic.comment.made), (KEY, "Oda Brand", said().made)
        )
        self.assertIn(said().text, topic.comment.text)
        self.assertEqual(topic.comment.answers, said().answers)
        self.assertEqual(data, self.written(Topic(said(), "A-01", SOUTH, (1000.0, 0.0, 2500.0), WALL))[1])


def bcf(**files):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in {"bcf.version": "<Version VersionId='3.0'/>", **files}.items():
            archive.writestr(name, text)
    return out.getvalue()


class ReadingTests(BcfCase):
    def test_version_3_has_its_comments_within_the_topic(self):
        markup = f"""<Markup><Topic Guid="{KEY.upper()}" TopicType="Issue" TopicStatus="Open">
            <Title>Clash</Title><CreationDate>2031-05-04T10:20:30Z</CreationDate>
            <CreationAuthor>per@voss.invalid</CreationAuthor><Description>Duct through a beam</Description>
            <Comments><Comment Guid="{ANSWER}"><Date>2031-05-05T10:00:00Z</Date><Author>Kim</Author>
            <Comment>Moved.</Comment></Comment></Comments>
            <Viewpoints><ViewPoint Guid="{ANSWER}"><Viewpoint>v.bcfv</Viewpoint></ViewPoint></Viewpoints>
            </Topic></Markup>"""
        view = f"""<VisualizationInfo Guid="{ANSWER}"><Components><Selection>
            <Component IfcGuid="{WALL}"/></Selection><Visibility DefaultVisibility="true"/>
            </Components></VisualizationInfo>"""
        (topic,) = self.read(bcf(**{f"{KEY}/markup.bcf": markup, f"{KEY}/v.bcfv": view}))
        self.assertEqual((topic.comment.key, topic.comment.text), (KEY, "Clash\nDuct through a beam"))
        self.assertEqual([a.text for a in topic.comment.answers], ["Moved."])
        self.assertEqual((topic.elements, topic.comment.made), ((WALL,), "2031-05-04T10:20:30+00:00"))

    def test_ids_and_dates_that_are_none_harm_nothing(self):
        markup = f"""<Markup><Topic Guid="{"x" * 500}"><Title>T</Title>
            <CreationDate>2031-13-45T99:99:99Z</CreationDate></Topic></Markup>"""
        (topic,) = self.read(bcf(**{"x/markup.bcf": markup}))
        self.assertEqual(
            (len(topic.comment.key), topic.comment.made, topic.comment.author), (64, "", "Not named")
        )

    def test_what_is_no_bcf_is_refused_by_name(self):
        bomb = "<!DOCTYPE x [<!ENTITY a 'aaaaaaaaaa'><!ENTITY b '&a;&a;&a;&a;'>]><Markup>&b;</Markup>"
        for data, words in (
            (b"PK\x03\x04 nothing", "damaged, or no BCF"),
            (b"", "damaged, or no BCF"),
            (bcf(**{"x/markup.bcf": "<Markup>"}), "x/markup.bcf"),
            (bcf(**{"x/markup.bcf": bomb}), "cannot be read"),
            (bcf(**{"x/markup.bcf": "<Markup/>"}), "has no topic"),
            (bcf(**{"x/markup.bcf": f"<Markup>{' ' * 6_000_000}</Markup>"}), "far too large"),
        ):
            with self.assertRaisesRegex(SheetError, words):
                self.read(data)
        self.assertEqual(self.read(bcf()), [])
