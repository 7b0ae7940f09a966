"""`dunefold check-data`: whether the data are whole."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from server.common.backup import check_data


class Command(BaseCommand):
    help = "Compare every file with its hash and check the database."

    def handle(self, *args: Any, **options: Any) -> None:
        found = check_data()
        for sentence in found.wrong:
            self.stderr.write(sentence)
        if found.wrong:
            raise CommandError(f"{len(found.wrong)} faults; {found.files} files are whole.")
        self.stdout.write(f"{found.files} files, {found.size / 1e6:.1f} MB, and the database are whole")
