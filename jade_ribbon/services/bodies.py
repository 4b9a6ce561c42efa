"""Words and keys that bodies share, each with its least and greatest length."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Label = Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]
Words = Annotated[str, Field(max_length=2000)]
Person = Annotated[str, Field(max_length=40)]
Id = Annotated[int, Field(ge=1, le=2**53)]


class PageQuery(BaseModel):
    """The page after a record of the one before; the first where none is named."""

    model_config = ConfigDict(extra="forbid")

    before: Id | None = None
