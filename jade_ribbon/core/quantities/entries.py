"""What a shop may enter of each quantity: one range, read by every form, file and reading.

Narrower than what a formula stands (`fields`), wider than what is usual (`plausible`).
"""

from collections.abc import Mapping

from jade_ribbon.core.quantities.fields import Range


def _over_0(high: float) -> Range:
    return Range(0.0, high, open_low=True)


ENTRIES: Mapping[str, Range] = {
    # saw
    "wheel_diameter_mm": Range(50, 3000),
    "band_thickness_max_mm": _over_0(5),
    "wheel_force_max_N": _over_0(500_000),
    "saw_height_mm": _over_0(3000),
    "throat_mm": _over_0(5000),
    "guide_span_base_mm": Range(0, 2000),
    "guide_span_per_height": Range(0, 5),
    "motor_kW": _over_0(500),
    "drive_efficiency": Range(0, 1, open_low=True),
    "feed_m_min": _over_0(200),
    "hand_force_N": _over_0(1000),
    "speed_m_s": _over_0(150),
    "drive_hz": _over_0(400),
    "tyre_width_mm": _over_0(400),
    "bolt_oclock": Range(1, 12),
    "manual_gap_mm": Range(0, 5),
    "fitting_mm": _over_0(10_000),
    "good_for_h": Range(0, 10_000),
    # band
    "width_mm": _over_0(400),
    "thickness_mm": _over_0(5),
    "tpi": Range(0.3, 50),
    "set_per_side_mm": _over_0(5),
    "band_length_mm": Range(200, 50_000),
    "any_length_mm": _over_0(100_000),
    "dullness": Range(0, 1),
    "judged_dullness": Range(0, 2),
    "event_value": Range(0, 10),
    # cut
    "height_mm": _over_0(3000),
    "length_mm": _over_0(100_000),
    "count": Range(1, 100_000),
    "min_radius_mm": _over_0(100_000),
    "angle_deg": Range(-60, 60),
    "tolerance_mm": _over_0(50),
    "wall_mm": _over_0(500),
    "log_diameter_mm": _over_0(3000),
    "slice_mm": _over_0(3000),
    "billet_mm": _over_0(3000),
    "backing_mm": Range(0, 500),
    "stack": Range(1, 500),
    "throat_need_mm": _over_0(20_000),
    "time_s": _over_0(1_000_000),
    "waited_s": Range(0, 1e9),
    "power_W": _over_0(500_000),
    "idle_W": Range(0, 500_000),
    # stock
    "stock_mm": _over_0(3000),
    "stock_length_mm": _over_0(30_000),
    "bark_mm": Range(0, 200),
    "bow_mm": Range(-300, 300),
    "twist_mm": Range(0, 300),
    "moisture_pct": Range(0, 200),
    "along_mm": Range(0, 30_000),
    "depth_mm": Range(0, 3000),
    "loss_mm": Range(0, 1000),
    "segments": Range(3, 200),
    "small_angle_deg": Range(-20, 20),
    "from_pin_mm": Range(-500, 500),
    # house rules and rates
    "guard_gap_mm": Range(2, 50),
    "gauge_length_mm": Range(10, 2000),
    "money": Range(0, 1_000_000),
    "minutes": Range(0, 1000),
    "price_factor": _over_0(1000),
    "gullet_share_of_width": _over_0(0.9),
    "comfortable_factor": Range(1, 5),
    "hand_feed_max_m_min": _over_0(60),
    # a material's figures
    "specific_cutting_pressure_MPa": _over_0(10_000),
    "size_exponent_m": Range(0, 0.9),
    "feed_force_ratio_sharp": _over_0(3),
    "feed_force_ratio_dull": _over_0(5),
    "bite_min_mm": _over_0(1),
    "bite_target_mm": _over_0(5),
    "bite_max_mm": _over_0(10),
    "gullet_fill_limit": _over_0(5),
    "material_speed_m_s": _over_0(100),
    "abrasiveness": _over_0(5000),
    "gum_factor": Range(0, 5),
    # setting up
    "stress_MPa": Range(1, 600),
    "reading": _over_0(100_000),
    "scale_reading": Range(0, 10_000),
    "deflection_mm": _over_0(100),
    "travel_mm": _over_0(100),
    "gap_mm": Range(0, 10),
    "wheel_gap_mm": Range(-30, 30),
    "light_gap_mm": Range(0, 20),
    "stack_mm": Range(0.02, 20),
    "drift_offset_mm": Range(-500, 500),
    "drift_run_mm": Range(50, 5000),
    "place_mm": Range(-100, 100),
    "hand_turns": Range(0.25, 1000),
    "counted_turns": Range(1, 100_000),
    "seconds": Range(0.5, 3600),
    "ticks": Range(1, 10_000),
    "wheel_rpm": Range(0.1, 20_000),
    "small_reading_mm": Range(-50, 50),
    "long_reading_mm": Range(0, 5000),
    "plain_reading": Range(-100, 100),
}
