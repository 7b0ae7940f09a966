"""Where sheets, viewports, templates and the register are."""

from django.urls import path
from rest_framework.routers import SimpleRouter

from server.sheets.viewsets import (
    FieldsView,
    LadderView,
    PictureViewSet,
    RegisterViewSet,
    ShadedPictureView,
    SheetViewSet,
    TemplateViewSet,
    ViewportViewSet,
)

router = SimpleRouter()
router.register("sheets", SheetViewSet, "sheet")
router.register("viewports", ViewportViewSet, "viewport")
router.register("templates", TemplateViewSet, "template")
router.register("pictures", PictureViewSet, "picture")
router.register("registers", RegisterViewSet, "register")
urlpatterns = [
    *router.urls,
    path("ladder/", LadderView.as_view()),
    path("fields/", FieldsView.as_view()),
    path("shaded-pictures/<str:key>/", ShadedPictureView.as_view()),
]
