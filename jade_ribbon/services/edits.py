"""An edit: the version of the record it was made on, and only the fields changed."""

from datetime import datetime
from typing import Any, TypeVar

from pydantic import Field, ValidationError, create_model

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.validation import Strict, faults_of
from jade_ribbon.services.errors import StaleError

M = TypeVar("M", bound=Strict)


class Edit(Strict):
    """Fields left out stay as they are."""

    version: int = Field(ge=0, le=2**53)

    def sent(self) -> dict[str, Any]:
        """The fields that were sent."""
        return self.model_dump(exclude_unset=True, exclude={"version"})

    def onto(self, model: type[M], current: dict[str, Any], version: int) -> M:
        """The whole record with the changes in it.

        StaleError when the record is of another version by now; InputError.
        """
        if self.version != version:
            ready = {k: v.isoformat() if isinstance(v, datetime) else v for k, v in current.items()}
            raise StaleError(version, ready)
        try:
            return model.model_validate(current | self.sent())
        except ValidationError as error:
            raise InputError(faults_of(error, model)) from None


def edit_of(model: type[Strict]) -> type[Edit]:
    """The edit of a record: any of its fields, each as the record has it."""
    fields: dict[str, Any] = {
        name: (field.annotation | None, None)  # type: ignore[operator]
        for name, field in model.model_fields.items()
    }
    name = f"{model.__name__.removesuffix('Input')}Edit"
    return create_model(name, __base__=Edit, __module__=__name__, **fields)
