"""What annotation refers to: notes of the list, styles, symbols, tables from files, values of elements."""

import uuid

from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile

from server.annotations.models import Annotation, LibrarySymbol
from server.tests.test_annotations import WALL, AnnotationCase

HERE = {"at": [60, 40]}


class ListCase(AnnotationCase):
    def make(self, rows, status=201, **given):
        return self.call("post", f"{rows}/", {"project": self.project, **given}, status)

    def change(self, rows, row, status=200, **to):
        return self.call("patch", f"{rows}/{row['id']}/", {**to, "version": row["version"]}, status)

    def bare(self, spec, status=201):
        return self.add(spec, status, sheet=self.sheet)

    def texts(self):
        items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
        parts = [part for item in items for part in item.get("parts", [item])]
        return [part["text"] for part in parts if part["type"] == "text"]


class NumberedNoteTests(ListCase):
    def test_a_note_of_the_list_is_shown_as_its_number_and_explained_by_a_schedule_of_its_sheet(self):
        oak, gravel, other = (
            self.make("listed-notes", number=number, text=text)
            for number, text in (("N1", "Oak, oiled"), ("N10", "Gravel strip"), ("N2", "Not used here"))
        )
        for note, at in ((gravel, [40, 40]), (oak, [60, 40]), (oak, [80, 40])):
            self.bare({"kind": "numbered", "at": {"at": at}, "note": note["id"], "leader": "none"})
        table = self.bare({"kind": "schedule", "at": {"at": [200, 200]}, "of": "notes"})
        said = self.texts()
        self.assertEqual((said.count("N1"), said.count("N10")), (3, 2))
        self.assertNotIn("Not used here", said)
        # Changed in the list, it is changed wherever it stands.
        self.change("listed-notes", oak, number="A1", text="Oak, waxed")
        said = self.texts()
        self.assertEqual((said.count("A1"), said.count("Oak, waxed"), said.count("N1")), (3, 1, 0))
        rows = self.client.get(f"/api/annotations/{table['id']}/csv/").content.decode("utf-8-sig").split()
        self.assertEqual([row.split(",")[0] for row in rows if "," in row], ["Number", "A1", "N10"])
        self.call("delete", f"listed-notes/{other['id']}/", None, 204)

    def test_a_number_is_given_once_and_a_note_that_is_used_stays(self):
        note = self.make("listed-notes", number="1", text="Oak")
        self.assertIn("already", self.make("listed-notes", 400, number="1")["detail"])
        self.assertIn("number", self.make("listed-notes", 400, number="")["detail"].lower())
        self.bare({"kind": "numbered", "at": HERE, "note": note["id"]})
        answer = self.call("delete", f"listed-notes/{note['id']}/", None, 400)
        self.assertIn("in 1 places", answer["detail"])

    def test_one_of_no_list_or_of_another_project_is_refused(self):
        other = self.make_project("Other")
        foreign = self.call("post", "listed-notes/", {"project": other, "number": "1"}, 201)
        for key in (foreign["id"], str(uuid.uuid4()), "nonsense"):
            spec = {"kind": "numbered", "at": HERE, "note": key}
            self.assertIn("no such note", self.bare(spec, 400)["detail"])


class StyleTests(ListCase):
    def test_whatever_has_a_style_follows_it_and_keeps_its_own_when_that_is_gone(self):
        style = self.make("annotation-styles", name="Large", spec={"of": "text", "size": 5.0})
        self.bare({"kind": "note", "at": HERE, "text": "Oak", "named": style["id"]})

        def size():
            items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
            return next(item["size"] for item in items if item["type"] == "note")

        self.assertEqual(size(), 5.0)
        style = self.change("annotation-styles", style, spec={"of": "text", "size": 7.0, "bold": True})
        self.assertEqual(size(), 7.0)
        self.call("delete", f"annotation-styles/{style['id']}/", None, 204)
        self.assertEqual(size(), 2.5)

    def test_a_style_of_dimensions_letters_what_has_it(self):
        spec = {"of": "dimension", "unit": "metres", "decimals": 3, "fixed": True, "plus": 5, "minus": 5}
        style = self.make("annotation-styles", name="Fine", spec=spec)
        self.add(self.dimension(named=style["id"]))
        self.assertEqual(self.pieces()[0]["text"], "5.000 ±0.005")

    def test_wrong_figures_and_names_given_twice_are_refused(self):
        self.make("annotation-styles", name="Fine", spec={"of": "text"})
        self.assertIn(
            "already", self.make("annotation-styles", 400, name="Fine", spec={"of": "text"})["detail"]
        )
        self.make("annotation-styles", 400, name="Huge", spec={"of": "text", "size": 900})
        self.make("annotation-styles", 400, name="None", spec={"of": "colour"})


