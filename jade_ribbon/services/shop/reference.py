"""The reference tables as the interface needs them."""

import math
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.conflicts import LIMIT_MARKS, LIMIT_WORDS
from jade_ribbon.core.choosing.explanation.cautions import DISCLAIMER
from jade_ribbon.core.choosing.explanation.explain import MANY_BENDING_HOURS
from jade_ribbon.core.choosing.sentences import FINISH_WORDS, OperationSentence, operation_sentences
from jade_ribbon.core.edge.edge_states import EDGE_STATES
from jade_ribbon.core.edge.history import SCRAP_REASONS
from jade_ribbon.core.edge.run_pace import PACES, PaceBand
from jade_ribbon.core.edge.signs import Sign, signs
from jade_ribbon.core.edge.visual_grade import JUDGEMENTS, Judgement
from jade_ribbon.core.inspection.roughness import RoughnessClass, classes
from jade_ribbon.core.job import Finish
from jade_ribbon.core.mechanics.feed import Limit
from jade_ribbon.core.quantities.chances import ENDS, ChanceEnds
from jade_ribbon.core.quantities.typical import USUAL, Usual, meant
from jade_ribbon.core.quantities.words import Said, table_text
from jade_ribbon.core.saw_defaults.kinds import StartingKind, starting_kinds
from jade_ribbon.core.saw_defaults.unknown_saw import ASSUMED, Assumed
from jade_ribbon.core.stock.losses import USUAL_LOSSES, Losses
from jade_ribbon.formats.job import RulesFile, SawFile, saw_file
from jade_ribbon.formats.printed.labels import KINDS
from jade_ribbon.formats.written import WrittenRules, written_rules
from jade_ribbon.reference.care import Holding, accessories, holding
from jade_ribbon.reference.forms import Choice, FormField, choices, form_fields
from jade_ribbon.reference.tables import (
    HouseRule,
    ToothForm,
    help_terms,
    house_rules,
    materials,
    other_names,
    pages,
    short_name,
    steels,
    tooth_forms,
)
from jade_ribbon.services.shop.materials import material_table


@dataclass(frozen=True)
class MaterialLine:
    """A material as the finder lists it."""

    key: str
    name: str
    group: str
    density_kg_m3: float
    dust_hazard: str
    note: str
    also: str
    own: bool
    is_metal: bool
    is_grained: bool


@dataclass(frozen=True)
class NameLine:
    """A steel by key: its whole name, and as it stands in a sentence."""

    key: str
    name: str
    short: str
    note: str


@dataclass(frozen=True)
class FormLine:
    """A tooth form with what its drawing needs; fractions of the pitch, hook in degrees."""

    key: str
    name: str
    short: str
    hook_deg: float
    gullet_depth_frac_pitch: float
    continuous: bool
    note: str
    limits: str


@dataclass(frozen=True)
class RuleLine:
    """A house rule with its schools."""

    key: str
    title: str
    choices: tuple[str, ...]
    choice_names: tuple[Said, ...]
    default: str
    why: Said
    bears_on_choice: bool


@dataclass(frozen=True)
class EdgeLine:
    """An edge class and the tip radius it is drawn with."""

    key: str
    tip_radius_um: float
    upto: float | None
    """Dullness at which the next class begins; None of the last."""


@dataclass(frozen=True)
class KindLine:
    """A kind of saw to start from: its figures, and which of them are assumed."""

    key: str
    name: str
    says: Said
    saw: SawFile
    assumed: tuple[str, ...]


def _kind_line(kind: StartingKind) -> KindLine:
    return KindLine(kind.key, kind.name, table_text(kind.says), saw_file(kind.saw), kind.assumed)


@dataclass(frozen=True)
class LabelKindLine:
    """A sheet or a roll of labels, and how many a page has."""

    key: str
    name: str
    a_page: int


@dataclass(frozen=True)
class AccessoryName:
    """Something fitted to a saw that spares its bands, and about what it costs."""

    key: str
    title: str
    price: float


