"""Tests."""

import logging

# Everybody signs in all the time here; what is logged of it is tested by itself.
logging.getLogger("server.security").setLevel(logging.ERROR)
