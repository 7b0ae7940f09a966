"""What the queue runs, and how a job gets into it."""

from django_tasks import task

from server.jobs import runner
from server.jobs.models import Job

#: Names of the queues. Drawings and single sheets do not wait for building files and sets.
SHORT, LONG = "short", "long"
#: The lowest priority that the queue has.
_LOWEST = -100


@task(queue_name=SHORT)
def run_job(job_id: str) -> None:
    """Run one job; one that was deleted with its project is nothing to do."""
    job = Job.objects.filter(pk=job_id).first()
    if job is not None:
        runner.run(job)


def enqueue(job: Job) -> None:
    """Put a waiting job into the queue, in the present transaction.

    The more of its project waits there, the later it comes: a project with many jobs does not hold up one
    with few.
    """
    before = Job.objects.filter(project_id=job.project_id, state=Job.State.WAITING)
    waiting = len(before.exclude(pk=job.pk).values_list("pk")[:-_LOWEST])
    run_job.using(queue_name=LONG if job.long else SHORT, priority=-waiting).enqueue(str(job.pk))
