"""What money views take: a way of looking, from one month to another."""

from typing import Annotated, Literal

from pydantic import Field

from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.field_types import Id, Query

Month = Annotated[str, Field(pattern=r"^[0-9]{4}-(0[1-9]|1[0-2])$")]


class MoneyQuery(Query):
    """How to look at the record, and over which months, as 2026-03."""

    by: Literal["steel", "type", "material", "saw", "month", "person"] = "month"
    since: Month | None = None
    until: Month | None = None


class RunsQuery(MoneyQuery):
    """Which group's runs."""

    key: Annotated[str, Field(max_length=120)]


class AllRoundInput(Strict):
    """Jobs of one saw, and whether to look among the rack or the types to buy."""

    saw_id: Id
    job_ids: Annotated[list[Id], Field(min_length=1, max_length=20)]
    among: Literal["rack", "types"] = "rack"


class PaybackInput(Strict):
    """An accessory, and what it costs."""

    accessory: Annotated[str, Field(max_length=20)]
    price: Annotated[float, entry("money")] | None = None
