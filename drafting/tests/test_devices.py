"""Which sheets a device takes, and how much of them it prints on."""

from unittest import TestCase

from drafting.geometry.boxes import Box
from drafting.plotting.devices import DEVICES
from drafting.sheets.paper import Paper
from drafting.sheets.template import Blank
from drafting.sheets.template_presets import STANDARD

FILE, OFFICE, ROLL = DEVICES


class DeviceTests(TestCase):
    def test_a_file_has_no_margins_and_takes_every_size(self):
        paper = Paper.of("2000 x 1000")
        self.assertEqual((FILE.takes(paper), FILE.printable(paper)), (True, Box(0, 0, 2000, 1000)))

    def test_the_office_printer_ends_at_a3_and_keeps_5_mm(self):
        self.assertEqual([OFFICE.takes(Paper.of(name)) for name in ("A4", "A3", "A2")], [True, True, False])
        self.assertEqual(OFFICE.printable(Paper.of("A3")), Box(5, 5, 410, 287))

    def test_a_roll_has_other_margins_at_its_ends_and_no_length(self):
        self.assertTrue(ROLL.takes(Paper.of("A0")) and ROLL.takes(Paper.of("2500 x 900")))
        self.assertFalse(ROLL.takes(Paper.of("1200 x 1000")))
        self.assertEqual(ROLL.printable(Paper.of("A1")), Box(17, 5, 841 - 34, 594 - 10))
        self.assertEqual(ROLL.printable(Paper.of("A1", "portrait")), Box(5, 17, 594 - 10, 841 - 34))

    def test_the_standard_frame_is_printed_whole_by_the_office_printer(self):
        paper = Paper.of("A3")
        self.assertTrue(OFFICE.printable(paper).holds(Blank(paper, STANDARD).frame))
