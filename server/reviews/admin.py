"""Reviews for administrators."""

from django.contrib import admin

from server.reviews.models import Comment, LinkUse, Review, ReviewLink


@admin.register(Review)
class ReviewAdmin(admin.ModelAdmin[Review]):
    list_display = ["name", "project", "asked_by", "asked", "until", "withdrawn"]
    readonly_fields = ["word", "pdf"]


@admin.register(ReviewLink)
class ReviewLinkAdmin(admin.ModelAdmin[ReviewLink]):
    list_display = ["review", "name"]
    readonly_fields = ["digest"]


admin.site.register([Comment, LinkUse])
