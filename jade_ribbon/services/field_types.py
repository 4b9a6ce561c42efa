"""Words and keys that bodies share, each with its least and greatest length."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Label = Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]
Words = Annotated[str, Field(max_length=2000)]
Person = Annotated[str, Field(max_length=40)]
Id = Annotated[int, Field(ge=1, le=2**53)]


Waited = Annotated[datetime | None, "when it was done, of a write that waited to be sent"]
"""Of a use case that asks for it; None for one that came at once."""


class Query(BaseModel):
    """Base of what an address may ask for beside its path: no unknown names."""

    model_config = ConfigDict(extra="forbid")
