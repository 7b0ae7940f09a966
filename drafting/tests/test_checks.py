"""Every rule finds what it is there for in a set that breaks it, and nothing in one that does not."""

import math
from dataclasses import replace
from unittest import TestCase

from drafting.annotation.anchors import Anchor
from drafting.annotation.dimensions import Dimension
from drafting.annotation.notes import Note
from drafting.annotation.piece import Location
from drafting.annotation.pieces import PlacedPiece
from drafting.checks.checked import (
    CheckedSet,
    CheckedSheet,
    CheckedView,
    CheckedViewport,
    Datum,
    UnansweredComment,
)
from drafting.checks.findings import SEVERITIES, finding
from drafting.checks.rules import all_rules, check_set
from drafting.geometry.boxes import Box
from drafting.geometry.regions import Rectangle
from drafting.plotting.devices import BY_KEY
from drafting.plotting.pages import page_for
from drafting.plotting.settings import PlotSettings
from drafting.render.backend import Sources
from drafting.render.compose import compose
from drafting.render.items import Drawing, Fill
from drafting.shading.appearance import Appearance, Light
from drafting.sheets.fields import FIELDS, Revision
from drafting.sheets.paper import Paper
from drafting.sheets.picture import Picture
from drafting.sheets.reference_marks import Mark, Reference
from drafting.sheets.scale import Scale
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Part
from drafting.sheets.template_presets import STANDARD
from drafting.sheets.viewport import FoundTouchUp, TouchedUp, Viewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import PAPER
from drafting.styles.redrawn import Redrawn
from drafting.tests.scenes import box, drawn
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.plan import Plan
from drafting.views.received import Received

RULES = {rule.key: rule for rule in all_rules()}
FILLED = {key: f"a {key}" for key in FIELDS} | {"number": "A-01", "title": "Ground floor"}
PLAN = Viewport("v", "", Box(60, 130, 150, 100), Scale.parse("1:100"), (0.0, 0.0), "1", "Plan")
BUILDING = Box(70, 140, 120, 80)
VIEW = CheckedView("p", "Plan", Plan("Ground"), 1)


def sheet(viewports=(PLAN,), *, state="up_to_date", building=BUILDING, pieces=(), settings=None, **more):
    """A sheet that is composed and plotted, and breaks no rule unless something of it is changed."""
    about = {k: more.pop(k) for k in ("template", "pens", "series", "number_warning", "id") if k in more}
    core = Sheet(Paper.of("A3"), more.pop("fields", FILLED), tuple(viewports), **more)
    display = compose(core, pieces=pieces)
    settings = settings or PlotSettings()
    checked = tuple(CheckedViewport(v, "p", state, building) for v in viewports)
    made = CheckedSheet("s", core, display, checked, device=BY_KEY[settings.device])
    return replace(made, page=page_for(core, display, settings), **about)


def one(made, **more):
    return CheckedSet((made,), **{"views": (VIEW,), "storeys": ("Ground",), **more})


def piece(standing, **given):
    chain = Dimension((Anchor((0.0, 0.0)), Anchor((3000.0, 0.0))), **given)
    at = tuple(anchor.at for anchor in chain.points)
    moved = Location(at, standing, "3000 is now 3200")
    location = moved if standing != "followed" else chain.locate(lambda e: None)
    return PlacedPiece("d", chain, location, PLAN)


