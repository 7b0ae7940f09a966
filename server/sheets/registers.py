"""Changing the register of a project: what holds for all of its sheets."""

from __future__ import annotations

from drafting.sheets.numbering import Pattern
from server.common.rows import Memo, RowService
from server.sheets.models import Register
from server.sheets.shading import order_pictures


class RegisterService(RowService[Register]):
    model = Register

    def check(self, row: Register, changed: set[str], memo: Memo) -> None:
        Pattern(row.number_pattern)

    def updated(self, row: Register, before: Register, changed: set[str], memo: Memo) -> None:
        if {"palette", "layer_palette"} & changed:
            order_pictures(row.project)


register_service = RegisterService()
