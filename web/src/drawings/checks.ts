/** Where on the saw a check is made, and with what: one elevation of a saw, the place ringed. */
import { along, arrow, band, box, line, type Mark, ring, shape, turn } from "./marks";

export const WIDE = 150;
export const HIGH = 170;

const UPPER = [60, 34] as const;
const LOWER = [60, 134] as const;
const R = 24;

/** The saw seen from the front, doors off: wheels, band, guides, table, motor, port. */
export const SAW: readonly Mark[] = [
  {
    as: "paper",
    d: shape([28, 4], [92, 4], [92, 62], [48, 62], [48, 100], [92, 100], [92, 164], [28, 164]),
  },
  {
    as: "hair",
    d: shape([28, 4], [92, 4], [92, 62], [48, 62], [48, 100], [92, 100], [92, 164], [28, 164]),
  },
  { as: "steel", d: ring(...UPPER, R) + ring(...LOWER, R) },
  { as: "soft", d: ring(...UPPER, R) + ring(...UPPER, 3) + ring(...LOWER, R) + ring(...LOWER, 3) },
  { as: "ink", d: line([84, 34], [84, 134]) + line([36, 34], [36, 134]) },
  { as: "soft", d: box(78, 66, 5, 6) + box(85, 66, 5, 6) + box(78, 92, 5, 6) + box(85, 92, 5, 6) },
  { as: "soft", d: line([64, 88], [126, 88]) + line([64, 91], [126, 91]) },
  { as: "wood", d: box(92, 76, 26, 12) },
  { as: "soft", d: box(8, 126, 18, 22) + line([26, 137], [57, 134]) },
  { as: "soft", d: ring(96, 152, 5) },
];

type Place = readonly [x: number, y: number, r: number];
const PLACES: Readonly<Record<string, Place>> = {
  wheels: [60, 34, 29],
  lower: [60, 134, 29],
  guides: [84, 69, 12],
  below: [84, 95, 12],
  span: [36, 84, 13],
  band: [84, 82, 13],
  table: [104, 90, 20],
  work: [105, 80, 18],
  motor: [17, 137, 16],
  port: [96, 152, 11],
  frame: [60, 82, 40],
};

const AT: Readonly<Record<string, readonly string[]>> = {
  no_load: ["frame"],
  run_up: ["motor"],
  teeth_count: ["band"],
  tick_rate: ["frame"],
  marks_rate: ["work"],
  speed_read: ["lower"],
  thrust_slip: ["guides", "below"],
  guide_spin: ["guides", "below"],
  guide_depth: ["guides"],
  walk_round: ["frame", "port"],
  load_note: ["motor", "work"],
  watch_band: ["band"],
  feed_time: ["work"],
  steady_cut: ["work"],
  teeth_look: ["band"],
  heat_feel: ["guides", "motor"],
  doors_look: ["wheels", "lower"],
  kerf_behind: ["work"],
  guides_look: ["guides", "below"],
  guides_open: ["guides", "below"],
  pluck: ["span"],
  hand_track: ["wheels", "lower"],
  square_table: ["table"],
  weld_chalk: ["band"],
  fence_true: ["table"],
  other_stock: ["work"],
  half_height: ["work"],
  two_feeds: ["work"],
  scale_zero: ["wheels"],
  shift_speed: ["lower", "motor"],
  drift_line: ["work"],
  flip_fence: ["table"],
  set_sides: ["band"],
  belt_hand: ["motor"],
  band_straight: ["band"],
  tyre_look: ["wheels", "lower"],
  band_turn: ["band"],
  wheel_plane: ["wheels", "lower"],
  wheel_rock: ["wheels", "lower"],
  clean_wax: ["band"],
  swap_band: ["span", "band"],
  stock_look: ["work"],
  stock_handle: ["work"],
};
/** Checks that are made away from the saw, in the head or on a card. */
const AWAY = ["when_began", "plan_fit", "bending_card"];

/** What somebody does there, over the ringed place. */
const DONE: Readonly<Record<string, readonly Mark[]>> = {
  wheel_plane: [{ as: "jade", d: box(30, 8, 3, 152) }],
  hand_track: [{ as: "move", d: turn(60, 34, 15, 200, 60) + turn(60, 134, 15, 200, 60) }],
  pluck: [
    {
      as: "move",
      d: arrow([22, 84], [33, 84]) + line(...along(20, 52, (x) => 108 + 3 * Math.sin(x), 60)),
    },
  ],
  square_table: [
    { as: "jade", d: shape([86, 60], [89, 60], [89, 85], [112, 85], [112, 88], [86, 88]) },
  ],
  drift_line: [{ as: "dash", d: line([92, 82], [124, 78]) }],
  feed_time: [{ as: "move", d: arrow([128, 82], [112, 82]) }],
  two_feeds: [{ as: "move", d: arrow([138, 80], [120, 80]) + arrow([128, 85], [120, 85], 4) }],
  no_load: [{ as: "move", d: turn(60, 34, 34, 160, 60) }],
  speed_read: [{ as: "move", d: turn(60, 134, 34, 60, 140) }],
  belt_hand: [{ as: "move", d: arrow([40, 122], [40, 134]) }],
  heat_feel: [{ as: "move", d: arrow([112, 60], [94, 67]) }],
  thrust_slip: [{ as: "jade", d: box(90, 67, 20, 2) + box(90, 94, 20, 2) }],
  guides_look: [{ as: "jade", d: box(90, 67, 20, 2) + box(90, 94, 20, 2) }],
  tyre_look: [{ as: "jade", d: box(36, 8, 48, 2) }],
};

const TURNS: Readonly<Record<string, readonly string[]>> = {
  weld: ["band", "span"],
  wheel: ["wheels", "lower"],
  tooth: ["band"],
  motor: ["motor"],
  belt: ["motor", "lower"],
  mains: ["motor"],
};

/** A saw with the place ringed where something turns: weld, wheel_1, tooth, motor, belt, mains. */
export function turningMarks(source: string): readonly Mark[] {
  const places = TURNS[source.split("_")[0] ?? ""] ?? [];
  const rings = places.map((p) => ring(...(PLACES[p] as Place))).join("");
  return rings ? [...SAW, { as: "mark", d: rings }] : SAW;
}

/** A saw with the places of a check ringed; for one made away from it, a card and a band. */
export function checkMarks(key: string): readonly Mark[] {
  if (AWAY.includes(key) || !AT[key]) {
    return [
      { as: "paper", d: box(30, 34, 90, 96) },
      { as: "hair", d: box(30, 34, 90, 96) },
      { as: "soft", d: [54, 68, 82, 96, 110].map((y) => line([42, y], [96, y])).join("") },
      { as: "steel", d: band(104, 40, 124) },
      { as: "ink", d: band(104, 40, 124) },
    ];
  }
  const rings = AT[key].map((p) => ring(...(PLACES[p] as Place))).join("");
  return [...SAW, ...(DONE[key] ?? []), { as: "mark", d: rings }];
}
