"""Reviews as a Django app."""

from django.apps import AppConfig


class ReviewsConfig(AppConfig):
    name = "server.reviews"

    def ready(self) -> None:
        from server.checks.services import register_comments
        from server.common.pruning import register_files
        from server.jobs.models import Job
        from server.jobs.runner import register
        from server.reviews import asking, commenting, picturing, reading, scanning
        from server.reviews import models as rows

        register(Job.Kind.REVIEW, asking.prepare)
        register(Job.Kind.COMMENTS, reading.read)
        register(Job.Kind.PICTURE, picturing.make)
        register(Job.Kind.SCAN, scanning.lay)
        register_comments(commenting.unanswered)
        register_files(rows.Review, "pdf", of="project")
        register_files(rows.ReviewSheet, "state", "tiles", "places", of="review__project")
        register_files(rows.CommentPicture, "file", of="comment__project")
        register_files(rows.CommentFile, "source", of="job__project")
        register_files(rows.Scan, "file", of="sheet__project")
        register_files(rows.ScanFile, "source", of="job__project")
