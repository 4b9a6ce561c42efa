"""A motor's electrical power from its current."""

import math

from jade_ribbon.core.quantities.formula_limits import within_limits

POWER_FACTOR_LOADED = 0.8
POWER_FACTOR_IDLE = 0.25
"""Of induction motors of a workshop; a clamp meter does not tell them."""


@within_limits
def watts_of_amps(*, amps_A: float, volts_V: float, phases: int, power_factor: float) -> float:
    """P = U I cos phi on one phase, sqrt(3) U I cos phi on three (volts between two of them).

    Source: Electrical Machines, "Power in three-phase circuits".

    >>> round(watts_of_amps(amps_A=10, volts_V=230, phases=1, power_factor=0.8))
    1840
    """
    factor = math.sqrt(3.0) if phases == 3 else 1.0
    return factor * volts_V * amps_A * power_factor
