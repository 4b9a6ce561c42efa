"""A band as it is given."""

from jade_ribbon.services.rack.inputs import BandInput

GIVEN = BandInput(
    label="K-07",
    width_mm=19.0,
    thickness_mm=0.81,
    tpi_lo=2.0,
    tpi_hi=2.0,
    form="hook",
    steel="silicon_steel",
    length_mm=3360.0,
)
