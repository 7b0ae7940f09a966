"""Plots for administrators."""

from django.contrib import admin

from server.plots.models import DeviceState, Plot, Print, SheetList

admin.site.register([SheetList, Plot, DeviceState, Print])
