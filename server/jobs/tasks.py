"""What the queue runs."""

from django_tasks import task

from server.jobs import runner
from server.jobs.models import Job


@task()
def run_job(job_id: str) -> None:
    """Run one job; one that was deleted with its project is nothing to do."""
    job = Job.objects.filter(pk=job_id).first()
    if job is not None:
        runner.run(job)
