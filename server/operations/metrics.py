"""Figures of the installation in the open text format of metrics, beside those of its requests."""

from __future__ import annotations

from collections.abc import Iterator

from django.db import DatabaseError
from prometheus_client import REGISTRY
from prometheus_client.core import GaugeMetricFamily
from prometheus_client.registry import Collector

from server.operations.state import figures

_PREFIX = "dunefold_"


class _Figures(Collector):
    def collect(self) -> Iterator[GaugeMetricFamily]:
        try:
            for name, value in figures().items():
                yield GaugeMetricFamily(_PREFIX + name, name.replace("_", " "), value=value)
        except DatabaseError:
            return  # what is known of the requests is told all the same

    def describe(self) -> list[GaugeMetricFamily]:
        """Nothing in advance: the database is not asked before it is there."""
        return []


def register() -> None:
    """Tell these figures with the others."""
    REGISTRY.register(_Figures())
