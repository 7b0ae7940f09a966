"""Loads the demo project.

python -m demo.load
"""

import os

import django


def main() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    django.setup()
    from demo.project import load  # its models are there only once Django is set up

    print("dunefold: the demo project is loaded." if load() else "dunefold: the demo project is there.")


if __name__ == "__main__":
    main()
