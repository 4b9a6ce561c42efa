"""Jobs to try the core on: the worked example changed, and any job at all."""

import dataclasses
import json
from pathlib import Path
from typing import Any

from hypothesis import strategies as st

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.job import Candidate, Cut, Drive, Job, Rules, Saw
from jade_ribbon.formats.job import JobFile
from jade_ribbon.reference.tables import materials

K07 = Candidate("K-07", 19.0, 0.81, 2.0, 2.0, "hook", "silicon_steel", length_mm=3360.0)


def with_cut(job: Job, **changed: Any) -> Job:
    if isinstance(changed.get("material"), str):
        changed["material"] = materials()[changed["material"]]
    return dataclasses.replace(job, cut=dataclasses.replace(job.cut, **changed))


def with_saw(job: Job, **changed: Any) -> Job:
    return dataclasses.replace(job, saw=dataclasses.replace(job.saw, **changed))


def with_rules(job: Job, **changed: Any) -> Job:
    return dataclasses.replace(job, rules=Rules(**changed))


def in_material(job: Job, key: str, **cut: Any) -> Job:
    return dataclasses.replace(
        job, cut=dataclasses.replace(job.cut, material=materials()[key], **cut)
    )


TYPES = catalogue_candidates()


OPERATIONS = (
    "resaw",
    "rip",
    "crosscut",
    "curve",
    "circle",
    "veneer",
    "wedge",
    "mill",
    "reclaim",
    "sheet",
    "bar",
    "tube",
    "block",
)


@st.composite
def saws(draw: st.DrawFn) -> Saw:
    wheel = draw(st.floats(220, 1000))
    drive = draw(
        st.one_of(
            st.builds(
                Drive,
                kind=st.just("fixed"),
                speeds_m_s=st.lists(st.floats(0.3, 30), min_size=1, max_size=4).map(tuple),
            ),
            st.just(Drive("inverter", base_hz=50, min_hz=10, max_hz=60, base_speed_m_s=wheel / 30)),
        )
    )
    return Saw(
        name="Any",
        orientation=draw(st.sampled_from(["vertical", "horizontal"])),
        wheel_diameters_mm=(wheel,) * draw(st.sampled_from([2, 3])),
        tyre="crowned",
        band_length_mm=(3000.0, 3100.0),
        band_width_mm=(3.0, draw(st.floats(10, 60))),
        band_thickness_max_mm=draw(st.floats(0.5, 1.3)),
        wheel_force_max_N=draw(st.one_of(st.none(), st.floats(500, 20_000))),
        height_mm=500.0,
        throat_mm=400.0,
        guides="rolling",
        guide_span_base_mm=draw(st.floats(40, 150)),
        guide_span_per_height=1.0,
        motor_kW=draw(st.floats(0.3, 15)),
        drive_efficiency=0.8,
        drive=drive,
        feed=draw(st.sampled_from(["hand", "power", "carriage"])),
        feed_max_m_min=draw(st.one_of(st.none(), st.floats(0.3, 20))),
    )


@st.composite
def jobs(draw: st.DrawFn) -> Job:
    operation = draw(st.sampled_from(OPERATIONS))
    height = draw(st.floats(3, 450))
    cut = Cut(
        operation=operation,  # type: ignore[arg-type]
        material=draw(st.sampled_from(list(materials().values()))),
        height_mm=height,
        length_mm=draw(st.floats(50, 6000)),
        count=draw(st.integers(1, 100)),
        finish=draw(st.sampled_from(["rough", "plane", "sand", "show"])),
        min_radius_mm=draw(st.floats(5, 800)) if operation in ("curve", "circle") else None,
        angle_deg=draw(st.sampled_from([0.0, 0.0, 12.0])),
        wall_mm=height * draw(st.floats(0.05, 0.5)) if operation == "tube" else None,
        round_stock=draw(st.booleans()),
    )
    rules = Rules(
        resaw_width=draw(st.sampled_from(["frame", "widest", "narrow"])),
        resaw_pitch=draw(st.sampled_from(["coarse", "fine"])),
        least_teeth=draw(st.sampled_from([2, 3, 4])),
        tension=draw(st.sampled_from(["full", "light"])),
        radius=draw(st.sampled_from(["comfortable", "tightest"])),
        steel=draw(st.sampled_from(["cost", "long_life", "cheap"])),
    )
    return Job(saw=draw(saws()), cut=cut, rules=rules, bands=TYPES)


def plain_job() -> Job:
    """The example job, for examples drawn by the hundred."""
    text = (Path(__file__).parents[1] / "data" / "job.json").read_text()
    return JobFile.model_validate(json.loads(text)).to_core()
