"""Runs of a band summed by what they have in common, so that totals read hundreds, not all."""

from collections.abc import Sequence
from typing import Any

from sqlalchemy import delete, insert
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.history import RunMark
from jade_ribbon.store.models import RunRow, RunSumRow

STEP_M = 500.0
"""Edges within one such step of metres are summed together."""
STEP_MM = 20.0
"""Cuts within one step of this height are one kind."""


def sum_runs(
    session: Session, band_id: int, runs: Sequence[RunRow], marks: Sequence[RunMark]
) -> None:
    """Write a band's sums anew; runs that wait to be confirmed are in none."""
    sums: dict[tuple[Any, ...], dict[str, Any]] = {}
    for run, mark in zip(runs, marks, strict=True):
        if run.to_confirm:
            continue
        key = (
            run.at.strftime("%Y-%m"),
            run.saw_id,
            run.material,
            run.operation,
            int(run.height_mm / STEP_MM),
            mark.edge_number,
            int(mark.before_m / STEP_M),
            run.who,
        )
        minutes = run.time_s / 60.0
        area = run.height_mm * run.length_mm * run.pieces * 1e-6
        told = {
            "runs": 1,
            "seconds": run.time_s,
            "metres": run.length_mm * run.pieces / 1000.0,
            "area_m2": area,
            "pieces": run.pieces,
            "time_area": minutes * area,
            "time2": minutes * minutes,
            "area2": area * area,
            "table_m": run.equivalent_m,
            "equivalent_m": mark.after_m - mark.before_m,
        }
        kept = sums.get(key)
        sums[key] = told if kept is None else {n: kept[n] + v for n, v in told.items()}
    session.execute(delete(RunSumRow).where(RunSumRow.band_id == band_id))
    if sums:
        names = ("month", "saw_id", "material", "operation", "height_step", "edge_number")
        session.execute(
            insert(RunSumRow),
            [
                dict(zip((*names, "edge_step", "who"), key, strict=True))
                | told
                | {"band_id": band_id}
                for key, told in sums.items()
            ],
        )
