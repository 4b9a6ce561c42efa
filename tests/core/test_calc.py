"""Every worked case must come out to the tolerance its file states."""

import inspect
import json
import math
import re
from pathlib import Path
from typing import Any

import pytest

from jade_ribbon.core.calc import CALCULATIONS, calculate
from tests.support.shop import VECTORS

FILES = sorted(VECTORS.glob("*.json"))
CASES = [
    pytest.param(d["calc"], c["in"], c["out"], d["rel_tol"], d["abs_tol"], id=f"{d['calc']}-{i}")
    for d in (json.loads(f.read_text()) for f in FILES)
    for i, c in enumerate(d["cases"])
]


def assert_same(got: Any, want: Any, rel: float, abs_: float, where: str) -> None:
    if isinstance(want, dict):
        assert set(got) == set(want), where
        for key in want:
            assert_same(got[key], want[key], rel, abs_, f"{where}.{key}")
    elif isinstance(want, list):
        assert len(got) == len(want), where
        for i, each in enumerate(want):
            assert_same(got[i], each, rel, abs_, f"{where}.{i}")
    elif isinstance(want, float | int) and not isinstance(want, bool):
        assert math.isclose(got, want, rel_tol=rel, abs_tol=abs_), f"{where}: {got} != {want}"
    else:
        assert got == want, where


@pytest.mark.parametrize(("name", "given", "want", "rel", "abs_"), CASES)
def test_worked_case(name: str, given: Any, want: Any, rel: float, abs_: float) -> None:
    assert_same(calculate(name, given), want, rel, abs_, name)


def test_every_calculation_has_worked_cases() -> None:
    assert {json.loads(f.read_text())["calc"] for f in FILES} == set(CALCULATIONS)


def test_every_calculation_and_every_vector_tell_their_source() -> None:
    model = (Path(__file__).parents[2] / "docs" / "model.md").read_text()
    sections = re.sub(r"[*#]", "", " ".join(model.split()))
    for name, formula in CALCULATIONS.items():
        words = " ".join((inspect.getdoc(formula) or "").split())
        assert "Source: " in words, name
        for section in re.findall(r'docs/model,? "([^"]+)"', words):
            assert section in sections, (name, section)
    assert all(json.loads(f.read_text())["source"] for f in FILES)