class SymbolTests(ListCase):
    DRAWING = {"lines": [{"points": [[0, 0], [10, 0]]}]}

    def test_a_symbol_stands_in_many_places_is_counted_and_changed_in_all_at_once(self):
        symbol = self.make("symbols", name="Hook", spec=self.DRAWING)
        for x in (40, 60, 80):
            self.bare({"kind": "symbol", "at": {"at": [x, 40]}, "symbol": symbol["id"]})
        self.bare({"kind": "schedule", "at": {"at": [200, 200]}, "of": "symbols"})
        self.assertTrue({"Hook", "3"} <= set(self.texts()))

        def widths():
            return [round(piece["box"]["width"]) for piece in self.pieces() if piece["kind"] == "symbol"]

        self.assertEqual(widths(), [10, 10, 10])
        symbol = self.change("symbols", symbol, spec={"lines": [{"points": [[0, 0], [25, 0]]}]})
        self.assertEqual(widths(), [25, 25, 25])
        self.assertIn("3 places", self.call("delete", f"symbols/{symbol['id']}/", None, 400)["detail"])

    def test_those_that_are_built_in_are_there_and_stay_as_they_are(self):
        found = self.call("get", f"symbols/?project={self.project}")
        self.assertGreater(len(found), 10)
        self.assertTrue(all(symbol["built_in"] for symbol in found))
        answer = self.change("symbols", found[0], 400, name="Mine")
        self.assertIn("built in", answer["detail"])
        self.bare({"kind": "symbol", "at": HERE, "symbol": found[0]["id"]})
        self.assertIn(
            "no such symbol", self.bare({"kind": "symbol", "at": HERE, "symbol": "x"}, 400)["detail"]
        )

    def test_symbols_are_read_from_a_file_and_kept_by_whoever_asks(self):
        line = '<path d="M0 0 L96 96" stroke="#000"/>'
        svg = f'<svg xmlns="http://www.w3.org/2000/svg" width="96" height="96">{line}</svg>'
        upload = SimpleUploadedFile("hook.svg", svg.encode())
        (found,) = self.call(
            "post", "symbols/read/", {"project": self.project, "upload": upload}, format="multipart"
        )
        self.assertEqual(found["name"], "hook")
        self.make("symbols", **found)
        self.assertEqual(LibrarySymbol.objects.filter(project=self.project).count(), 1)
        harmful = SimpleUploadedFile("x.svg", b'<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>')
        self.assertIn(
            "x.svg",
            self.call(
                "post", "symbols/read/", {"project": self.project, "upload": harmful}, 400, format="multipart"
            )["detail"],
        )


