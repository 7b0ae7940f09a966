"""The kinds of rows that can be changed in a batch."""

from server.annotations.viewsets import ANNOTATION_STYLES, ANNOTATIONS, LISTED_NOTES, SYMBOLS
from server.checks.viewsets import CHECK_RULES, WAIVERS
from server.issues.viewsets import RECIPIENTS
from server.plots.viewsets import SHEET_LISTS
from server.projects.rows import RowKind
from server.reviews.viewsets import COMMENTS, SCANS
from server.sheets.viewsets import REGISTERS, SHEETS, TEMPLATES, VIEWPORTS
from server.styles.viewsets import PEN_TABLES, PLOT_SETTINGS
from server.touchups.viewsets import TOUCH_UPS
from server.views.viewsets import LINE_SETTINGS, SUBSETS, VIEWS

KINDS: dict[str, RowKind] = {
    "sheets": SHEETS,
    "viewports": VIEWPORTS,
    "annotations": ANNOTATIONS,
    "listed_notes": LISTED_NOTES,
    "annotation_styles": ANNOTATION_STYLES,
    "symbols": SYMBOLS,
    "touch_ups": TOUCH_UPS,
    "views": VIEWS,
    "subsets": SUBSETS,
    "templates": TEMPLATES,
    "registers": REGISTERS,
    "pen_tables": PEN_TABLES,
    "plot_settings": PLOT_SETTINGS,
    "sheet_lists": SHEET_LISTS,
    "line_settings": LINE_SETTINGS,
    "waivers": WAIVERS,
    "check_rules": CHECK_RULES,
    "recipients": RECIPIENTS,
    "comments": COMMENTS,
    "scans": SCANS,
}
