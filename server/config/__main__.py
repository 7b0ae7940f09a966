"""The web process: `python -m server.config --port 8000 [--proxy ADDRESS]`.

It stands in a file of this name because the processes that it starts import what the main module is made of
again, and this file never: so none of them becomes a web server too.
"""

from __future__ import annotations

import argparse
import sys

from server.common import beside
from server.config.web import web_server

#: How long a thread may keep the interpreter while others wait for it, seconds. Each question to the database
#: gives it away, and has to wait so long to have it again.
SWITCHING = 0.0005


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--proxy", default="")
    given = parser.parse_args()
    beside.end_with_launcher()
    sys.setswitchinterval(SWITCHING)
    beside.freeze_what_is_there()
    web_server(port=given.port, proxy=given.proxy).run()


if __name__ == "__main__":
    main()
