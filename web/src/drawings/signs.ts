/**
 * Forty signs in one hand: faces, edges, tracks on the wheel, what is felt and heard. Each is drawn
 * on 120 by 80, the fault larger than life beside what it should be (dashed).
 */
import { along, arrow, band, box, down, line, type Mark, ring, shape, turn } from "./marks";

export const WIDE = 120;
export const HIGH = 80;

type Draw = () => readonly Mark[];

/** A board seen from above with the kerf through it, and the line that was meant. */
function fromAbove(kerf: (x: number) => number, meant: (x: number) => number = () => 40): Mark[] {
  return [
    { as: "wood", d: box(6, 14, 92, 52) },
    { as: "grain", d: line(...along(6, 98, (x) => 24 + Math.sin(x / 20))) },
    { as: "grain", d: line(...along(6, 98, (x) => 57 + Math.sin(x / 16))) },
    { as: "dash", d: line(...along(6, 114, meant)) },
    { as: "ink", d: line(...along(6, 98, kerf)) },
  ];
}

/** Something solid: filled, with its edge drawn. */
function solid(d: string, fill: "steel" | "jade" = "steel"): Mark[] {
  return [
    { as: fill, d },
    { as: "ink", d },
  ];
}

/** The end of a sawn board: its left face should stand where the dashes are. */
function ofEnd(face: (y: number) => number): Mark[] {
  const left = down(8, 72, (y) => 40 + face(y));
  return [
    { as: "wood", d: shape(...left, [82, 72], [82, 8]) },
    { as: "grain", d: line(...down(12, 68, (y) => 58 + 3 * Math.sin(y / 14))) },
    { as: "grain", d: line(...down(12, 68, (y) => 70 + 3 * Math.sin(y / 14))) },
    { as: "dash", d: line([40, 4], [40, 76]) },
    { as: "ink", d: line(...left) },
  ];
}

/** A sawn face seen from the front, its upper edge in profile. */
function ofFace(edge: (x: number) => number, more: readonly Mark[]): Mark[] {
  const top = along(6, 114, (x) => 18 + edge(x), 80);
  return [
    { as: "sawn", d: shape(...top, [114, 70], [6, 70]) },
    ...more,
    { as: "ink", d: line(...top) },
  ];
}

const ridges = (from: number, every: number, slant: number): string =>
  Array.from({ length: Math.floor((108 - slant) / every) }, (_, i) =>
    line([from + slant + i * every, 20], [from + i * every, 69]),
  ).join("");

/** A wheel's rim seen from the side where the band runs, front at the left. */
function rim(x: number, wide = 34): Mark[] {
  const crown = along(x, x + wide, (at) => 22 - 4 * Math.sin((Math.PI * (at - x)) / wide));
  return [
    { as: "steel", d: shape(...crown, [x + wide, 62], [x, 62]) },
    { as: "soft", d: line([x, 30], [x + wide, 30]) },
    { as: "ink", d: line(...crown) },
  ];
}

const onRim = (x: number, wide = 16, y = 13): Mark => ({ as: "jade", d: box(x, y, wide, 4) });

/** A work on the table before the band, from the side. */
function atTheBand(more: readonly Mark[], work = 62): Mark[] {
  return [
    { as: "soft", d: line([6, 66], [114, 66]) },
    { as: "wood", d: box(work - 48, 34, 48, 32) },
    ...solid(band(70, 6, 76)),
    ...more,
  ];
}

const wave = (from: number, to: number, y: number, size: number, length: number) =>
  line(...along(from, to, (x) => y - size * Math.sin((2 * Math.PI * (x - from)) / length), 120));

/** The band between its guides, from the front. */
function between(strands: readonly string[]): Mark[] {
  return [
    { as: "steel", d: box(36, 8, 16, 10) + box(68, 8, 16, 10) },
    { as: "steel", d: box(36, 62, 16, 10) + box(68, 62, 16, 10) },
    ...strands.map((d, i) => ({ as: i === 0 ? ("ink" as const) : ("dash" as const), d })),
  ];
}