class TableTests(ListCase):
    def upload(self, content, name="doors.csv", status=201):
        upload = SimpleUploadedFile(name, content)
        body = {"project": self.project, "upload": upload}
        return self.call("post", "table-files/", body, status, format="multipart")

    def test_a_table_from_a_file_says_when_that_is_newer(self):
        file = self.upload("Door;Colour\nD1;grün\n".encode("cp1252"))
        self.assertEqual(file["cells"], [["Door", "Colour"], ["D1", "grün"]])
        spec = {
            "kind": "table",
            "at": HERE,
            "cells": file["cells"],
            "file": file["id"],
            "file_hash": file["hash"],
        }
        made = self.bare(spec)
        self.assertEqual(self.pieces()[0]["standing"], "followed")
        newer = self.upload(b"Door,Colour\nD1,blue\nD2,blue\n")
        self.assertEqual(newer["id"], file["id"])
        (piece,) = self.pieces()
        self.assertEqual((piece["standing"], piece["words"]), ("changed", "“doors.csv” is newer"))
        to = {**made["spec"], "cells": newer["cells"], "file_hash": newer["hash"]}
        self.call("patch", f"annotations/{made['id']}/", {"spec": to, "version": 1})
        self.assertEqual(self.pieces()[0]["standing"], "followed")
        self.assertIn("D2", self.texts())

    def test_sums_are_worked_out_and_a_table_goes_out_as_a_file(self):
        cells = [["Item", "Number"], ["Hooks", "2"], ["Hooks", "3"], ["", "=sum"]]
        made = self.bare({"kind": "table", "at": HERE, "cells": cells, "title": "Fittings"})
        self.assertIn("5", self.texts())
        answer = self.client.get(f"/api/annotations/{made['id']}/csv/")
        self.assertIn("Fittings.csv", answer["Content-Disposition"])
        self.assertEqual(answer.content.decode("utf-8-sig").splitlines()[-1], ",5")
        self.assertEqual(self.client.get(f"/api/annotations/{made['id']}/xlsx/").content[:2], b"PK")

    def test_what_is_no_table_or_too_large_a_one_is_refused(self):
        self.assertIn("5000 rows", self.upload(b"a\n" * 5000, status=400)["detail"])
        self.assertIn("neither", self.upload(b"\0\0", status=400)["detail"])
        self.assertIn(
            "equally long",
            self.bare({"kind": "table", "at": HERE, "cells": [["a"], ["b", "c"]]}, 400)["detail"],
        )
        self.bare({"kind": "table", "at": HERE, "cells": []}, 400)


class ElementTests(ListCase):
    def test_any_element_is_scheduled_by_its_class_and_tagged_with_a_value(self):
        spec = {
            "kind": "schedule", "at": {"at": [200, 200]}, "of": "elements", "classes": ["IfcWall"],
            "columns": [{"source": "Name"}, {"source": "Material"}, {"source": "Length"}],
        }  # fmt: skip
        self.bare(spec)
        self.assertTrue({"Wall", "Stone", "5000"} <= set(self.texts()))
        tag = {
            "kind": "tag",
            "at": {"at": self.anchors()[0]["at"], "element": WALL},
            "shows": "value",
            "source": "Material",
        }
        self.add(tag)
        self.assertEqual(self.pieces()[0]["text"], "Stone")
        self.assertIn("have a number and a size", self.add({**tag, "shows": "number"}, 400)["detail"])

    def test_all_elements_of_a_class_are_tagged_at_once(self):
        names = self.call("get", f"annotations/classes/?viewport={self.viewport}")["names"]
        self.assertEqual(names, ["IfcWall"])
        body = {"viewport": self.viewport, "classes": names, "shows": "value", "value": "Name"}
        (tag,) = self.call("post", "annotations/tags/", body)
        self.assertEqual((tag["at"]["element"], tag["source"]), (WALL, "Name"))
        self.call("post", "annotations/tags/", {**body, "classes": ["IfcStair"]}, 400)

    def test_fields_of_a_note_follow_sheet_and_element(self):
        spec = {
            "kind": "note",
            "at": self.anchors()[0],
            "text": "{Name} of {material} on {Sheet number}, {nothing}",
        }
        self.add(spec)
        number = self.call("get", f"sheets/{self.sheet}/")["number"]
        self.assertEqual(self.pieces()[0]["text"], f"Wall of Stone on {number}, {{nothing}}")

    def test_a_chain_is_made_along_a_line_across_walls(self):
        u0, v0, u1, v1 = self.view_extents()
        middle = (u0 + u1) / 2
        body = {"viewport": self.viewport, "start": [middle, v0 - 500], "end": [middle, v1 + 500]}
        chain = self.call("post", "annotations/inner-chain/", body)
        self.assertEqual((len(chain["points"]), chain["measures"]), (2, "vertical"))
        self.add(chain)
        self.assertEqual(self.pieces()[0]["text"], "200")
        body["end"] = [middle, v0 - 400]
        self.assertIn("crosses no walls", self.call("post", "annotations/inner-chain/", body, 400)["detail"])

    def view_extents(self):
        return self.call("get", f"views/{self.view}/")["extents"]


