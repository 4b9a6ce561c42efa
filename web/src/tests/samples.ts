/** Answers as the server gives them, for tests of the parts that draw them. */
import tables from "./reference.json";
import type {
  BandAnswer,
  BandFigures,
  BandPage,
  Explained,
  FeedWindow,
  Reference,
  SawAnswer,
  SetupStep,
  Shop,
  TensionCard,
} from "../api/schema";

export const BAND: BandFigures = {
  band_id: 7,
  label: "K-07",
  width_mm: 19,
  thickness_mm: 0.81,
  tpi_lo: 2,
  tpi_hi: 2,
  form: "hook",
  form_name: "Hook (positive rake)",
  steel: "silicon_steel",
  steel_name: "Silicon steel",
  length_mm: 3360,
  pitch_mm: 12.7,
  hook_deg: 10,
  gullet_depth_mm: 4.32,
  gullet_area_mm2: 34.7,
  body_width_mm: 14.68,
  kerf_mm: 1.43,
  set_per_side_mm: 0.31,
  set_source: "alternate set",
  dullness: 0.2,
  fouling: 0.1,
  edge: "keen",
  tip_radius_um: 8,
  mounted: false,
  place: "by the door",
};

export const WINDOW: FeedWindow = {
  limits_m_min: { gullet: 6.4, power: 2.5, stability: 41, edge: 22.5, hand: 12.1, bite: 4.1 },
  floor_m_min: 0.55,
  ceiling_m_min: 2.5,
  binding: "power",
  state: "open",
  recommended_m_min: 2,
};

/** Where eight draws in ten put the floor and the limits of WINDOW. */
export const SOFT = {
  floor: { low: 0.3, high: 1 },
  ceiling: { low: 1.9, high: 3.1 },
  limits: { power: { low: 1.9, high: 3.1 }, bite: { low: 2.9, high: 5.6 } },
};

export const EXPLAINED: Explained = {
  title: "Tension",
  value: 134.5,
  unit: "MPa",
  formula: "least of target and frame",
  inputs: [
    { name: "target", value: 150, unit: "MPa" },
    { name: "body width", value: 14.68, unit: "mm" },
    { name: "cost", value: 1.5, unit: "money" },
    { name: "share", value: 0.32, unit: "share" },
  ],
  source: "Reference table: steels",
  uncertainty: "About 10 %.",
  rule: "Tension target: full",
};

export const STEP: SetupStep = {
  key: "tension",
  title: "Tension",
  doors_open: true,
  do: "Raise it in small steps to 135 MPa.",
  check: "The gauge shows 65 µm.",
  wrong: "The saw's own scale.",
  figure: [{ value: 134.5, kind: "stress" }],
  readings: [
    { key: "stress_MPa", kind: "stress", label: "stress" },
    { key: "handle_turns", kind: "plain", label: "turns of the handle" },
  ],
  holds: "band",
  good_for_h: 12,
  reserve: "",
  moves_saw: true,
};

export const TENSION: TensionCard = {
  stress_MPa: 134.5,
  low_MPa: 110,
  high_MPa: 200,
  forms: {
    strand_force_N: 1600,
    wheel_force_N: 3200,
    strain: 0.000653,
    gauge_stretch_um: 65.3,
    band_stretch_mm: 2.19,
    wheel_travel_mm: 1.1,
    stress_psi: 19_513,
    stress_kgf_cm2: 1371,
  },
  wheel_force_N: 3200,
  gauge_length_mm: 100,
  free_span_mm: 1052,
  side_push: { force_N: 24.5, deflection_mm: 4, span_mm: 1052 },
  note_Hz: 61.3,
  note_name: "B1 −12",
  wheel_travel_mm: 1.1,
  frame_limit_N: 3200,
  scale: null,
  uncertainty: { gauge: 0.03, pluck: 0.04, push: 0.1, travel: 0.2 },
};

export const BAND_ANSWER: BandAnswer = {
  id: 7,
  label: "K-07",
  width_mm: 19,
  thickness_mm: 0.81,
  tpi_lo: 2,
  tpi_hi: 2,
  form: "hook",
  steel: "silicon_steel",
  length_mm: 3360,
  set_per_side_mm: null,
  price: null,
  place: "by the door",
  note: "",
  kept_for: "all",
  defects: [],
  teeth_lost: 0,
  still_good_asked: false,
  state: "rack",
  scrap_reason: null,
  arrived_at: "2026-01-01T00:00:00Z",
  sharpenings: 1,
  dullness: 0.4,
  fouling: 0.1,
  edge: "fair",
  tip_radius_um: 18,
  life_left_share: 0.6,
  edge_equivalent_m: 400,
  life_m: 10_000,
  bending_share: 0.01,
  runs: 2,
  last_run_at: "2026-03-01T00:00:00Z",
  mounted_on: null,
  mounted_saw_id: null,
  tension_state: null,
  version: 1,
};

export const PAGE: BandPage = {
  band: BAND_ANSWER,
  life: {
    median_m: 10_000,
    prior_m: 10_400,
    retired: 3,
    running: 2,
    left_90_m: 900,
    left_50_m: 4000,
    left_10_m: 11_000,
    doubted: [],
  },
  advice: "",
  runs: [
    {
      id: 1,
      at: "2026-02-01T00:00:00Z",
      job_id: 1,
      saw: "Shop saw",
      material: "european_larch_dry",
      operation: "resaw",
      height_mm: 185,
      length_mm: 3600,
      pieces: 7,
      feed_m_min: 2,
      time_s: 800,
      minutes_per_m2: 2.9,
      symptoms: ["burn"],
      note: "",
      who: "Odda",
      equivalent_m: 400,
      edge_after_m: 400,
      to_confirm: "",
    },
  ],
  events: [
    { id: 1, at: "2026-01-01T00:00:00Z", kind: "arrived", detail: "", value: null, who: "" },
    { id: 2, at: "2026-01-15T00:00:00Z", kind: "sharpened", detail: "", value: null, who: "" },
  ],
};

export const SETTINGS = {
  name: "Here",
  units: "metric",
  currency: "€",
  gauge_length_mm: 100,
  guard_gap_mm: 10,
  paper: "a4" as const,
  rules: { tension: "full", resaw_width: "frame", least_teeth: "3" },
  rates: {},
  people: ["Odda", "Brill"],
} as unknown as Shop;

/** The core's own tables, as `jade-ribbon reference` prints them. */
export const REFERENCE = tables as unknown as Reference;

export const SAW = {
  id: 2,
  saw: { name: "Shop saw", height_mm: 300, motor_kW: 1.5 },
  assumed: [],
  note: "",
  mounted_band_id: null,
  mounted_label: null,
  tension_state: "slack",
  tension_since: null,
  tension_stress_MPa: null,
} as unknown as SawAnswer;
