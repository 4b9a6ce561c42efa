"""What bringing records in takes: which table a text is of."""

from typing import Literal

from pydantic import BaseModel, ConfigDict


class FileQuery(BaseModel):
    """A table of records."""

    model_config = ConfigDict(extra="forbid")

    table: Literal["bands", "types", "runs", "events", "materials"]