class ShapeTests(ListCase):
    LINE = {"kind": "shape", "form": "line", "points": [{"at": [0, 0]}, {"at": [40, 0]}]}

    def test_shapes_are_changed_by_whoever_asks_and_kept_where_they_are_wanted(self):
        body = {"project": self.project, "shapes": [self.LINE], "edit": "offset", "by": 5}
        (made,) = self.call("post", "annotations/edit-shapes/", body)
        self.assertEqual([point["at"] for point in made["points"]], [[0.0, 5.0], [40.0, 5.0]])
        body = {"project": self.project, "shapes": [self.LINE, self.LINE], "edit": "extend"}
        self.assertIn("parallel", self.call("post", "annotations/edit-shapes/", body, 400)["detail"])
        self.call(
            "post", "annotations/edit-shapes/", {"project": self.project, "shapes": [], "edit": "join"}, 400
        )
        for form in ("arc", "ellipse"):
            no_shape = {"form": form, "points": [{"at": [0.0, 0.0]}, {"at": [0.0, 0.0]}]}
            for address, more in (
                ("annotations/edit-shapes/", {"edit": "join"}),
                ("symbols/from-shapes/", {"name": "x"}),
            ):
                said = self.call(
                    "post", address, {"project": self.project, "shapes": [no_shape], **more}, 400
                )["detail"]
                self.assertIn("3 points or more", said)
        far = {**self.LINE, "points": [{"at": [1e300, 0.0]}, {"at": [0.0, -1e308]}]}
        self.call(
            "post", "symbols/from-shapes/", {"project": self.project, "name": "x", "shapes": [far]}, 400
        )
        self.assertEqual(Annotation.objects.count(), 0)

    def test_nothing_is_computed_without_end_nor_for_whoever_does_not_draw_there(self):
        long = {**self.LINE, "points": [{"at": [float(k), 0.0]} for k in range(500)]}
        body = {"project": self.project, "shapes": [long] * 40, "edit": "array", "to": [1, 1], "count": 200}
        said = self.call("post", "annotations/edit-shapes/", body, 400)["detail"]
        self.assertIn("4,020,000 points", said)
        odd = get_user_model().objects.create_user("odd", password="samphire-89")
        self.client.force_login(odd)
        for address in ("annotations/edit-shapes/", "symbols/from-shapes/"):
            more = {"name": "x", "edit": "join"}
            self.call("post", address, {"project": self.project, "shapes": [self.LINE], **more}, 400)

    def test_a_symbol_is_made_of_shapes_by_whoever_asks(self):
        body = {"project": self.project, "name": "Bar", "shapes": [self.LINE]}
        found = self.call("post", "symbols/from-shapes/", body)
        self.assertEqual(found["spec"]["lines"][0]["points"], [[-20.0, 0.0], [20.0, 0.0]])
        self.make("symbols", **found)

    def test_a_shape_in_a_view_is_seen_in_every_viewport_of_it(self):
        u0, v0, u1, v1 = self.call("get", f"views/{self.view}/")["extents"]
        ends = [{"at": [u0, v0]}, {"at": [u1, v1]}]
        spec = {"kind": "shape", "form": "rectangle", "points": ends, "fill": "#e8e4da", "opacity": 50}
        self.add(spec, view=self.view)
        self.place(scale="1:100", at=[300, 200])
        widths = sorted(round(piece["box"]["width"], 1) for piece in self.pieces())
        self.assertEqual(widths, [50.0, 100.0])

    def test_pieces_keep_their_group_and_order(self):
        made = self.bare({**self.LINE, "points": [{"at": [10, 10]}, {"at": [50, 10]}]})
        changed = self.change("annotations", made, group="g1", position=7)
        self.assertEqual((changed["group"], changed["position"]), ("g1", 7))
