"""Old timber with metal in it: the wood's own energy, the speeds and edges nails ask for."""

import dataclasses
from collections.abc import Mapping

from jade_ribbon.core.bands.slow_pass import NAILED
from jade_ribbon.core.job import Operation
from jade_ribbon.reference.tables import Material

FROM_NAILED = (
    "speed_min_m_s",
    "speed_target_m_s",
    "speed_max_m_s",
    "bimetal_speed_mult",
    "carbide_speed_mult",
    "steels_ok",
    "tooth_forms_preferred",
    "teeth_in_cut_min",
    "teeth_in_cut_ideal_lo",
    "teeth_in_cut_ideal_hi",
    "teeth_in_cut_max",
    "abrasiveness",
)
"""What reclaimed stock of any wood takes from the table's row of nailed timber."""


def stock_of(operation: Operation, material: Material, table: Mapping[str, Material]) -> Material:
    """The material as it is cut: any wood reclaimed has nails in it."""
    if operation != "reclaim" or not material.is_wood or material.key == NAILED:
        return material
    nailed = table[NAILED]
    return dataclasses.replace(material, **{name: getattr(nailed, name) for name in FROM_NAILED})
