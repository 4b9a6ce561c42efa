"""The core's own fixtures."""

from typing import Any

import pytest

from jade_ribbon.core.job import Job
from jade_ribbon.formats.job import JobFile


@pytest.fixture
def job(job_file: dict[str, Any]) -> Job:
    """The example job as the core sees it: larch resawn on a shop saw, built-in band types."""
    return JobFile.model_validate(job_file).to_core()
