"""Checks: what would embarrass the office on paper, found before anybody prints it."""
