"""What others may want to know of views and drawings."""

from django.dispatch import Signal

#: A view asks for another drawing, and so does what draws it otherwise. Sent with `view`.
view_changed = Signal()
#: A drawing is there. Sent with `linework` and `version`, the model version it was drawn from.
linework_ready = Signal()
#: A view is told in new axes. Sent with `view` as it was and `where`, the core's OnPaper, None where its
#: drawing shows something else than before.
axes_changed = Signal()
