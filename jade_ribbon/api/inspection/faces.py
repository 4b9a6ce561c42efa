"""Faces read, kept and advised on; the caliper's stand-in."""

from typing import cast

from flask import current_app
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.services.inspection import faces, probing
from jade_ribbon.services.inspection.inputs import FaceInput, ProbeInput
from jade_ribbon.services.setup.instruments import Instruments


def _instruments() -> Instruments:
    return cast(Instruments, current_app.extensions["instruments"])


@operation("GET", "/api/jobs/<int:job_id>/faces", answer=faces.FacePage)
def face_page(session: Session, job_id: int) -> faces.FacePage:
    """What Inspect shows of a job: earlier faces, and what its saw has taught."""
    return faces.face_page(session, job_id, caliper=probing.is_chosen(session))


@operation("POST", "/api/faces", answer=faces.FaceAnswer, body=FaceInput, status=201)
def add_face(session: Session, body: FaceInput) -> faces.FaceAnswer:
    """Keep a face as read: its parts, what to change, and what it teaches."""
    return faces.add_face(session, body)


@operation("DELETE", "/api/faces/<int:face_id>", answer=Changed)
def delete_face(session: Session, face_id: int) -> Changed:
    """Take a face back, and what it taught; it can be undone."""
    return Changed(faces.delete_face(session, face_id))


@operation(
    "POST", "/api/jobs/<int:job_id>/probe", answer=probing.Probed, body=ProbeInput, asks=True
)
def probe(session: Session, job_id: int, body: ProbeInput) -> probing.Probed:
    """One reading of the caliper at a place of the piece."""
    return probing.probe(session, _instruments(), job_id, body)
