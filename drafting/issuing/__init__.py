"""Issuing: what leaves the office, frozen as it was, and what is said of it."""
