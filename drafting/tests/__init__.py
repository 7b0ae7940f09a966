"""Tests of the core."""

from hypothesis import settings

# How long something takes on a machine that is busy is no fact about the job.
settings.register_profile("without deadline", deadline=None)
settings.load_profile("without deadline")
