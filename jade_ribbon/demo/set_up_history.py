"""What the boatyard knows of setting its saws: scale, wheels, drift, past cards, roles."""

from datetime import datetime, timedelta

from sqlalchemy.orm import Session

from jade_ribbon.core.setup.alignment import Move
from jade_ribbon.services.planning.jobs import JobAnswer, duplicate_job
from jade_ribbon.services.setup import alignments, cards, roles, saw_state, scale, steps
from jade_ribbon.services.setup.inputs import (
    AlignmentMove,
    AlignmentStart,
    DefectInput,
    DriftInput,
    FittingsInput,
    MarkInput,
    ScalePointInput,
    SettingUpInput,
    SetupStart,
    StepInput,
)
from jade_ribbon.services.setup.readings import read_drift
from jade_ribbon.services.shop import saws
from jade_ribbon.services.shop.inputs import TensionInput
from jade_ribbon.store.models import JobRow

FITTINGS = {
    "meg": FittingsInput(
        fence_bolt_spacing_mm=210.0,
        tyre_width_mm=42.0,
        knob="clockwise_back",
        printed_marks=[MarkInput(width_mm=w, reading=r) for w, r in ((13, 2), (19, 3.5), (32, 8))],
    ),
    "shop": FittingsInput(
        fence_bolt_spacing_mm=160.0,
        tyre_width_mm=28.0,
        knob="clockwise_forward",
        motor_pulley_mm=75.0,
        wheel_pulley_mm=165.0,
        belt_length_mm=950.0,
    ),
    "tern": FittingsInput(fence="single_point", tyre_width_mm=18.0),
    "maud": FittingsInput(fence="none", motor_pulley_mm=60.0, wheel_pulley_mm=240.0),
}
SCALE_POINTS = ((4.0, 66.0, 0.95), (6.0, 101.0, 1.4), (8.0, 131.0, 1.85), (9.0, 149.0, 2.05))
"""On Long Meg: the scale's reading, the gauge's stress, the wheel's travel."""
LAST_CARD: dict[str, dict[str, float]] = {
    "rough_track": {"position_mm": 1.0},
    "tension": {"handle_turns": 6.0},
    "fine_track": {"position_mm": 0.5, "knob_turns": 0.25, "creep_mm": 0.1},
    "guides_upper": {"fore_aft_mm": 1.0, "side_mm": 0.12, "thrust_mm": 0.3},
    "guides_lower": {"fore_aft_mm": 1.0, "side_mm": 0.1, "thrust_mm": 0.35},
    "table": {"out_mm": 0.05},
    "drift": {"offset_mm": 3.5, "run_mm": 300.0},
    "trial": {"spread_mm": 0.4},
}
NOTED = {"guides_upper": "Left roller turned over, its face was grooved"}
BEGUN = ("isolate", "inspect", "guides_back", "mount", "rough_track")


class SetUpHistory:
    """Fills in what was learnt of the saws while they were set up."""

    def __init__(self, session: Session, saw_ids: dict[str, int]) -> None:
        self.session = session
        self.saw_ids = saw_ids

    def fill(self, job: JobAnswer, band_id: int, stress_MPa: float, at: datetime) -> None:
        """All of it; the card of `job` is left begun, its band not yet under tension."""
        for key, fittings in FITTINGS.items():
            roles.write_fittings(self.session, self.saw_ids[key], fittings)
        chosen = dict.fromkeys(roles.INSTRUMENTS, "simulated")
        settings = {
            "reserved": ["wheel_alignment"],
            "authorised": ["Brill", "T.W."],
            "instruments": chosen,
        }
        roles.write_setting_up(self.session, SettingUpInput.model_validate(settings))
        self.last_card(job, band_id, stress_MPa, at - timedelta(days=3))
        self.learnt(self.saw_ids["meg"])
        self.begin(job, band_id, at)
        worn = DefectInput(text="Lower tyre worn hollow; a new one is ordered.", who="Senn")
        saw_state.add_defect(self.session, self.saw_ids["shop"], worn)

    def last_card(self, job: JobAnswer, band_id: int, stress_MPa: float, at: datetime) -> None:
        """The same saw and band three days before, every step done."""
        earlier = duplicate_job(self.session, job.id)
        card = cards.start_setup(
            self.session, SetupStart(job_id=earlier.id, band_id=band_id), at=at
        )
        left = LAST_CARD | {
            "tension": {"stress_MPa": round(stress_MPa * 0.97, 1), **LAST_CARD["tension"]}
        }
        for i, step in enumerate(cards.one_setup(self.session, card).card.steps):
            given = StepInput(
                done=True,
                left=left.get(step.key, {}),
                means="gauge" if step.key == "tension" else None,
                note=NOTED.get(step.key, ""),
                who="Senn",
            )
            minute = at + timedelta(minutes=3 * i)
            steps.do_step(self.session, card, step.key, given, minute)
        for stop in cards.one_setup(self.session, card).open_stops:
            raise RuntimeError(f"the sample card has a stop: {stop}")
        cards.finish_setup(self.session, card, at=at + timedelta(hours=1))
        done = self.session.get_one(JobRow, earlier.id)
        done.name, done.state, done.updated_at = "Garboards, first pair", "done", at
        for offset in (1.5, 2.5, 3.5):
            trial = DriftInput(offset_mm=offset, run_mm=300.0, keep=True, who="Senn")
            read_drift(self.session, card, trial)

    def learnt(self, saw_id: int) -> None:
        """Scale points and one truing on Long Meg, read at tension."""
        for reading, stress, travel in SCALE_POINTS:
            point = ScalePointInput(
                reading=reading, stress_MPa=stress, travel_mm=travel, means="gauge", who="Brill"
            )
            scale.add_scale_point(self.session, saw_id, point)
        begun = alignments.start_alignment(
            self.session,
            saw_id,
            AlignmentStart(
                axis="tilt", wheel="upper", gap_mm=1.9, who="Brill", authorised_by="Brill"
            ),
        )
        for move in (Move(0.75, 0.7), Move(0.4375, 0.05)):
            given = AlignmentMove(turns=move.turns, gap_mm=move.gap_mm)
            alignments.move_wheel(self.session, begun.id, given)

    def begin(self, job: JobAnswer, band_id: int, at: datetime) -> None:
        """Today's card, begun as far as tracking; the saw was slackened over the weekend."""
        saws.set_tension(
            self.session,
            self.saw_ids["meg"],
            TensionInput(state="slack"),
            at=at - timedelta(hours=2),
        )
        card = cards.start_setup(self.session, SetupStart(job_id=job.id, band_id=band_id), at=at)
        for key in BEGUN:
            given = StepInput(done=True, left=LAST_CARD.get(key, {}), who="Odda")
            steps.do_step(self.session, card, key, given, at)
