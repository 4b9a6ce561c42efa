"""Every calculation by name, for the command line and the measured vectors."""

import dataclasses
import inspect
from collections.abc import Callable, Mapping
from typing import Any

from jade_ribbon.core.inspection import thickness
from jade_ribbon.core.mechanics import (
    bending,
    cutting,
    drift,
    feed,
    geometry,
    life,
    lots,
    slicing,
    speed,
    stiffness,
    straightness,
    tension,
    wear,
)
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.fields import RANGES

CALCULATIONS: Mapping[str, Callable[..., Any]] = {
    f.__name__: f
    for f in (
        geometry.band_geometry,
        geometry.min_radius,
        geometry.widest_for_radius,
        tension.tension,
        tension.stress_from_gauge,
        tension.side_push,
        tension.pluck_frequency,
        tension.stress_from_pluck,
        bending.wheel_bending,
        bending.bending_fatigue,
        speed.band_speed,
        speed.drive_speed,
        speed.drive_hz_for_speed,
        cutting.bite,
        cutting.cutting_power,
        feed.feed_window,
        stiffness.stability_limit,
        stiffness.edge_slack,
        straightness.straightness,
        wear.contact_length,
        life.life_posterior,
        life.survival,
        lots.lot_forecast,
        thickness.thickness_map,
        drift.drift,
        slicing.slicing,
    )
}


def _shape_faults(formula: Callable[..., Any], given: object) -> list[Fault]:
    """Missing and unknown keys of one case."""
    if not isinstance(given, Mapping):
        return [Fault("", "give an object of named inputs", given)]
    parameters = inspect.signature(formula).parameters
    required = {n for n, p in parameters.items() if p.default is inspect.Parameter.empty}
    missing = [
        Fault(n, f"is missing; accepted: {RANGES[n].words() if n in RANGES else 'a list'}")
        for n in sorted(required - set(given))
    ]
    unknown = [
        Fault(str(n), f"is not an input of this calculation; accepted: {', '.join(parameters)}")
        for n in given
        if n not in parameters
    ]
    lists = [
        Fault(n, "give a list", given[n])
        for n in ("readings", "retired_m", "running_m")
        if n in parameters and n in given and not isinstance(given[n], list)
    ]
    nested = [
        Fault(f"readings.{i}", "give three numbers: along, up, thickness", r)
        for i, r in enumerate(given.get("readings", []) if not lists else [])
        if not isinstance(r, list)
    ]
    return missing + unknown + lists + nested


ABSENT = ("feed_force_limit_N",)
"""Outputs that are left out when there is none, instead of null."""


def _without_absent(outputs: dict[str, Any]) -> dict[str, Any]:
    return {k: v for k, v in outputs.items() if not (k in ABSENT and v is None)}


def calculate(name: str, given: object) -> dict[str, Any]:
    """Run one calculation by name on one object of inputs; outputs keyed as in the vectors.

    Raises InputError for an unknown name, missing, unknown or out-of-range inputs.
    """
    formula = CALCULATIONS.get(name)
    if formula is None:
        known = ", ".join(sorted(CALCULATIONS))
        raise InputError([Fault("name", f"{name!r} is not a calculation; accepted: {known}")])
    faults = _shape_faults(formula, given)
    if faults:
        raise InputError(faults)
    assert isinstance(given, Mapping)
    try:
        return _without_absent(dataclasses.asdict(formula(**given)))
    except (OverflowError, ZeroDivisionError) as problem:
        raise InputError(
            [Fault("", f"the result is not a finite number for these inputs ({problem})")]
        ) from problem


def calculate_all(name: str, cases: object) -> list[dict[str, Any]]:
    """Run a list of cases; faults carry the index of their case."""
    if not isinstance(cases, list):
        raise InputError([Fault("", "give a JSON list of input objects", None)])
    results: list[dict[str, Any]] = []
    faults: list[Fault] = []
    for i, case in enumerate(cases):
        try:
            results.append(calculate(name, case))
        except InputError as error:
            faults += [f.under(str(i)) for f in error.faults]
    if faults:
        raise InputError(faults)
    return results
