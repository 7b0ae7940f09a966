"""Sheets as a Django app."""

from django.apps import AppConfig


class SheetsConfig(AppConfig):
    name = "server.sheets"
