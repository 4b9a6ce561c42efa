"""Runs."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.services.running import runs
from jade_ribbon.services.running.inputs import RunInput


@operation("GET", "/api/jobs/<int:job_id>/run", answer=runs.RunCard)
def run_card(session: Session, job_id: int) -> runs.RunCard:
    """May this job run, and what stands in the way."""
    return runs.run_card(session, job_id)


@operation("POST", "/api/runs", answer=runs.RunAnswer, body=RunInput, status=201)
def log_run(session: Session, body: RunInput) -> runs.RunAnswer:
    """Log a run; sent again with the same key it counts once."""
    return runs.log_run(session, body)


@operation("POST", "/api/runs/<int:run_id>/confirm", answer=runs.RunAnswer)
def confirm_run(session: Session, run_id: int) -> runs.RunAnswer:
    """Believe a run that was asked about."""
    return runs.confirm_run(session, run_id)


@operation("DELETE", "/api/runs/<int:run_id>", answer=Changed)
def delete_run(session: Session, run_id: int) -> Changed:
    """Take a run back; it can be undone."""
    return Changed(runs.delete_run(session, run_id))
