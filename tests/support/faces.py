"""What a saw was set to when a face was cut."""

from jade_ribbon.core.inspection.advice import SetFigures

SAW = SetFigures(
    length_mm=1000.0,
    height_mm=150.0,
    tolerance_mm=0.5,
    feed_m_min=2.0,
    floor_m_min=0.5,
    size_exponent_m=0.35,
    dullness=0.1,
    stress_MPa=120.0,
    high_MPa=165.0,
    kerf_mm=1.4,
    asked_mm=6.0,
    guided="fence",
    push_barrel_mm=0.3,
)
