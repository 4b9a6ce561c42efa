"""Sums of runs as arrays: kept in memory, read anew only of bands whose sums are new."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.services.memo import remembered
from jade_ribbon.store.database import COMMITTED, MEMO
from jade_ribbon.store.memo import Memo
from jade_ribbon.store.models import RunSumRow

KEYS = ("band_id", "saw_id", "height_step", "edge_number", "edge_step")
WORDS = ("month", "material", "operation", "who")
FIGURES = ("runs", "seconds", "metres", "area_m2", "pieces", "time_area", "time2", "area2")
WORN = "equivalent_m"
PARTS = "run sums by band"
MANY = 200
"""So many bands with new sums are read by one statement without naming them."""

Numbers = NDArray[np.float64]
Codes = NDArray[np.int64]


@dataclass(frozen=True)
class Part:
    """The sums of one band."""

    mark: int
    keys: Codes
    words: NDArray[np.str_]
    figures: Numbers


@dataclass(frozen=True)
class SumTable:
    """All sums, a line each: keys and words by which they are grouped, figures that are added."""

    keys: dict[str, Codes]
    words: dict[str, NDArray[np.str_]]
    figures: Numbers
    """In the order of FIGURES, then the wear (WORN)."""

    @cached_property
    def coded(self) -> dict[str, tuple[Any, Codes]]:
        """Keys and words as small numbers: the ones there are, and which each line has."""
        found = {}
        for name, column in {**self.keys, **self.words}.items():
            known, codes = np.unique(column, return_inverse=True)
            found[name] = (known, codes.astype(np.int64))
        return found

    def column(self, name: str) -> tuple[Any, Codes]:
        """A key or a word of each line as a small number, and what the numbers stand for."""
        return self.coded[name]

    def months(self, since: str | None, until: str | None) -> NDArray[np.bool_]:
        """Which lines are from one month to another, both counted."""
        known, codes = self.coded["month"]
        within = np.ones(len(known), dtype=bool)
        if since is not None:
            within &= known >= since
        if until is not None:
            within &= known <= until
        found: NDArray[np.bool_] = within[codes]
        return found


def grouped(by: list[Codes], figures: Numbers) -> tuple[Codes, Numbers]:
    """Figures added by what their lines have in common: the first line of each group, its sums."""
    whole: Codes = np.zeros(len(figures), dtype=np.int64)
    for codes in by:
        whole = whole * (int(codes.max(initial=0)) + 1) + codes
    _, first, group = np.unique(whole, return_index=True, return_inverse=True)
    sums = np.stack(
        [np.bincount(group, weights=column, minlength=len(first)) for column in figures.T], axis=1
    )
    return first.astype(np.int64), np.asarray(sums, dtype=np.float64)


def sum_table(session: Session) -> SumTable:
    """The sums of every band; one statement while nothing is new."""
    return remembered(session, "run sums", lambda: _joined(_parts(session)))


def _joined(parts: dict[int, Part]) -> SumTable:
    every = list(parts.values())
    keys = np.concatenate([p.keys for p in every]) if every else np.zeros((0, len(KEYS)), int)
    words = np.concatenate([p.words for p in every]) if every else np.zeros((0, len(WORDS)), "U1")
    width = len(FIGURES) + 1
    figures = np.concatenate([p.figures for p in every]) if every else np.zeros((0, width))
    return SumTable(
        {name: keys[:, n] for n, name in enumerate(KEYS)},
        {name: words[:, n] for n, name in enumerate(WORDS)},
        figures,
    )


def _parts(session: Session) -> dict[int, Part]:
    """Each band's sums: those kept whose last number is still the last, others read anew."""
    last = func.max(RunSumRow.id)
    query = select(RunSumRow.band_id, last).group_by(RunSumRow.band_id)
    marks = {row[0]: row[1] for row in session.execute(query)}
    memo: Memo | None = session.info.get(MEMO)
    kept: dict[int, Part] = (memo.latest(PARTS) if memo else None) or {}
    new = [band for band, mark in marks.items() if band not in kept or kept[band].mark != mark]
    found = {band: part for band, part in kept.items() if band in marks} | _read(session, new)
    if memo is not None and session.info.get(COMMITTED):
        memo.keep(PARTS, None, found)
    return found


def _read(session: Session, bands: list[int]) -> dict[int, Part]:
    columns = [getattr(RunSumRow, name) for name in (*KEYS, *WORDS, *FIGURES, WORN)]
    query = select(RunSumRow.id, *columns).order_by(RunSumRow.band_id, RunSumRow.id)
    if len(bands) <= MANY:
        query = query.where(RunSumRow.band_id.in_(bands))
    rows = session.execute(query).all() if bands else []
    wanted, ends = set(bands), 1 + len(KEYS)
    found: dict[int, Part] = {}
    start = 0
    for n in range(1, len(rows) + 1):
        if n < len(rows) and rows[n][1] == rows[start][1]:
            continue
        mine, band = rows[start:n], rows[start][1]
        start = n
        if band in wanted:
            found[band] = Part(
                mark=mine[-1][0],
                keys=np.array([r[1:ends] for r in mine], dtype=np.int64),
                words=np.array([r[ends : ends + len(WORDS)] for r in mine], dtype=np.str_),
                figures=np.array([r[ends + len(WORDS) :] for r in mine], dtype=np.float64),
            )
    return found
