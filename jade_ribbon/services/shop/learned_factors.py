"""What this shop's records say beside the tables: a saw's side share, a material's pressure."""

import dataclasses

from jade_ribbon.core.job import Cut, Known
from jade_ribbon.services.shop.settings import Shop
from jade_ribbon.store.models import SawRow


def with_what_is_known(shop: Shop, saw: SawRow, cut: Cut) -> tuple[Cut, Known]:
    """A cut with this shop's own cutting pressure and wear in it, and how surely all is known.

    A pressure that the shop wrote into its own copy of the material stands.
    """
    known = Known(side_factor=saw.side_factor)
    if saw.side_sd_ln is not None:
        known = dataclasses.replace(known, side_sd_ln=saw.side_sd_ln)
    stock = cut.material
    pressure, wear = shop.pressures.get(stock.key), shop.wear.get(stock.key)
    if pressure is not None:
        stock = dataclasses.replace(stock, specific_cutting_pressure_MPa=pressure.K_ref_MPa)
        known = dataclasses.replace(known, pressure_sd_ln=pressure.sd_ln)
    if wear is not None:
        stock = dataclasses.replace(stock, abrasiveness=stock.abrasiveness * wear.factor)
    return (cut if stock is cut.material else dataclasses.replace(cut, material=stock)), known
