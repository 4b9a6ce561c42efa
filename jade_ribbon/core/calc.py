"""Every calculation by name, for the command line and the measured vectors."""

import dataclasses
import inspect
from collections.abc import Callable, Mapping
from typing import Any

from jade_ribbon.core.edge import dullness
from jade_ribbon.core.faults import next_check, ridges
from jade_ribbon.core.inspection import evidence, thickness
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
from jade_ribbon.core.money import change_now, regrind_or_replace, reorder
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.formula_limits import RANGES, fault_in
from jade_ribbon.core.stock import billets, joinery, logs

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
        evidence.side_share_posterior,
        evidence.energy_posterior,
        logs.log_boards,
        ridges.ridge_source,
        next_check.diagnose,
        billets.bowed_billet,
        joinery.segment_gap,
        joinery.pivot,
        change_now.change_now,
        dullness.dullness_from_feed,
        dullness.dullness_combined,
        regrind_or_replace.sharpen_plan,
        reorder.reorder_point,
    )
}


def _accepted(name: str, parameter: inspect.Parameter) -> str:
    """What an input may be, in words."""
    if name in RANGES:
        return RANGES[name].words()
    return "an object" if "Mapping" in str(parameter.annotation) else "a list"


def _shape_faults(formula: Callable[..., Any], given: object) -> list[Fault]:
    """Missing and unknown keys of one case."""
    if not isinstance(given, Mapping):
        return [Fault("", "give an object of named inputs", given)]
    parameters = inspect.signature(formula).parameters
    required = {n for n, p in parameters.items() if p.default is inspect.Parameter.empty}
    missing = [
        Fault(n, f"is missing; accepted: {_accepted(n, parameters[n])}")
        for n in sorted(required - set(given))
    ]
    unknown = [
        Fault(str(n), f"is not an input of this calculation; accepted: {', '.join(parameters)}")
        for n in given
        if n not in parameters
    ]
    lists = [
        Fault(n, "give a list", given[n])
        for n in ("readings", "retired_m", "running_m", "observed")
        if n in parameters and n in given and not isinstance(given[n], list)
    ]
    nested = [
        Fault(f"readings.{i}", "give three numbers: along, up, thickness", r)
        for i, r in enumerate(given.get("readings", []) if not lists else [])
        if not isinstance(r, list)
    ]
    return missing + unknown + lists + nested


OBSERVED: Mapping[str, type[Any]] = {
    "side_share_posterior": evidence.FaceReading,
    "energy_posterior": evidence.PowerReading,
}
"""What one observation is, by calculation."""


def _observation(kind: type[Any], given: object, path: str) -> tuple[Any, list[Fault]]:
    """An observation of an object of figures, and what is wrong with it."""
    names = [f.name for f in dataclasses.fields(kind)]
    if not isinstance(given, Mapping):
        return None, [Fault(path, f"give an object of {', '.join(names)}", given)]
    faults = [
        Fault(f"{path}.{n}", f"is missing; accepted: {RANGES[n].words()}")
        for n in names
        if n not in given
    ]
    faults += [
        Fault(f"{path}.{n}", f"is not an input here; accepted: {', '.join(names)}")
        for n in given
        if n not in names
    ]
    known = [n for n in names if n in given]
    found = [fault_in(n, given[n]) for n in known]
    faults += [fault.under(path) for fault in found if fault is not None]
    return (kind(**given) if not faults else None), faults


def _with_observations(name: str, given: Mapping[str, Any]) -> Mapping[str, Any]:
    """Inputs whose observations are records. InputError with every fault in them."""
    kind = OBSERVED.get(name)
    if kind is None:
        return given
    read = [_observation(kind, o, f"observed.{i}") for i, o in enumerate(given["observed"])]
    if faults := [fault for _, found in read for fault in found]:
        raise InputError(faults)
    return {**given, "observed": [record for record, _ in read]}


ABSENT = ("feed_force_limit_N",)
"""Outputs that are left out when there is none, instead of null."""


def _without_absent(outputs: dict[str, Any]) -> dict[str, Any]:
    kept = {k: v for k, v in outputs.items() if not (k in ABSENT and v is None)}
    return {k: list(v) if isinstance(v, tuple) else v for k, v in kept.items()}


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
        inputs = _with_observations(name, given)
        return _without_absent(dataclasses.asdict(formula(**inputs)))
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
