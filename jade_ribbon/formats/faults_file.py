"""The faults file: signs, readings and answers in; causes and the next checks out."""

from typing import Annotated, Any, Literal

from pydantic import Field

from jade_ribbon.core.faults.diagnosis import Diagnosis, Told, infer
from jade_ribbon.core.faults.next_check import Offer, known_instruments, offers
from jade_ribbon.core.faults.telling import for_and_against
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.validation import Strict, read_json

Key = Annotated[str, Field(max_length=60)]


class FaultsFile(Strict):
    """What is known of a trouble; keys left out are empty, instruments left out are all."""

    format: Literal["jade-ribbon/faults"]
    version: Literal[1]
    symptoms: Annotated[dict[Key, float], Field(max_length=60)] = Field(default_factory=dict)
    reads: Annotated[dict[Key, float], Field(max_length=60)] = Field(default_factory=dict)
    answers: Annotated[dict[Key, Key], Field(max_length=60)] = Field(default_factory=dict)
    instruments: Annotated[list[Key], Field(max_length=40)] | None = None


def diagnose_file(text: str | bytes) -> dict[str, Any]:
    """The answer to a faults file (docs/formats). InputError with every fault."""
    given: FaultsFile = read_json(FaultsFile, text)
    found = infer(Told(given.symptoms, given.reads, given.answers))
    return diagnosis_record(found, offers(found, known_instruments(given.instruments)))


def diagnosis_record(found: Diagnosis, next_checks: tuple[Offer, ...]) -> dict[str, Any]:
    """A diagnosis as plain data: all causes, the likeliest first, and checks, the best first."""
    causes = []
    for place in found.order:
        key = found.knowledge.causes[int(place)]
        spoke = for_and_against(found, key)
        causes.append(
            {
                "key": key,
                "chance": found.chance(key),
                "for": [metric(s.words) for s in spoke.spoke_for],
                "against": [metric(s.words) for s in spoke.against],
            }
        )
    return {
        "causes": causes,
        "none_listed": found.none_listed,
        "entropy_bits": found.entropy_bits,
        "running_withheld": found.running_withheld,
        "next": [
            {
                "check": o.check,
                "bits": o.bits,
                "bits_per_min": o.bits_per_min,
                "minutes": o.minutes,
                "outcomes": [{"key": k, "chance": p} for k, p in o.outcomes],
            }
            for o in next_checks
        ],
    }
