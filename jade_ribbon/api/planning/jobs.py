"""Jobs."""

from typing import Any, Literal

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services.bodies import PageQuery
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.planning import jobs
from jade_ribbon.services.planning.inputs import JobInput


class StateInput(Strict):
    """Close a job, or open it again."""

    state: Literal["planned", "done"]


@operation("GET", "/api/jobs", answer=list[jobs.JobAnswer], query=PageQuery)
def list_jobs(session: Session, query: PageQuery) -> list[jobs.JobAnswer]:
    """Open jobs and the latest done ones; further done ones page by page."""
    return jobs.list_jobs(session, query.before)


@operation("POST", "/api/jobs", answer=jobs.JobAnswer, body=JobInput, status=201)
def add_job(session: Session, body: JobInput) -> jobs.JobAnswer:
    """Save a new job."""
    return jobs.add_job(session, body)


@operation("GET", "/api/jobs/<int:job_id>", answer=jobs.JobAnswer)
def one_job(session: Session, job_id: int) -> jobs.JobAnswer:
    """One job."""
    return jobs.one_job(session, job_id)


@operation("PATCH", "/api/jobs/<int:job_id>", answer=jobs.JobAnswer, body=jobs.JobEdit)
def edit_job(session: Session, job_id: int, body: Edit) -> jobs.JobAnswer:
    """Save what was changed of a job."""
    return jobs.save_job(session, job_id, body)


@operation("DELETE", "/api/jobs/<int:job_id>", answer=Changed)
def delete_job(session: Session, job_id: int) -> Changed:
    """Delete a job; it can be undone."""
    return Changed(jobs.delete_job(session, job_id))


@operation("POST", "/api/jobs/<int:job_id>/duplicate", answer=jobs.JobAnswer, status=201)
def duplicate_job(session: Session, job_id: int) -> jobs.JobAnswer:
    """A new job with the same cut."""
    return jobs.duplicate_job(session, job_id)


@operation("POST", "/api/jobs/<int:job_id>/state", answer=jobs.JobAnswer, body=StateInput)
def set_job_state(session: Session, job_id: int, body: StateInput) -> jobs.JobAnswer:
    """Close a job, or open it again."""
    return jobs.finish_job(session, job_id, body.state)


@operation("GET", "/api/jobs/<int:job_id>/file", answer=dict[str, Any])
def export_job(session: Session, job_id: int) -> dict[str, Any]:
    """The job as a job file."""
    return jobs.export_job(session, job_id)


@operation("POST", "/api/jobs/import", answer=jobs.JobAnswer, raw_body=True, status=201)
def import_job(session: Session, body: bytes) -> jobs.JobAnswer:
    """A new job from a job file."""
    return jobs.import_job(session, body)
