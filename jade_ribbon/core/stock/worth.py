"""What a billet gives and costs: trued first, along its curve, or planed from thicker stock."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from jade_ribbon.core.mechanics.slicing import slicing
from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.stock.billets import WILL_NOT_LIE_FLAT_N, bowed_billet

WOOD_MODULUS_MPA = 10_000.0
"""Along the grain, of most boat and joinery timber; known to three tenths."""
MODULUS_DOUBT = 0.3
PLANED_A_PASS_MM = 2.0
PASS_MIN_M2 = 1.5
"""Minutes a pass of the planer takes for a square metre."""
FEELS_NOTHING_N = 2.0
"""A slice pressed flat with less lies flat by its own weight."""
TRUING_DOUBT_MM = 0.25
KERF_DOUBT_MM = 0.05
"""What truing takes, and each kerf, are known no nearer before they are cut."""
WayKey = Literal["true_first", "along_curve"]
BilletRule = Literal["yield", "flatten", "curve"]


@dataclass(frozen=True)
class BilletSize:
    """A billet as it lies: mm, bow and twist over its length, what truing takes."""

    thickness_mm: float
    height_mm: float
    length_mm: float
    bow_mm: float
    twist_mm: float
    prepare_mm: float


@dataclass(frozen=True)
class PieceWanted:
    """A piece as it is wanted, mm, and what cutting it takes: clean-up, kerf, minutes."""

    thickness_mm: float
    height_mm: float
    length_mm: float
    count: int
    clean_up_per_face_mm: float
    kerf_mm: float
    crosscut_kerf_mm: float
    trim_mm: float
    minutes_a_cut: float


@dataclass(frozen=True)
class Money:
    """Prices of stock and work; None of a billet: by the cubic metre."""

    billet_price: float | None
    timber_m3: float
    hour: float


@dataclass(frozen=True)
class BilletWay:
    """One way to saw a billet: slices of each section, pieces, what is left, shares, money."""

    key: WayKey
    sections: int
    slices: int
    pieces: int
    sawn_thickness_mm: float
    left_over_mm: float
    """Once it is sawn free."""
    usable_mm: float
    """Thickness left once it is trued."""
    spare_mm: float
    """Over what its slices and the kerfs between them take."""
    piece_share: float
    kerf_share: float
    money_a_piece: float | None
    """None where it gives no piece."""
    enough: bool

    @property
    def close(self) -> bool:
        """Whether its last slice hangs on what nobody knows so nearly."""
        doubt = TRUING_DOUBT_MM + KERF_DOUBT_MM * max(self.slices - 1, 0)
        return self.slices > 0 and self.spare_mm < doubt


@dataclass(frozen=True)
class BilletWorth:
    """Both ways, the one to take, and pieces planed from thicker stock beside it."""

    ways: tuple[BilletWay, ...]
    best: WayKey
    words: Said
    rule: str
    """The house rule that chose; empty where the pieces did."""
    flatten_force_N: float
    flatten_words: Said
    planed_a_piece: float | None
    planed_words: Said


def _way(key: WayKey, billet: BilletSize, piece: PieceWanted, money: Money) -> BilletWay:
    usable_length = billet.length_mm - 2.0 * piece.trim_mm
    kerf = piece.crosscut_kerf_mm
    sections = max(0, math.floor((usable_length + kerf) / (piece.length_mm + kerf) + 1e-9))
    if piece.height_mm > billet.height_mm + 1e-6:
        sections = 0
    bow = billet.bow_mm * (piece.length_mm / billet.length_mm) ** 2 if key == "true_first" else 0.0
    twist = billet.twist_mm * piece.length_mm / billet.length_mm
    loss = billet.prepare_mm + twist + bow
    try:
        found = slicing(
            billet_mm=billet.thickness_mm,
            slice_mm=piece.thickness_mm,
            kerf_mm=piece.kerf_mm,
            clean_up_per_face_mm=piece.clean_up_per_face_mm,
            prepare_loss_mm=loss,
        )
        slices, left = found.slices, found.left_over_mm
    except InputError:
        slices, left = 0, 0.0
    spare = max(0.0, left)
    sawn = piece.thickness_mm + 2.0 * piece.clean_up_per_face_mm
    usable = max(0.0, billet.thickness_mm - loss)
    if slices == 0:
        left = usable
    pieces = slices * sections
    volume = billet.thickness_mm * billet.height_mm * billet.length_mm
    made = pieces * piece.thickness_mm * piece.height_mm * piece.length_mm
    freed = slices > 0 and left > piece.kerf_mm
    cuts = sections * (slices if freed else max(slices - 1, 0))
    left -= piece.kerf_mm if freed else 0.0
    price = money.billet_price
    wood = volume * 1e-9 * money.timber_m3 if price is None else price
    work = cuts * piece.minutes_a_cut * money.hour / 60.0
    return BilletWay(
        key,
        sections,
        slices,
        pieces,
        sawn,
        left,
        usable,
        spare,
        made / volume,
        cuts * piece.kerf_mm * billet.height_mm * piece.length_mm / volume,
        (wood + work) / pieces if pieces else None,
        pieces >= piece.count,
    )


def planed_from(bought_mm: float, piece: PieceWanted, money: Money) -> float:
    """Money of one piece planed down from thicker stock: all its wood, and the passes.

    InputError where the stock is thinner than the piece.

    Source: arithmetic; docs/model "Stock".
    """
    if bought_mm < piece.thickness_mm:
        least = f"{piece.thickness_mm:g} or more"
        raise refuse("bought_mm", f"{bought_mm:g} is thinner than the piece; accepted: {least}")
    area = piece.height_mm * piece.length_mm * 1e-6
    passes = max(1, math.ceil((bought_mm - piece.thickness_mm) / PLANED_A_PASS_MM - 1e-9))
    wood = area * bought_mm * 1e-3 * money.timber_m3
    return wood + passes * PASS_MIN_M2 * area * money.hour / 60.0


def _flatten(billet: BilletSize, piece: PieceWanted) -> tuple[float, Said]:
    """The force that presses one slice flat, and whether it will lie by itself."""
    share = (piece.length_mm / billet.length_mm) ** 2
    force = bowed_billet(
        billet_mm=billet.thickness_mm,
        bow_mm=billet.bow_mm * share,
        length_mm=piece.length_mm,
        height_mm=piece.height_mm,
        slice_mm=piece.thickness_mm,
        kerf_mm=piece.kerf_mm,
        clean_up_per_face_mm=piece.clean_up_per_face_mm,
        prepare_loss_mm=0.0,
        wood_modulus_MPa=WOOD_MODULUS_MPA,
    ).flatten_force_N
    if force < FEELS_NOTHING_N:
        return force, ""
    low, high = force * (1.0 - MODULUS_DOUBT), force * (1.0 + MODULUS_DOUBT)
    said = sentence(
        "A slice along the curve takes ",
        quantity(float(f"{force:.1g}"), "force"),
        " to press flat: ",
    )
    if low > WILL_NOT_LIE_FLAT_N:
        return force, sentence(said, "it will not lie flat by itself.")
    if high > WILL_NOT_LIE_FLAT_N:
        return force, sentence(said, "whether it lies flat cannot be told before it is cut.")
    return force, sentence(said, "it goes down by hand.")


def billet_worth(
    billet: BilletSize,
    piece: PieceWanted,
    money: Money,
    *,
    rule: BilletRule,
    bought_mm: float | None = None,
) -> BilletWorth:
    """What a billet gives trued first and along its curve; the house rule, or the pieces, choose.

    Twist is taken off either way: a twisted slice follows no curve. A section's own share of the
    bow goes with the square of its length. Equal pieces, or enough of them either way: trued first,
    since its faces are flat.

    Source: house rule "preparing a billet"; docs/model "Stock".
    """
    trued, curve = (_way(key, billet, piece, money) for key in ("true_first", "along_curve"))
    more = curve.pieces > trued.pieces and not trued.enough
    by_pieces: WayKey = "along_curve" if more else "true_first"
    best: WayKey = {"yield": by_pieces, "flatten": "true_first", "curve": "along_curve"}[rule]
    chosen = trued if best == "true_first" else curve
    other = curve if best == "true_first" else trued
    named = "True it first" if best == "true_first" else "Saw it along its curve"
    words = f"{named}: {chosen.pieces} pieces, {other.pieces} the other way."
    if chosen.pieces == other.pieces:
        words = f"{named}: {chosen.pieces} pieces either way."
    elif chosen.enough and other.pieces > chosen.pieces:
        words = f"{named}: {chosen.pieces} pieces are enough; {other.pieces} the other way."
    said: Said = words
    if chosen.close and chosen.pieces:
        said = _too_close(words, chosen)
    if chosen.pieces == 0 and other.pieces == 0:
        said = _none_because(billet, piece, trued)
    ruled = rule != "yield" and best != by_pieces
    force, flat = _flatten(billet, piece) if curve.sections else (0.0, "")
    planed = None if bought_mm is None else planed_from(bought_mm, piece, _one_price(billet, money))
    return BilletWorth(
        (trued, curve),
        best,
        sentence("By house rule. ", said) if ruled else said,
        "billet" if ruled else "",
        force,
        flat,
        planed,
        _planed_words(planed, chosen.money_a_piece),
    )


def _too_close(words: str, way: BilletWay) -> Said:
    """A last slice with next to nothing to spare."""
    fewer = way.sections * (way.slices - 1)
    return sentence(
        words,
        " The last slice has ",
        quantity(round(way.spare_mm, 2), "thin"),
        f" to spare: too close to call. Count on {fewer} until it is trued and read.",
    )


def _one_price(billet: BilletSize, money: Money) -> Money:
    """What the billet's wood costs is what thicker stock of it costs too."""
    if money.billet_price is None:
        return money
    volume = billet.thickness_mm * billet.height_mm * billet.length_mm * 1e-9
    return replace(money, timber_m3=money.billet_price / volume)


def _none_because(billet: BilletSize, piece: PieceWanted, way: BilletWay) -> str:
    if piece.height_mm > billet.height_mm:
        return "It gives no piece: it is not high enough."
    if way.sections == 0:
        return "It gives no piece: it is not long enough once its ends are trimmed."
    return "It gives no piece: it is not thick enough once it is trued."


WOOD_PRICE_DOUBT = 0.1
"""Prices and minutes of two ways to a piece are not known nearer than this."""


def _planed_words(planed: float | None, sawn: float | None) -> Said:
    if planed is None or sawn is None:
        return ""
    if abs(planed - sawn) <= WOOD_PRICE_DOUBT * max(planed, sawn):
        return "Sawing and planing from thicker stock cost about the same."
    cheaper, dearer = sorted((planed, sawn))
    share = 100.0 * (1.0 - cheaper / dearer)
    named = "Planing from thicker stock" if planed < sawn else "Sawing"
    return f"{named} is {share:.0f} % cheaper a piece."