class RuleTests(TestCase):
    def found(self, key, checked):
        return [finding(RULES[key], each) for each in RULES[key].find(checked)]

    def breaks(self, key, checked, *words):
        found = self.found(key, checked)
        self.assertTrue(found, key)
        for each in words:
            self.assertTrue(any(each in f.words for f in found), [f.words for f in found])
        return found

    def test_a_sound_set_has_no_findings(self):
        self.assertEqual(check_set(one(sheet())), [])

    def test_every_rule_has_a_test_and_a_key_of_its_own(self):
        tested = {name.removeprefix("test_rule_").replace("_", "-") for name in dir(type(self))}
        self.assertEqual(set(RULES) - tested, set())
        self.assertEqual(len(RULES), len(all_rules()))

    def test_rule_drawings_behind(self):
        for state in ("out_of_date", "undrawn"):
            (found,) = self.breaks("drawings-behind", one(sheet(state=state)), "Plan")
            self.assertEqual((found.fix, found.view, found.at), ("draw", "p", PLAN.box.middle))
        self.assertEqual(self.found("drawings-behind", one(sheet(state="held"))), [])

    def test_rule_comments_unanswered(self):
        said = UnansweredComment(3, "Oda Brand", "Is this  wide\nenough? " * 9, "s", (40.0, 50.0))
        checked = replace(one(sheet()), unanswered=(said,))
        (found,) = self.breaks(
            "comments-unanswered", checked, "Comment 3 of Oda Brand", "“Is this wide enough?"
        )
        self.assertEqual((found.sheet, found.at), ("s", (40.0, 50.0)))
        self.assertLess(len(found.words), 130)
        self.assertEqual(self.found("comments-unanswered", one(sheet())), [])

    def test_rule_unreadable(self):
        """What was damaged in the data is an error of its sheet: neither issued nor forgotten."""
        damaged = one(sheet(unreadable=("Touch-up in “Plan” cannot be read: it is missing.",)))
        (found,) = self.breaks("unreadable", damaged, "cannot be read: it is missing. Delete it, or restore")
        self.assertEqual((found.sheet, found.severity), ("s", "error"))
        whole = replace(one(sheet()), uncomposed=(("t", "The template “Ours” cannot be read."),))
        (found,) = self.breaks("unreadable", whole, "It cannot be composed: The template “Ours”")
        self.assertEqual(found.sheet, "t")
        self.assertEqual(self.found("unreadable", one(sheet())), [])

    def test_rule_drawings_held(self):
        self.breaks("drawings-held", one(sheet(state="held")), "older version")

    def test_rule_annotation_lost(self):
        for standing, words in (("changed", "has changed"), ("lost", "is lost")):
            checked = one(sheet(pieces=[piece(standing)]))
            (found,) = self.breaks("annotation-lost", checked, words, "3000 is now 3200")
            self.assertEqual(found.piece, "d")
        self.assertEqual(self.found("annotation-lost", one(sheet(pieces=[piece("followed")]))), [])

    def test_rule_touch_ups_lost(self):
        lost, kept = FoundTouchUp("a", None), FoundTouchUp("b", Redrawn(hidden=True))
        (found,) = self.breaks(
            "touch-ups-lost",
            one(sheet([replace(PLAN, touched=TouchedUp((lost, kept)))])),
            "1 touch-up no longer finds",
        )
        self.assertEqual(found.at, PLAN.box.middle)
        self.assertEqual(
            self.found("touch-ups-lost", one(sheet([replace(PLAN, touched=TouchedUp((kept,)))]))), []
        )

    def test_rule_figures_typed_over(self):
        typed = piece("followed", overrides=("to suit",))
        self.breaks("figures-typed-over", one(sheet(pieces=[typed])), "to suit")
        self.assertEqual(self.found("figures-typed-over", one(sheet(pieces=[piece("followed")]))), [])

    def test_rule_marks_nowhere(self):
        def marked(reference):
            mark = Mark("e", reference, "elevation", (), ((100.0, 120.0),), (0.0, 1.0))
            return one(sheet(marks={"v": ViewportMarks((mark,))}), views=(VIEW, east))

        east = CheckedView("e", "East elevation", Elevation("east"), 1)
        (found,) = self.breaks("marks-nowhere", marked(Reference()), "East elevation")
        self.assertEqual(found.at, (100.0, 120.0))
        self.assertEqual(self.found("marks-nowhere", marked(Reference("1", "A-02"))), [])

    def test_rule_sheet_numbers(self):
        self.breaks("sheet-numbers", one(sheet(number_warning="no A-00")), "no A-00")

    def test_rule_no_title(self):
        self.breaks("no-title", one(sheet(fields=FILLED | {"title": " "})), "title")

    def test_rule_empty_fields(self):
        (found,) = self.breaks("empty-fields", one(sheet(fields=FILLED | {"checker": ""})), "Checked by")
        self.assertEqual(found.subject, "checker")
        optional = one(sheet(fields=FILLED | {"supplementary_title": ""}))
        self.assertEqual(self.found("empty-fields", optional), [])

    def test_rule_typed_over(self):
        (found,) = self.breaks("typed-over", one(sheet(overrides={"scale": "various"})), "various")
        self.assertEqual((found.fix, found.subject), ("restore", "scale"))

    def test_rule_scales_off_ladder(self):
        for scale, wrong in (("1:100", False), ('1/4" = 1\'-0"', False), ("1:133", True)):
            found = self.found("scales-off-ladder", one(sheet([replace(PLAN, scale=Scale.parse(scale))])))
            self.assertEqual(bool(found), wrong, scale)
        free = replace(PLAN, scale=Scale.parse("1:133"), to_scale=False)
        self.assertEqual(self.found("scales-off-ladder", one(sheet([free]))), [])

    def test_rule_cropped_through(self):
        self.breaks("cropped-through", one(sheet(building=Box(40, 140, 120, 80))), "(left)")
        self.breaks("cropped-through", one(sheet(building=Box(40, 100, 300, 80))), "(left, right and bottom)")
        detail = CheckedView("p", "Detail", Detail(Plan("Ground"), Rectangle((0.0, 0.0), (1.0, 1.0))), 1)
        cut = one(sheet(building=Box(40, 140, 120, 80)), views=(detail,))
        self.assertEqual(self.found("cropped-through", cut), [])

    def test_rule_off_frame(self):
        off = replace(PLAN, box=Box(-20, 130, 150, 100))
        (found,) = self.breaks("off-frame", one(sheet([off], building=Box(-15, 140, 100, 60))), "frame")
        over = replace(PLAN, box=Box(250, 20, 150, 60))
        self.breaks("off-frame", one(sheet([over], building=Box(260, 25, 100, 40))), "title block")
        self.assertEqual(found.subject, "frame")
        # A crop may reach anywhere as long as nothing is drawn there.
        empty = replace(PLAN, box=Box(-20, 130, 250, 100))
        self.assertEqual(self.found("off-frame", one(sheet([empty]))), [])

    def test_rule_over_each_other(self):
        second = replace(PLAN, id="w", name="Section", box=Box(180, 130, 150, 100))
        apart = replace(second, box=Box(230, 130, 150, 100))
        for other, building, wrong in ((second, None, True), (apart, None, False), (second, BUILDING, False)):
            made = sheet([PLAN, other], building=building)
            if building:
                beside = (made.viewports[0], replace(made.viewports[1], building=Box(200, 140, 100, 60)))
                made = replace(made, viewports=beside)
            self.assertEqual(bool(self.found("over-each-other", one(made))), wrong)
        covering = sheet([PLAN, replace(second, opaque=True)], building=None)
        self.assertEqual(self.found("over-each-other", one(covering)), [])
        # A surveyor's drawing lies under a plan on purpose.
        survey = CheckedView("w", "Survey", Received(file="0" * 64, name="a.dxf"), 1)
        under = sheet([PLAN, second], building=None)
        under = replace(under, viewports=(under.viewports[0], replace(under.viewports[1], view="w")))
        self.assertEqual(self.found("over-each-other", replace(one(under), views=(survey,))), [])

    def test_rule_text_over_text(self):
        def noted(v):
            near = Dimension((Anchor((0.0, 0.0)), Anchor((3000.0, 0.0))), "horizontal", 10.0)
            far = replace(near, points=(Anchor((200.0, v)), Anchor((3200.0, v))))
            return [PlacedPiece(k, d, d.locate(lambda e: None), PLAN) for k, d in (("a", near), ("b", far))]

        self.breaks("text-over-text", one(sheet(pieces=noted(100.0))), "3000")
        self.assertEqual(self.found("text-over-text", one(sheet(pieces=noted(600.0)))), [])

    def test_rule_too_small(self):
        reduced = PlotSettings(device="office", paper="A4", reduction="paper")
        self.breaks("too-small", one(sheet(settings=reduced)), "mm high", "mm wide")

    def test_rule_cannot_be_plotted(self):
        refused = replace(sheet(), page=None, why_not="The office printer holds no A1.")
        self.breaks("cannot-be-plotted", one(refused), "no A1")
        printed = PlotSettings(device="office", paper="A3")
        self.assertEqual(self.found("cannot-be-plotted", one(sheet(settings=printed))), [])
        note = Note(Anchor((1.0, 100.0)), "Beside the frame")
        beside = PlacedPiece("n", note, note.locate(lambda e: None))
        made = one(sheet(settings=printed, pieces=[beside]))
        self.assertEqual(self.breaks("cannot-be-plotted", made, "office printer")[0].subject, "Notes")

    def test_rule_revision_not_raised(self):
        revised = sheet(fields=FILLED | {"revision": "P02"})
        differs = replace(revised, fingerprint="now", issued=("P02", "then"))
        self.breaks("revision-not-raised", one(differs), "revision P02")
        for fine in (
            replace(revised, fingerprint="now", issued=("P01", "then")),
            replace(revised, fingerprint="now", issued=("P02", "now")),
            replace(revised, fingerprint="now"),
        ):
            self.assertEqual(self.found("revision-not-raised", one(fine)), [])

    def test_rule_views_unplaced(self):
        self.breaks(
            "views-unplaced", one(sheet(), views=(VIEW, replace(VIEW, id="q", places=0))), "placed nowhere"
        )

    def test_rule_storeys_without_plan(self):
        self.breaks("storeys-without-plan", one(sheet(), storeys=("Ground", "Lookout")), "Lookout")
        by_number = replace(VIEW, spec=Plan("0"))
        self.assertEqual(self.found("storeys-without-plan", one(sheet(), views=(by_number,))), [])
        self.breaks("storeys-without-plan", one(sheet(), views=(replace(VIEW, places=0),)), "Ground")

    def test_rule_no_ground_line(self):
        south = replace(VIEW, id="s", name="South elevation", spec=Elevation("south"))
        bare = replace(one(sheet(), views=(VIEW, south)), has_ground=False)
        (found,) = self.breaks("no-ground-line", bare, "South elevation", "Model station")
        self.assertEqual(found.view, "s")
        self.assertEqual(self.found("no-ground-line", replace(bare, has_ground=True)), [])
        unplaced = replace(bare, views=(VIEW, replace(south, places=0)))
        self.assertEqual(self.found("no-ground-line", unplaced), [])

    def test_rule_unlike_in_series(self):
        like = [sheet(id=str(k), template="a", series="A") for k in range(3)]
        other = sheet(id="x", template="b", series="A")
        (found,) = self.breaks("unlike-in-series", CheckedSet((*like, other)), "template")
        self.assertEqual(found.sheet, "x")
        apart = replace(other, series="S")
        self.assertEqual(self.found("unlike-in-series", CheckedSet((*like, apart))), [])

    def test_rule_failed_elements(self):
        self.breaks("failed-elements", one(sheet(), failed=("Cabinet", "Worktop")), "Cabinet", "1 more")
        unplaced = one(sheet(), failed=("Cabinet",), views=(replace(VIEW, places=0),))
        self.assertEqual(self.found("failed-elements", unplaced), [])

    def test_rule_empty_sheets(self):
        self.breaks("empty-sheets", one(sheet([])), "Nothing stands on it")
        self.breaks("empty-sheets", one(sheet(building=Box(300, 10, 20, 20))), "nothing of the building")

    def test_rule_revisions_cut(self):
        many = tuple(Revision(f"P{k:02}", "2026-05-04", "Changed") for k in range(1, 40))
        (found,) = self.breaks("revisions-cut", one(sheet(revisions=many)), "of 39 revisions")
        room = int(found.words.split(" of 39")[0].split()[-1])
        self.assertEqual(self.found("revisions-cut", one(sheet(revisions=many[:room]))), [])

    def test_rule_words_shortened(self):
        self.breaks(
            "words-shortened", one(sheet(fields=FILLED | {"title": "Ground floor " * 30})), "cut short"
        )
        meant = FILLED | {"title": "And so on…"}
        self.assertEqual(self.found("words-shortened", one(sheet(fields=meant))), [])

    def test_an_office_sets_its_own_limits(self):
        self.assertEqual(self.found("too-small", one(sheet())), [])
        strict = one(sheet(), limits={"too-small.text": 2.4, "too-small.line": 0.2})
        self.breaks("too-small", strict, "under 2.4 mm", "under 0.2 mm")
        for rule in RULES.values():
            for limit in rule.limits:
                self.assertTrue(limit.least <= limit.value <= limit.most, limit)

    def test_rule_views_twice(self):
        again = replace(PLAN, id="w", box=Box(230, 130, 60, 60))
        self.breaks("views-twice", one(sheet([PLAN, again])), "more than once at 1:100")
        larger = replace(again, scale=Scale.parse("1:50"))
        self.assertEqual(self.found("views-twice", one(sheet([PLAN, larger]))), [])
        at_noon = replace(again, appearance=Appearance("shaded", light=Light("sun", hour=12.0)))
        self.assertEqual(self.found("views-twice", one(sheet([PLAN, at_noon]))), [])

    def test_rule_register_order(self):
        def numbered(*numbers, series="A"):
            made = (sheet(id=n, series=series, fields=FILLED | {"number": n}) for n in numbers)
            return CheckedSet(tuple(made))

        (found,) = self.breaks("register-order", numbered("A-02", "A-01"), "comes after A-02")
        self.assertEqual(found.sheet, "A-01")
        self.assertEqual(self.found("register-order", numbered("A-2", "A-9", "A-10")), [])
        apart = CheckedSet((*numbered("S-01", series="S").sheets, *numbered("A-01").sheets))
        self.assertEqual(self.found("register-order", apart), [])

    def test_rule_letters_missing(self):
        note = Note(Anchor((100.0, 100.0)), "Ø 12, 東側")
        foreign = PlacedPiece("n", note, note.locate(lambda e: None))
        (found,) = self.breaks("letters-missing", one(sheet(pieces=[foreign])), "東")
        self.assertNotIn("Ø.", found.words)

    def test_rule_coarse_pictures(self):
        shown = replace(STANDARD, parts=(Part("image", -60, 20, -10, 50, picture="p"),))

        def pictured(pixels):
            picture = Picture("png", pixels, pixels * 0.6, key="p")
            core = Sheet(Paper.of("A3"), FILLED, template=shown, pictures={"p": picture})
            display = compose(core)
            return one(CheckedSheet("s", core, display, page=page_for(core, display, PlotSettings())))

        self.breaks("coarse-pictures", pictured(120), "61 pixels to the inch")
        self.assertEqual(self.found("coarse-pictures", pictured(600)), [])

    def test_rule_unlike_units(self):
        feet = replace(PLAN, id="f", scale=Scale.parse('1/8" = 1\'-0"'), box=Box(230, 130, 60, 60))
        other = replace(PLAN, id="m", box=Box(300, 130, 60, 60))
        (found,) = self.breaks("unlike-units", one(sheet([PLAN, feet, other])), "for feet")
        self.assertEqual(found.viewport, "f")
        self.assertEqual(self.found("unlike-units", one(sheet([PLAN, other]))), [])

    def test_rule_unlike_north(self):
        turned = replace(PLAN, id="t", turn=90.0, box=Box(230, 130, 60, 60))
        other = replace(PLAN, id="m", box=Box(300, 130, 60, 60))
        (found,) = self.breaks("unlike-north", one(sheet([PLAN, turned, other])), "turned by 90°")
        self.assertEqual(found.viewport, "t")
        self.assertEqual(self.found("unlike-north", one(sheet([PLAN, other]))), [])

    def test_rule_unlike_levels(self):
        def drawn_from(datum):
            made = sheet()
            viewports = tuple(replace(v, datum=datum) for v in made.viewports)
            return one(
                replace(made, viewports=viewports), datum=Datum((("Ground", 0.0), ("Upper", 3000.0)), 10.0)
            )

        older = drawn_from(Datum((("Ground", 0.0), ("Upper", 2900.0)), 12.0))
        self.breaks("unlike-levels", older, "Upper lies at another level", "north lies elsewhere")
        same = drawn_from(Datum((("Ground", 0.2), ("Attic", 6000.0)), 10.0))
        self.assertEqual(self.found("unlike-levels", same), [])

    def test_rule_names_and_sides(self):
        south = replace(VIEW, name="North elevation", spec=Elevation("south"))
        self.breaks("names-and-sides", one(sheet(), views=(south,)), "south elevation")
        for name in ("South elevation", "Towards the quay"):
            fine = replace(south, name=name)
            self.assertEqual(self.found("names-and-sides", one(sheet(), views=(fine,))), [])

    def drawn_sheet(self, linework, scale, pieces=()):
        """A sheet with one drawing, through the middle of which v = 0 runs."""
        viewport = replace(PLAN, linework="k", scale=Scale.parse(scale), centre=(500.0, 0.0))
        return one(replace(sheet([viewport], pieces=pieces), sources=Sources(lambda key: linework)))

    def test_rule_lines_merge(self):
        boards = drawn([box((x, 0, 0), (x + 18, 300, 900)) for x in range(0, 1000, 20)], "elevation:south")
        self.breaks("lines-merge", self.drawn_sheet(boards, "1:200"), "run together")
        self.assertEqual(self.found("lines-merge", self.drawn_sheet(boards, "1:10")), [])
        walls = drawn([box((x, 0, 0), (x + 300, 300, 900)) for x in (0, 600)], "elevation:south")
        self.assertEqual(self.found("lines-merge", self.drawn_sheet(walls, "1:200")), [])

    def test_rule_text_over_lines(self):
        wall = drawn([box((-2000, 0, 0), (3000, 300, 900))], "elevation:south")

        def below(top):
            """A wall under the plan, whose upper edge lies at a height of the sheet."""
            lower = Viewport(
                "w", "k", Box(60, 30, 150, 95), Scale.parse("1:20"), (500.0, 900.0 - 20 * (top - 77.5)), "2",
                "Wall", title="none",
            )  # fmt: skip
            return one(replace(sheet([PLAN, lower]), sources=Sources(lambda key: wall)))

        titled = next(i for i in below(60).sheets[0].display.flat_items if getattr(i, "text", "") == "Plan")
        self.breaks("text-over-lines", below(titled.at[1] + titled.size / 2), "Plan")
        self.assertEqual(self.found("text-over-lines", below(titled.at[1] - 20)), [])

    def test_rule_marks_over_drawing(self):
        wall = drawn([box((0, 0, 0), (300, 300, 900))], "plan:0@500")
        checked = self.drawn_sheet(wall, "1:20")
        made = checked.sheets[0]
        corner = PLAN.box.middle[0] - 500 / 20, PLAN.box.middle[1]

        def with_bubbles(*places):
            rings = [
                [(x + 4 * math.cos(t / 4), y + 4 * math.sin(t / 4)) for t in range(25)] for x, y in places
            ]
            items = tuple(Fill((tuple(ring),), PAPER, viewport="v") for ring in rings)
            display = replace(made.display, items=made.display.items + items)
            return replace(checked, sheets=(replace(made, display=display),))

        x, y = corner
        self.breaks("marks-over-drawing", with_bubbles((x, y)), "over the drawing")
        self.assertEqual(self.found("marks-over-drawing", with_bubbles((x - 8, y), (x - 8, y + 12))), [])
        self.breaks("marks-over-drawing", with_bubbles((x - 9, y), (x - 9, y + 6)), "over each other")

    def test_rule_cuts_unhatched(self):
        walls = [box((0, 0, 0), (300, 300, 900)), box((600, 0, 0), (900, 300, 900))]
        cut = drawn(walls, "plan:0@500", ["concrete", "felt"])
        checked = self.drawn_sheet(cut, "1:20")
        made = checked.sheets[0]

        def filled(*styles):
            items = tuple(
                replace(item, cuts=styles) if isinstance(item, Drawing) else item
                for item in made.display.items
            )
            return replace(checked, sheets=(replace(made, display=replace(made.display, items=items)),))

        some = CutStyle("concrete", hatch="diagonal")
        self.breaks("cuts-unhatched", filled(some), "“felt”")
        self.assertEqual(self.found("cuts-unhatched", filled(some, CutStyle("", fill="#dddddd"))), [])
        # A table that fills nothing is meant so.
        self.assertEqual(self.found("cuts-unhatched", filled()), [])


class KeyTests(TestCase):
    def test_a_finding_keeps_its_key_while_its_place_and_words_change(self):
        first = one(sheet(pieces=[piece("changed")]))
        moved = replace(PLAN, box=Box(90, 140, 150, 100))
        second = one(sheet([moved], building=None, pieces=[replace(piece("changed"), viewport=moved)]))
        keys = [
            [f.key for f in check_set(checked) if f.rule == "annotation-lost"] for checked in (first, second)
        ]
        self.assertEqual(keys[0], keys[1])

    def test_what_matters_most_comes_first_and_the_register_gives_the_order(self):
        broken = sheet(id="x", state="held", fields=FILLED | {"title": ""})
        found = check_set(CheckedSet((broken, replace(broken, id="y")), views=(VIEW,)))
        order = [(f.sheet, f.severity) for f in found]
        self.assertEqual(order, sorted(order, key=lambda f: (f[0], SEVERITIES.index(f[1]))))
        self.assertIn(("y", "notice"), order)
