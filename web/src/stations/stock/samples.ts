/** A billet, a log and a mapped beam as the server answers for them, for tests of what draws them. */
import type { LogWorth, MetalPlanAnswer, StockAnswer, StockPlan } from "../../api/schema";

/** One part of a billet that bowed as it was opened. */
export const PART: StockAnswer = {
  id: 43,
  kind: "billet",
  label: "L-30/1",
  material: "european_larch_dry",
  material_name: "European larch (dry)",
  thickness_mm: 59.2,
  height_mm: 200.0,
  length_mm: 3800.0,
  small_end_mm: null,
  bark_mm: null,
  bow_mm: 3.0,
  twist_mm: 0.0,
  moisture_pct: 13.0,
  moisture_at: "2026-11-14T15:00:00Z",
  trued: "none",
  reactive: true,
  suspect: "none",
  price: 47.36,
  place: "timber loft",
  note: "",
  parent_id: 42,
  parent_label: "L-30",
  state: "in",
  volume_m3: 0.04499,
  readiness: {
    verdict: "not_ready",
    reasons: ["No face is flat yet: true one, and an edge square to it."],
    oversize_low: 0.0015,
    oversize_high: 0.0035,
  },
  photo_id: null,
  version: 1,
  change_id: null,
};

export const OTHER_PART: StockAnswer = { ...PART, id: 44, label: "L-30/2", bow_mm: -2.5 };

export const LOG: StockAnswer = {
  ...PART,
  id: 40,
  kind: "log",
  label: "G-14",
  material: "scots_pine_green",
  material_name: "Scots pine (green log)",
  thickness_mm: null,
  height_mm: null,
  length_mm: 4500.0,
  small_end_mm: 380.0,
  bark_mm: 12.0,
  bow_mm: 0.0,
  moisture_pct: 60.0,
  moisture_at: "2026-11-10T15:00:00Z",
  reactive: false,
  price: 70.0,
  place: "behind the slip",
  parent_id: null,
  parent_label: null,
  volume_m3: 0.5104,
  readiness: {
    verdict: "ready",
    reasons: [
      "At 60 % it will shrink 2 % to 6 % in thickness: cut so much over, rest it, then true it.",
    ],
    oversize_low: 0.024,
    oversize_high: 0.056,
  },
};

export const PLAN: StockPlan = {
  stock: PART,
  cut_with: {
    band_label: "",
    kerf_mm: 1.4,
    feed_m_min: 2.0,
    steel: "",
    edge_value: 0.0,
    slow: null,
    assumed: true,
  },
  billet: {
    worth: {
      ways: [
        {
          key: "true_first",
          sections: 1,
          slices: 3,
          pieces: 3,
          sawn_thickness_mm: 14.0,
          left_over_mm: 8.307,
          usable_mm: 54.51,
          piece_share: 0.6217,
          kerf_share: 0.06721,
          money_a_piece: 16.99,
          enough: false,
        },
        {
          key: "along_curve",
          sections: 1,
          slices: 3,
          pieces: 3,
          sawn_thickness_mm: 14.0,
          left_over_mm: 11.0,
          usable_mm: 57.2,
          piece_share: 0.6217,
          kerf_share: 0.06721,
          money_a_piece: 16.99,
          enough: false,
        },
      ],
      best: "true_first",
      words: "True it first: 3 pieces either way.",
      rule: "",
      flatten_force_N: 1.172,
      flatten_words: "",
      planed_a_piece: 13.99,
      planed_words: "Planing from thicker stock is 18 % cheaper a piece.",
    },
    laid: {
      slices: [
        {
          number: 1,
          from_mm: 0.0,
          to_mm: 14.0,
          piece: true,
          over_mm: 0.0,
        },
        {
          number: 2,
          from_mm: 15.4,
          to_mm: 29.4,
          piece: true,
          over_mm: 0.0,
        },
        {
          number: 3,
          from_mm: 30.8,
          to_mm: 44.8,
          piece: true,
          over_mm: 0.0,
        },
        {
          number: 4,
          from_mm: 46.2,
          to_mm: 54.51,
          piece: false,
          over_mm: -5.693,
        },
      ],
      pieces: 3,
      piece_share: 0.7705,
      kerf_share: 0.07705,
      rest_share: 0.1524,
    },
    cuts_mm: [14.0, 29.4, 44.8],
    usable_mm: 54.51,
    leaves: {
      leaves: [
        {
          number: 1,
          pair: 1,
          shows: "back",
          single: false,
        },
        {
          number: 2,
          pair: 1,
          shows: "face",
          single: false,
        },
        {
          number: 3,
          pair: 2,
          shows: "back",
          single: true,
        },
      ],
      panel_width_mm: 547.0,
    },
    opening: {
      way: "halve",
      from_face_mm: 28.9,
      pieces: 2,
      sure: true,
      words:
        "The last cut let it bow by 3 mm: halve it, rest both parts, measure their bow, and true them again. It gives 2 so; 3 from its face, if it stayed still.",
    },
    grew_mm: 3.0,
    siblings: [OTHER_PART],
  },
  log: null,
  metal: {
    marks: [],
    zones: [],
    strikes: 0.0,
    choice: null,
  },
  why_not: "",
  other_wood: "",
};

export const LOG_WORTH: LogWorth = {
  through: {
    boards: 12,
    board_area_mm2: 83830.0,
    recovery: 0.7391,
    widest_mm: 352.2,
  },
  boards: [
    {
      from_mm: -161.5,
      to_mm: -136.5,
      width_mm: 149.5,
    },
    {
      from_mm: -134.4,
      to_mm: -109.4,
      width_mm: 233.3,
    },
  ],
  cant: {
    cant_mm: 340.0,
    boards: 12,
    square_boards: 2,
    side_boards: 0,
    board_area_mm2: 83220.0,
    recovery: 0.7338,
    cuts: 15,
    laid: [
      {
        x_mm: -74.77,
        y_mm: -161.5,
        width_mm: 149.5,
        height_mm: 25.0,
        side: false,
      },
      {
        x_mm: -116.7,
        y_mm: -134.4,
        width_mm: 233.3,
        height_mm: 25.0,
        side: false,
      },
    ],
  },
  through_m3: 0.3739,
  cant_m3: 0.3712,
  through_money_m3: 197.7,
  cant_money_m3: 200.8,
  words: "Through and through and around a cant give about as much.",
};

/** A screw of known depth still in, one of unknown depth dug out, and what the first asks for. */
export const METAL: MetalPlanAnswer = {
  marks: [
    { id: 22, along_mm: 190, face: "face", depth_mm: 90, kind: "screw", state: "in", version: 1 },
    {
      id: 20,
      along_mm: 2290,
      face: "back",
      depth_mm: null,
      kind: "nail",
      state: "dug_out",
      version: 2,
    },
  ],
  zones: [{ from_mm: 115, to_mm: 265, marks: 1 }],
  strikes: 0.9,
  choice: null,
};
