"""What sawing takes of a billet beside its slices, as it usually is."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Losses:
    """Lengths in mm: of each face, of the billet, of each crosscut, of each end, of each edge."""

    kerf_mm: float
    clean_up_per_face_mm: float
    prepare_loss_mm: float
    crosscut_kerf_mm: float
    trim_mm: float
    joint_loss_mm: float


USUAL_LOSSES = Losses(
    kerf_mm=1.4,
    clean_up_per_face_mm=0.5,
    prepare_loss_mm=1.0,
    crosscut_kerf_mm=3.0,
    trim_mm=20.0,
    joint_loss_mm=1.5,
)
USUAL_FEED_M_MIN = 2.0
"""Of a cut for which no band is chosen yet."""
LEAST_BOARD_MM = 80.0
"""A narrower board of a log is firewood."""