const loop: Mark[] = [
  { as: "soft", d: ring(60, 20, 13) + ring(60, 60, 13) },
  { as: "ink", d: line([47, 20], [47, 60]) + line([73, 20], [73, 60]) },
];

const star = (x: number, y: number, r: number): string =>
  [0, 45, 90, 135]
    .map((deg) => {
      const a = (deg * Math.PI) / 180;
      return line(
        [x - r * Math.cos(a), y - r * Math.sin(a)],
        [x + r * Math.cos(a), y + r * Math.sin(a)],
      );
    })
    .join("");

const dial = (x: number, deg: number): Mark[] => {
  const a = (deg * Math.PI) / 180;
  return [
    { as: "paper", d: ring(x, 40, 24) },
    { as: "ink", d: ring(x, 40, 24) },
    {
      as: "soft",
      d: [200, 235, 270, 305, 340]
        .map((t) => {
          const b = (t * Math.PI) / 180;
          return line(
            [x + 19 * Math.cos(b), 40 + 19 * Math.sin(b)],
            [x + 23 * Math.cos(b), 40 + 23 * Math.sin(b)],
          );
        })
        .join(""),
    },
    { as: "move", d: line([x, 40], [x + 18 * Math.cos(a), 40 + 18 * Math.sin(a)]) },
  ];
};

const lying = (gone: readonly number[] = [], wide = 16): Mark[] => [
  ...solid(band(50, 4, 76, { wide, gone })),
];

const broken = (at: readonly Mark[], weld: boolean): Mark[] => [
  ...solid(band(46, 2, 36, { wide: 20 }) + band(56, 44, 78, { wide: 20 })),
  ...(weld ? [{ as: "burn" as const, d: box(50, 31, 16, 5) + box(60, 44, 16, 5) }] : []),
  ...at,
];

