"""A command on data of whichever version, in one process: `python -m server.config.on_data plot`."""

import os
import sys

import django
from django.core.management import call_command, execute_from_command_line


def main() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    django.setup()
    call_command("migrate", verbosity=0)
    execute_from_command_line(["dunefold", *sys.argv[1:]])


if __name__ == "__main__":
    main()
