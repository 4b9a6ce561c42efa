import { ask, askPatiently, client, Problem, wordsOf } from "../api/client";
import type { MaterialLine, Reference, SawAnswer, Shop, ShopEdit } from "../api/schema";
import { recall, remember } from "./storage";
import { SerialQueue } from "./sending/serialQueue";
import {
  type Kind,
  money,
  number,
  quantity,
  type Said,
  say,
  span,
  unitName,
  type Units,
  withDoubt,
} from "./figures/units";
import { takeRules } from "./figures/written";

type Theme = "light" | "dark";

const EVENTS: Readonly<Record<string, string>> = {
  arrived: "came in",
  sent_out: "sent out",
  returned: "came back",
  measured_set: "set measured",
  edge_judged: "judged",
  weld_stepped: "weld stepped",
  teeth_lost: "teeth lost",
  still_good: "still good",
  life_confirmed: "life confirmed",
  face_read: "face read",
  inspected: "looked over",
  looked_at: "looked at",
  made: "made here",
};

/** What a band type is named by. */
export interface TypeSizes {
  readonly width_mm: number;
  readonly thickness_mm: number;
  readonly tpi_lo: number | null;
  readonly tpi_hi: number | null;
  readonly form: string;
  readonly steel: string;
}

/** Settings, tables and saws that every station reads, loaded once and kept fresh by its edits. */
class ShopState {
  settings = $state<Shop | null>(null);
  reference = $state<Reference | null>(null);
  /** The saws that are worked with. */
  saws = $state<SawAnswer[]>([]);
  /** Saws that are only considered: never offered for work. */
  considered = $state<SawAnswer[]>([]);
  failed = $state<Said>("");
  #turns = new SerialQueue();
  units = $state<Units>(recall<Units>("units", "metric"));
  theme = $state<Theme>(
    recall<Theme>(
      "theme",
      globalThis.matchMedia?.("(prefers-color-scheme: dark)").matches ? "dark" : "light",
    ),
  );

  get currency(): string {
    return this.settings?.currency ?? "";
  }

  get ready(): boolean {
    return this.settings !== null && this.reference !== null;
  }

  async load(): Promise<void> {
    try {
      const [settings, reference] = await Promise.all([
        askPatiently(() => client.GET("/api/shop")),
        askPatiently(() => client.GET("/api/reference")),
        this.loadSaws(),
      ]);
      this.settings = settings;
      this.reference = reference;
      takeRules(reference.written);
      this.units = recall<Units>("units", settings.units);
      this.failed = "";
    } catch (problem) {
      this.failed = wordsOf(problem);
    }
  }

  async loadSaws(): Promise<void> {
    const all = await askPatiently(() => client.GET("/api/saws"));
    this.saws = all.filter((s) => !s.considered);
    this.considered = all.filter((s) => s.considered);
  }

  saw(id: number | null): SawAnswer | undefined {
    return [...this.saws, ...this.considered].find((s) => s.id === id);
  }

  /** A chance in whole per cent, never claiming certainty: the core's ends and words. */
  chance(share: number): string {
    const ends = this.reference?.chances;
    if (ends && share > ends.most) return ends.over;
    if (ends && share < ends.least) return ends.under;
    return `${Math.round(100 * share)} %`;
  }

  material(key: string): MaterialLine | undefined {
    return this.reference?.materials.find((m) => m.key === key);
  }

  /** A material as people call it; until the table has come, as nearly as its key tells. */
  materialName(key: string): string {
    return this.material(key)?.name ?? key.replaceAll("_", " ");
  }

  /** A band's steel as it stands in a sentence. */
  steel(key: string): string {
    return this.reference?.steels.find((s) => s.key === key)?.short ?? key.replaceAll("_", " ");
  }

  /** Its tooth form, likewise. */
  form(key: string): string {
    return this.reference?.forms.find((f) => f.key === key)?.short ?? key.replaceAll("_", " ");
  }

  /** What happened to a band, as it stands in its history. */
  eventName(kind: string): string {
    return EVENTS[kind] ?? kind;
  }

  /** Its teeth to the inch; null for an edge without teeth. */
  tpi({ tpi_lo: coarse, tpi_hi: fine }: TypeSizes): string | null {
    if (coarse === null) return null;
    return coarse === fine || fine === null ? `${coarse}` : `${coarse}–${fine}`;
  }

  /** A band's strip and teeth, in the shop's units. */
  bandSize(type: TypeSizes): string {
    const strip = `${this.number(type.width_mm, "length")} × ${this.number(type.thickness_mm, "thin")}`;
    const tpi = this.tpi(type);
    return `${strip} ${this.unit("length")}, ${tpi === null ? "continuous" : `${tpi} TPI`}`;
  }

  /** A band type by what it is, its sizes in the shop's units. */
  typeName(type: TypeSizes): string {
    return `${this.bandSize(type)} ${this.form(type.form)} ${this.steel(type.steel)}`;
  }

  /** A band by its label; one that is not on the rack by what it is. */
  bandName(band: TypeSizes & { band_id: number | null; label: string }): string {
    return band.band_id === null ? this.typeName(band) : band.label;
  }

  turnUnits(): void {
    this.units = this.units === "metric" ? "inch" : "metric";
    remember("units", this.units);
  }

  turnTheme(): void {
    this.theme = this.theme === "light" ? "dark" : "light";
    remember("theme", this.theme);
  }

  say(value: number, kind: Kind): string {
    return quantity(value, kind, this.units);
  }

  number(value: number, kind: Kind): string {
    return number(value, kind, this.units);
  }

  span(range: { low: number; high: number }, kind: Kind): string {
    return span(range.low, range.high, kind, this.units);
  }

  withDoubt(value: number, doubt: number, kind: Kind): string {
    return withDoubt(value, doubt, kind, this.units);
  }

  unit(kind: Kind): string {
    return unitName(kind, this.units);
  }

  /** A sentence of the core's, its quantities said in the shop's units. */
  words(text: Said): string {
    return say(text, this.units);
  }

  /** A range of money, in steps no finer than it is wide. */
  moneySpan(range: { low: number; high: number }): string {
    return `${this.currency} ${span(range.low, range.high, "plain", "metric")}`;
  }

  money(amount: number): string {
    return money(amount, this.currency);
  }

  /** Whether a value is one the core asks about before it computes. */
  unusual(field: string, value: number): boolean {
    const usual = this.reference?.usual[field];
    return usual !== undefined && (value < usual.low || value > usual.high);
  }

  /** The value probably meant by an unusual one, as the core tells; null when it cannot. */
  async meant(field: string, value: number): Promise<number | null> {
    if (!this.unusual(field, value)) return null;
    const answer = await ask(client.POST("/api/meant", { body: { field, value } }));
    return answer.value;
  }

  /** Saves what was changed; where somebody else saved meanwhile, shows it as it is now, and throws. */
  save(changed: Omit<ShopEdit, "version">): Promise<void> {
    return this.#turns.take(() => this.#save(changed));
  }

  async #save(changed: Omit<ShopEdit, "version">): Promise<void> {
    if (!this.settings) return;
    try {
      const body = { version: this.settings.version, ...changed };
      this.settings = await ask(client.PATCH("/api/shop", { body }));
    } catch (problem) {
      if (problem instanceof Problem && problem.current) await this.load();
      throw problem;
    }
  }
}

export const shop = new ShopState();