export const SIGNS: Readonly<Record<string, Draw>> = {
  wander: () => fromAbove((x) => 40 + 9 * Math.sin(x / 12)),
  drift: () => fromAbove((x) => 40 - 0.17 * (x - 6)),
  barrel: () => ofEnd((y) => -11 * (1 - ((y - 40) / 32) ** 2)),
  lean: () => ofEnd((y) => 0.3 * (y - 40)),
  taper: () => [
    { as: "wood", d: shape([6, 28], [114, 38], [114, 56], [6, 62]) },
    { as: "dash", d: box(6, 33, 108, 24) },
    { as: "ink", d: line([6, 28], [114, 38]) + line([6, 62], [114, 56]) },
    { as: "move", d: arrow([3, 45], [3, 29], 4) + arrow([3, 45], [3, 61], 4) },
    { as: "move", d: arrow([117, 47], [117, 39], 3) + arrow([117, 47], [117, 55], 3) },
  ],
  waves: () =>
    ofFace(
      (x) => 6 * Math.sin(x / 9),
      [0, 1, 2, 3, 4].map((i) => ({
        as: "grain" as const,
        d: line(...along(6, 114, (x) => 30 + 9 * i + 3 * Math.sin(x / 9))),
      })),
    ),
  washboard: () =>
    ofFace((x) => 2.5 * Math.abs(Math.sin(x / 2.6)), [{ as: "burn", d: ridges(4, 8.2, 10) }]),
  fine_marks: () => ofFace(() => 0, [{ as: "grain", d: ridges(4, 4.2, 6) }]),
  burn: () =>
    ofFace(
      () => 0,
      [
        { as: "burn", d: shape([20, 24], [58, 21], [64, 33], [26, 36]) },
        { as: "burn", d: shape([50, 44], [104, 40], [108, 52], [56, 58]) },
        { as: "burn", d: line([10, 62], [90, 60]) + line([14, 66], [70, 64]) },
      ],
    ),
  fuzz: () => [
    { as: "wood", d: box(6, 10, 100, 38) },
    { as: "grain", d: line([6, 22], [106, 20]) + line([6, 34], [106, 35]) },
    {
      as: "ink",
      d: Array.from({ length: 24 }, (_, i) => {
        const x = 9 + i * 4.1;
        return line([x, 48], [x + ((i * 7) % 5) - 2, 58 + ((i * 11) % 13)]);
      }).join(""),
    },
    { as: "ink", d: line([6, 48], [106, 48]) },
    { as: "move", d: arrow([113, 14], [113, 60]) },
  ],
  step: () =>
    ofFace(
      (x) => (x > 62 ? 7 : 0),
      [
        { as: "ink", d: line([62, 18], [58, 70]) },
        { as: "hair", d: line([66, 25], [62, 70]) },
      ],
    ),
  one_face_rough: () => [
    { as: "wood", d: box(34, 10, 52, 60) },
    { as: "ink", d: line([34, 10], [34, 70]) },
    {
      as: "ink",
      d: line(...down(10, 70, (y) => 86 + 2.4 * Math.sin(y * 2.1) + 1.6 * Math.sin(y * 0.9), 90)),
    },
    { as: "burn", d: [16, 26, 36, 46, 56].map((y) => line([78, y], [85, y + 6])).join("") },
    { as: "move", d: arrow([110, 40], [92, 40]) },
  ],
  dust: () => [
    ...atTheBand([], 68).slice(0, 4),
    {
      as: "chip",
      d: Array.from({ length: 46 }, (_, i) =>
        ring(88 + ((i * 37) % 26) * (i / 46), 74 - ((i * 13) % 7) * (1 - i / 60), 0.9),
      ).join(""),
    },
    { as: "chip", d: shape([76, 76], [92, 70], [112, 76]) },
  ],
  packed: () => [
    { as: "steel", d: band(44, 4, 76, { wide: 30, pitch: 18 }) },
    {
      as: "chip",
      d: [0, 1, 2, 3]
        .map((i) =>
          shape([48.5, 4 + 18 * i], [48.5, 10 + 18 * i], [44, 21 + 18 * i], [42, 8 + 18 * i]),
        )
        .join(""),
    },
    { as: "ink", d: band(44, 4, 76, { wide: 30, pitch: 18 }) },
    { as: "wood", d: box(8, 4, 30, 72) },
    { as: "ink", d: line([38, 4], [38, 76]) },
  ],
  pinches: () => [
    { as: "wood", d: shape([6, 14], [98, 14], [98, 39], [60, 39], [6, 37.5]) },
    { as: "wood", d: shape([6, 66], [98, 66], [98, 41], [60, 41], [6, 38.5]) },
    { as: "ink", d: line([98, 39], [60, 39], [6, 37.5]) + line([98, 41], [60, 41], [6, 38.5]) },
    ...solid(box(64, 36, 22, 8)),
    { as: "move", d: arrow([30, 20], [30, 34]) + arrow([30, 60], [30, 44]) },
  ],
  hard_push: () =>
    atTheBand([
      {
        as: "mark",
        d:
          arrow([2, 48], [30, 48], 10) +
          arrow([2, 54], [30, 54], 10) +
          arrow([2, 42], [30, 42], 10),
      },
    ]),
  no_bite: () => [
    { as: "soft", d: line([6, 66], [114, 66]) },
    { as: "wood", d: box(16, 34, 52, 32) },
    ...solid(band(70, 6, 76, { dull: 2.6 })),
    { as: "ink", d: line([68, 34], [68, 66]) },
    { as: "move", d: arrow([28, 50], [50, 50]) },
    { as: "mark", d: line([92, 40], [104, 52]) + line([104, 40], [92, 52]) },
  ],
  wont_turn: () =>
    fromAbove(
      (x) => (x < 46 ? 58 - 0.02 * (x - 6) : 57.2),
      (x) => 58 - ((x - 6) / 108) ** 2 * 48,
    ),
  twists: () => [
    { as: "steel", d: box(40, 14, 14, 52) + box(68, 14, 14, 52) },
    { as: "dash", d: box(56, 18, 10, 44) },
    ...solid(shape([50, 20], [57, 17], [71, 60], [64, 63]), "jade"),
    { as: "move", d: turn(60, 40, 32, -150, -70) },
  ],
  chatter: () => [
    ...atTheBand([], 64),
    { as: "dash", d: box(14, 28, 48, 32) },
    { as: "move", d: arrow([26, 62], [26, 24], 4) + arrow([26, 24], [26, 62], 4) },
    { as: "ink", d: line([8, 70], [14, 74]) + line([30, 70], [30, 76]) + line([54, 70], [48, 74]) },
  ],
  motor_bogs: () => [
    { as: "steel", d: box(8, 24, 30, 32) },
    { as: "ink", d: box(8, 24, 30, 32) + line([38, 40], [46, 40]) },
    {
      as: "move",
      d: line(
        ...along(
          50,
          116,
          (x) => {
            const s = (x - 50) / 66;
            return 40 - (14 - 6 * s) * Math.sin(2 * Math.PI * (7 * s - 4.2 * s * s));
          },
          160,
        ),
      ),
    },
  ],
  slip: () => [
    { as: "steel", d: ring(40, 44, 26) },
    { as: "ink", d: ring(40, 44, 26) + ring(40, 44, 3) },
    { as: "jade", d: `${ring(40, 44, 31)}` },
    { as: "steel", d: ring(40, 44, 27) },
    { as: "ink", d: ring(40, 44, 31) + ring(40, 44, 27) },
    { as: "move", d: turn(40, 44, 18, 160, 20) },
    { as: "mark", d: arrow([92, 20], [92, 34], 5) },
    { as: "dash", d: line([92, 34], [92, 66]) },
  ],
  tick: () => [
    ...loop,
    { as: "mark", d: box(44, 36, 6, 8) },
    { as: "ink", d: "M84 62H90L91 44L92 62H101L102 44L103 62H112L113 44L114 62" },
    { as: "move", d: turn(60, 40, 38, 100, 150) },
  ],
  vibration: () => [
    ...solid(
      line([34, 8], [74, 8], [74, 34], [64, 40], [64, 48]) + "L92 48L92 54L76 54L76 74L34 74Z",
    ),
    {
      as: "move",
      d:
        [18, 34, 50, 66]
          .map((y) => line([26, y], [22, y + 4], [28, y + 8], [24, y + 12]))
          .join("") +
        [18, 34, 60].map((y) => line([98, y], [102, y + 4], [96, y + 8], [100, y + 12])).join(""),
    },
  ],
  squeal: () => [
    ...between([line([60, 2], [60, 78])]),
    {
      as: "mark",
      d: line(...[0, 1, 2, 3, 4, 5, 6, 7].map((i) => [90 + 3.4 * i, i % 2 ? 22 : 58] as const)),
    },
  ],
  hum: () => [
    { as: "steel", d: box(8, 22, 34, 36) },
    { as: "ink", d: box(8, 22, 34, 36) + ring(25, 40, 9) },
    { as: "move", d: wave(48, 116, 40, 9, 34) },
  ],
  flutter: () => [
    ...between([
      line([60, 2], [60, 78]),
      line([60, 2], ...down(18, 62, (y) => 60 - 7 * Math.sin((Math.PI * (y - 18)) / 44)), [60, 78]),
      line([60, 2], ...down(18, 62, (y) => 60 + 7 * Math.sin((Math.PI * (y - 18)) / 44)), [60, 78]),
    ]),
    { as: "move", d: arrow([60, 40], [48, 40], 4) + arrow([60, 40], [72, 40], 4) },
  ],
  smoke: () => [
    ...atTheBand([]),
    {
      as: "stop",
      d: [66, 78, 90]
        .map((x, i) => line(...down(4, 34 - 3 * i, (y) => x + 4 * Math.sin((y + 9 * i) / 4))))
        .join(""),
    },
    { as: "burn", d: box(58, 34, 4, 32) },
  ],
  sparks: () => [
    ...atTheBand([]),
    { as: "stop", d: star(92, 56, 7) + star(104, 68, 5) + star(88, 72, 4) + star(108, 50, 3) },
  ],
  gauge_disagrees: () => [...dial(32, 215), ...dial(88, 325)],
  climbs_forward: () => [
    ...rim(42),
    onRim(34),
    { as: "dash", d: box(51, 13, 16, 4) },
    { as: "move", d: arrow([50, 6], [28, 6]) },
    { as: "soft", d: line([59, 62], [59, 74]) },
  ],
  climbs_backward: () => [
    ...rim(42),
    onRim(68),
    { as: "dash", d: box(51, 13, 16, 4) },
    { as: "move", d: arrow([68, 6], [92, 6]) },
    { as: "soft", d: line([59, 62], [59, 74]) },
  ],
  wheels_differ: () => [...rim(12), onRim(13), ...rim(72), onRim(88)],
  hunts: () => [
    ...rim(42),
    onRim(51),
    { as: "dash", d: box(42, 13, 16, 4) + box(61, 13, 16, 4) },
    { as: "move", d: arrow([59, 6], [40, 6]) + arrow([59, 6], [78, 6]) },
  ],
  thrust_turns: () => [
    ...solid(band(38, 4, 76, { wide: 18 })),
    { as: "steel", d: ring(74, 40, 17.5) },
    { as: "ink", d: ring(74, 40, 17.5) + ring(74, 40, 3) },
    { as: "move", d: turn(74, 40, 25, -60, 60) },
  ],
  back_worn: () => [
    ...solid(band(40, 4, 76, { wide: 26 })),
    {
      as: "paper",
      d: shape(
        [68, 22],
        ...down(22, 58, (y) => 66 - 5 * Math.sin((Math.PI * (y - 22)) / 36)),
        [68, 58],
      ),
    },
    {
      as: "mark",
      d: line(
        [66, 20],
        ...down(22, 58, (y) => 66 - 5 * Math.sin((Math.PI * (y - 22)) / 36)),
        [66, 60],
      ),
    },
    { as: "burn", d: box(66, 14, 3, 7) + box(66, 59, 3, 7) },
  ],
  dulls_soon: () => [
    { as: "dash", d: box(8, 24, 104, 12) },
    { as: "jade", d: box(8, 24, 30, 12) },
    { as: "ink", d: box(8, 24, 30, 12) },
    {
      as: "soft",
      d: line([8, 46], [112, 46]) + line([8, 43], [8, 49]) + line([112, 43], [112, 49]),
    },
    { as: "steel", d: shape([44, 74], [50, 58], [56, 58], [62, 74]) },
    { as: "ink", d: `${line([44, 74], [51, 58])}Q53 55 55 58${line([55, 58], [62, 74])}` },
  ],
  snaps_weld: () => broken([{ as: "stop", d: line([44, 38], [80, 42]) }], true),
  snaps_body: () =>
    broken([{ as: "stop", d: line([46, 36], [54, 42], [60, 36], [78, 44]) }], false),
  gullet_cracks: () => [
    ...lying([], 34),
    {
      as: "stop",
      d: [1, 3, 5].map((i) => line([54.5, 4 + 9 * i], [62, 6 + 9 * i], [70, 3 + 9 * i])).join(""),
    },
  ],
  teeth_stripped: () => [
    ...lying([2, 3, 4], 34),
    {
      as: "stop",
      d: line([44, 20], [50, 24]) + line([44, 34], [50, 34]) + line([44, 48], [50, 44]),
    },
  ],
};

/** What a sign is drawn of; nothing for one that has no drawing. */
export function signMarks(key: string): readonly Mark[] {
  return SIGNS[key]?.() ?? [];
}
