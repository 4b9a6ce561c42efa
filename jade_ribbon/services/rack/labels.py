"""What stands on the labels of bands."""

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import pitch_words
from jade_ribbon.core.quantities.words import quantity, said, sentence
from jade_ribbon.formats.printed.labels import Label
from jade_ribbon.reference.tables import short_name, steels, tooth_forms
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandRow, SawRow


def labels_of(session: Session, band_ids: Sequence[int], address: str) -> list[Label]:
    """Labels of bands in the order asked for, in the shop's units. NotFoundError."""
    shop = read_shop(session)
    saws = session.scalars(select(SawRow).where(SawRow.deleted_at.is_(None))).all()
    found = []
    for key in band_ids:
        row: BandRow = get(session, "band", key)
        size = sentence(quantity(row.width_mm, "length"), " x ", quantity(row.thickness_mm, "thin"))
        kind = f"{short_name(tooth_forms()[row.form].name)}, {short_name(steels()[row.steel].name)}"
        fits = [
            s.name for s in saws if s.band_length_min_mm <= row.length_mm <= s.band_length_max_mm
        ]
        length = said(sentence(quantity(row.length_mm, "length")), shop.units)
        found.append(
            Label(
                tag=row.label,
                what=f"{said(size, shop.units)}, {pitch_words(row.tpi_lo, row.tpi_hi)} {kind}",
                length=length,
                fits=", ".join(fits) or "fits no saw here",
                address=f"{address}#/rack/{row.id}",
            )
        )
    return found
