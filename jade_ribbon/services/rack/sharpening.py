"""The card by which a band is sharpened here."""

from sqlalchemy.orm import Session

from jade_ribbon.core.edge.sharpen_card import SharpenCard, sharpen_card
from jade_ribbon.reference.tables import steels, tooth_forms
from jade_ribbon.services.rack.edges import band_type
from jade_ribbon.services.rack.inputs import HandWay
from jade_ribbon.services.records import get
from jade_ribbon.store.models import BandRow


def sharpening_card(session: Session, band_id: int, way: HandWay = "in_house") -> SharpenCard:
    """Steps of sharpening one band, in the vice or on the saw."""
    row: BandRow = get(session, "band", band_id)
    steel, form = steels()[row.steel], tooth_forms()[row.form]
    kind = band_type(row)
    usual = (form.set_alternate_frac_t or form.set_lo_frac_t) * row.thickness_mm
    set_mm = row.set_per_side_mm if row.set_per_side_mm is not None else usual
    return sharpen_card(kind, steel, form, way=way, length_mm=row.length_mm, set_mm=set_mm)
