"""Touch-ups for administrators."""

from django.contrib import admin

from server.touchups.models import TouchUp

admin.site.register(TouchUp)
