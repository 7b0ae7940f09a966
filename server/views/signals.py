"""What others may want to know of views and drawings."""

from django.dispatch import Signal

#: A view asks for another drawing, and so does what draws it otherwise. Sent with `view`.
view_changed = Signal()
#: A drawing is there. Sent with `linework` and `version`, the model version it was drawn from.
linework_ready = Signal()
