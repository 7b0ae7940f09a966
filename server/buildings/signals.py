"""What others may want to know of buildings."""

from django.dispatch import Signal

#: A version has become the newest. Sent with `version`, and `first`: whether it is the project's first one.
version_added = Signal()