@dataclass(frozen=True)
class Reference:
    """All tables the interface shows."""

    materials: list[MaterialLine]
    steels: list[NameLine]
    forms: list[FormLine]
    rules: list[RuleLine]
    edges: list[EdgeLine]
    judgements: tuple[Judgement, ...]
    limits: dict[Limit, str]
    limit_marks: dict[Limit, str]
    usual: dict[str, Usual]
    signs: tuple[Sign, ...]
    paces: tuple[PaceBand, ...]
    assumed: dict[str, Assumed]
    saw_kinds: list[KindLine]
    fields: tuple[FormField, ...]
    choices: tuple[Choice, ...]
    operations: tuple[OperationSentence, ...]
    finishes: dict[Finish, str]
    many_bending_hours: float
    scrap_reasons: tuple[str, ...]
    label_kinds: list[LabelKindLine]
    accessories: list[AccessoryName]
    holding: list[Holding]
    losses: Losses
    written: WrittenRules
    chances: ChanceEnds
    roughness: tuple[RoughnessClass, ...]
    disclaimer: str


def _form_line(form: ToothForm) -> FormLine:
    return FormLine(
        form.key,
        form.name,
        short_name(form.name),
        form.hook_deg,
        form.gullet_depth_frac_pitch,
        form.nominal_pitch_mm is not None,
        form.uses,
        form.limits,
    )


def _rule_line(rule: HouseRule) -> RuleLine:
    return RuleLine(
        key=rule.key,
        title=rule.title,
        choices=rule.choices,
        choice_names=tuple(table_text(name) for name in rule.choice_names),
        default=rule.default,
        why=table_text(rule.why),
        bears_on_choice=rule.key in RulesFile.model_fields,
    )


def reference(session: Session) -> Reference:
    """The tables, materials as this shop has them."""
    return Reference(
        materials=[
            MaterialLine(
                key=m.key,
                name=m.name,
                group=m.group,
                density_kg_m3=m.density_kg_m3,
                dust_hazard=m.dust_hazard,
                note=m.cautions,
                also=", ".join(other_names()[m.key].names) if m.key in other_names() else "",
                own=m != materials().get(m.key),
                is_metal=m.is_metal,
                is_grained=m.is_grained,
            )
            for m in material_table(session).values()
        ],
        steels=[NameLine(s.key, s.name, short_name(s.name), s.notes) for s in steels().values()],
        forms=[_form_line(form) for form in tooth_forms().values()],
        rules=[_rule_line(rule) for rule in house_rules().values()],
        edges=[
            EdgeLine(e.key, e.tip_radius_um, None if math.isinf(e.upto) else e.upto)
            for e in EDGE_STATES
        ],
        judgements=JUDGEMENTS,
        limits=dict(LIMIT_WORDS),
        limit_marks=dict(LIMIT_MARKS),
        usual=dict(USUAL),
        signs=signs(),
        paces=PACES,
        assumed=dict(ASSUMED),
        fields=form_fields(),
        choices=choices(),
        saw_kinds=[_kind_line(kind) for kind in starting_kinds()],
        operations=operation_sentences(),
        finishes=dict(FINISH_WORDS),
        many_bending_hours=MANY_BENDING_HOURS,
        scrap_reasons=SCRAP_REASONS,
        label_kinds=[LabelKindLine(k.key, k.name, k.a_page) for k in KINDS.values()],
        holding=list(holding().values()),
        accessories=[AccessoryName(a.key, a.title, a.price) for a in accessories().values()],
        losses=USUAL_LOSSES,
        written=written_rules(),
        chances=ENDS,
        roughness=classes(),
        disclaimer=DISCLAIMER,
    )


@dataclass(frozen=True)
class PageHelp:
    """A page of the interface and what it is for."""

    key: str
    title: str
    place: str
    help: str


@dataclass(frozen=True)
class TermHelp:
    """A term: what it is, why it matters, how it is measured."""

    key: str
    title: str
    also: str
    what: str
    why: str
    measure: str


@dataclass(frozen=True)
class Help:
    """A page for each station, and the glossary."""

    pages: list[PageHelp]
    terms: list[TermHelp]


def read_help() -> Help:
    """Help in working order, terms by their names."""
    return Help(
        pages=[PageHelp(p.key, p.title, p.place, p.help) for p in pages().values()],
        terms=[
            TermHelp(t.key, t.title, ", ".join(t.called), t.what, t.why, t.measure)
            for t in sorted(help_terms().values(), key=lambda t: t.title.casefold())
        ],
    )


FieldName = Annotated[str, Field(max_length=40)]


@dataclass(frozen=True)
class Meant:
    """The value probably meant; None when no usual mistake explains the one given."""

    value: float | None


def what_is_meant(field: FieldName, value: float) -> Meant:
    """What was probably meant by an unusual value: decimals, inches, minutes, diameters."""
    return Meant(meant(field, value))
