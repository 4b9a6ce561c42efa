"""Faults: troubles and their path, the book, the ear, what the tables know."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import SOUND, operation
from jade_ribbon.core.faults.measured import Measured
from jade_ribbon.core.faults.pairs import Card
from jade_ribbon.core.faults.tapping import Tapped
from jade_ribbon.services.faults import book as books
from jade_ribbon.services.faults import ear, known, troubles
from jade_ribbon.services.faults.answers import TroubleAnswer
from jade_ribbon.services.faults.inputs import (
    AnswerInput,
    AsideInput,
    BeforeQuery,
    BookQuery,
    CloseInput,
    EarQuery,
    InstrumentsInput,
    MeasureInput,
    RemedyInput,
    SignsInput,
    StopInput,
    TappedInput,
    TroubleInput,
    TroubleQuery,
)


@operation("GET", "/api/faults/known", answer=known.FaultsKnown)
def faults_known(session: Session) -> known.FaultsKnown:
    """Signs, causes and what the shop has to check with."""
    return known.known(session)


@operation("GET", "/api/faults/cards", answer=list[Card])
def faults_cards(session: Session) -> list[Card]:
    """Long-standing pairs, for the wall."""
    return known.wall_cards(session)


@operation("GET", "/api/faults", answer=books.Book, query=BookQuery)
def trouble_book(session: Session, query: BookQuery) -> books.Book:
    """The trouble book of the shop, a saw or a band."""
    return books.book(session, query.saw_id, query.band_id, query.before)


@operation("GET", "/api/faults/before", answer=books.Beforehand, query=BeforeQuery)
def faults_before(session: Session, query: BeforeQuery) -> books.Beforehand:
    """What has gone wrong with such work, and what is to be asked."""
    return books.beforehand(session, query.job_id)


@operation("POST", "/api/faults", answer=TroubleAnswer, body=TroubleInput, status=201)
def add_trouble(session: Session, body: TroubleInput) -> TroubleAnswer:
    """Tell a trouble."""
    return troubles.add_trouble(session, body)


@operation("GET", "/api/faults/<int:trouble_id>", answer=TroubleAnswer, query=TroubleQuery)
def read_trouble(session: Session, trouble_id: int, query: TroubleQuery) -> TroubleAnswer:
    """A trouble as it stands, with a check that somebody chose."""
    return troubles.one_trouble(session, trouble_id, query.check)


@operation("POST", "/api/faults/<int:trouble_id>/answer", answer=TroubleAnswer, body=AnswerInput)
def answer_check(session: Session, trouble_id: int, body: AnswerInput) -> TroubleAnswer:
    """What a check came to."""
    return troubles.answer(session, trouble_id, body)


@operation("POST", "/api/faults/<int:trouble_id>/signs", answer=TroubleAnswer, body=SignsInput)
def tell_signs(session: Session, trouble_id: int, body: SignsInput) -> TroubleAnswer:
    """More signs, or signs told otherwise."""
    return troubles.more_signs(session, trouble_id, body)


@operation("POST", "/api/faults/<int:trouble_id>/back", answer=TroubleAnswer)
def take_back_step(session: Session, trouble_id: int) -> TroubleAnswer:
    """Take the last step back."""
    return troubles.back(session, trouble_id)


@operation("POST", "/api/faults/<int:trouble_id>/aside", answer=TroubleAnswer, body=AsideInput)
def set_readings_aside(session: Session, trouble_id: int, body: AsideInput) -> TroubleAnswer:
    """Leave readings of the records out."""
    return troubles.set_aside(session, trouble_id, body)


@operation("POST", "/api/faults/<int:trouble_id>/stop", answer=TroubleAnswer, body=StopInput)
def acknowledge_stop(session: Session, trouble_id: int, body: StopInput) -> TroubleAnswer:
    """A stop acknowledged by name."""
    return troubles.acknowledge(session, trouble_id, body)


@operation(
    "POST",
    "/api/faults/<int:trouble_id>/measure",
    answer=Measured,
    body=MeasureInput,
    asks=True,
)
def measure_check(session: Session, trouble_id: int, body: MeasureInput) -> Measured:
    """Which answer a check's figures are."""
    return troubles.measured(session, trouble_id, body)


@operation("POST", "/api/faults/<int:trouble_id>/remedy", answer=TroubleAnswer, body=RemedyInput)
def remedy_done(session: Session, trouble_id: int, body: RemedyInput) -> TroubleAnswer:
    """A remedy is done."""
    return troubles.remedied(session, trouble_id, body)


@operation("POST", "/api/faults/<int:trouble_id>/still", answer=TroubleAnswer)
def still_there(session: Session, trouble_id: int) -> TroubleAnswer:
    """The remedy did not help."""
    return troubles.still_there(session, trouble_id)


@operation("POST", "/api/faults/<int:trouble_id>/close", answer=TroubleAnswer, body=CloseInput)
def close_trouble(session: Session, trouble_id: int, body: CloseInput) -> TroubleAnswer:
    """Close a trouble with its true causes, or without."""
    return troubles.close(session, trouble_id, body)


@operation("DELETE", "/api/faults/<int:trouble_id>", answer=Changed)
def delete_trouble(session: Session, trouble_id: int) -> Changed:
    """Take a trouble out of the book."""
    return Changed(troubles.delete_trouble(session, trouble_id))


@operation("POST", "/api/faults/instruments", answer=known.FaultsKnown, body=InstrumentsInput)
def set_fault_instruments(session: Session, body: InstrumentsInput) -> known.FaultsKnown:
    """What the shop has to check with."""
    troubles.set_instruments(session, body.has)
    return known.known(session)


@operation(
    "POST",
    "/api/faults/ear",
    answer=ear.EarAnswer,
    query=EarQuery,
    raw_body=True,
    media=SOUND,
    asks=True,
)
def hear_saw(session: Session, body: bytes, query: EarQuery) -> ear.EarAnswer:
    """What turns in the sound of a running saw, and what grew louder."""
    return ear.listen(session, query, body)


@operation(
    "POST",
    "/api/faults/ear/good",
    answer=ear.EarAnswer,
    query=EarQuery,
    raw_body=True,
    media=SOUND,
    status=201,
)
def keep_good_sound(session: Session, body: bytes, query: EarQuery) -> ear.EarAnswer:
    """Keep how a saw sounds while it runs well."""
    return ear.keep_good(session, query, body)


@operation(
    "POST",
    "/api/faults/pluck",
    answer=ear.NoteHeard,
    raw_body=True,
    media=SOUND,
    asks=True,
)
def hear_pluck(session: Session, body: bytes) -> ear.NoteHeard:
    """The note of a plucked band in a recording."""
    return ear.note_of(body)


@operation("POST", "/api/faults/tapped", answer=Tapped, body=TappedInput, asks=True)
def name_tapped_tick(session: Session, body: TappedInput) -> Tapped:
    """What turns at a rate tapped along."""
    return ear.tapped(session, body)
