/** What a shop pays, and where it draws its lines, in working order. */
import type { Rates, Shop } from "../../../api/schema";
import type { Kind } from "../../../lib/units";

export interface RateLine {
  readonly key: keyof Rates;
  readonly label: string;
  readonly help: string;
  readonly kind?: Kind;
}
export const RATES: readonly RateLine[] = [
  { key: "hour", label: "An hour of work", help: "What an hour at the saw costs the shop." },
  {
    key: "machine_hour",
    label: "An hour of a power saw",
    help: "Of a saw that feeds itself: its time is not all somebody’s wage.",
  },
  { key: "timber_m3", label: "Timber, per m³", help: "Kerf is paid at this price." },
  {
    key: "change_min",
    label: "Changing a band, minutes",
    help: "Off, on, tracked, tensioned, guided.",
  },
  {
    key: "price_per_m_base",
    label: "Band price per metre, to start",
    help: "Usual price: this, plus the next line for each mm of width, times the steel’s relative price.",
  },
  { key: "price_per_m_per_mm", label: "… and per mm of width", help: "" },
  {
    key: "price_factor",
    label: "Your prices against those",
    help: "1.2 if your supplier is a fifth dearer.",
  },
  { key: "power_kWh", label: "Power, per kWh", help: "0 leaves it out." },
  {
    key: "hand_feed_max_m_min",
    label: "Fastest feed by hand",
    help: "No one keeps more up.",
    kind: "feed",
  },
  { key: "hand_feed_plastic_m_min", label: "The same in plastics", help: "", kind: "feed" },
  { key: "hand_feed_metal_m_min", label: "The same in metals", help: "", kind: "feed" },
  { key: "hand_feed_foam_m_min", label: "The same in foam", help: "", kind: "feed" },
  { key: "hand_feed_curve_m_min", label: "The same in curves", help: "", kind: "feed" },
  {
    key: "hand_feed_thin_m_min",
    label: "The same in thin stock",
    help: "Stock so low that hands come near the band.",
    kind: "feed",
  },
  { key: "plane_min_m2", label: "Planing, minutes per m²", help: "From rough to planed." },
  { key: "sand_min_m2", label: "Sanding, minutes per m²", help: "From planed to sanded." },
  { key: "show_min_m2", label: "Show face, minutes per m²", help: "From sanded to show." },
  {
    key: "gullet_share_of_width",
    label: "Deepest gullet, share of the width",
    help: "Deeper ones leave too little body.",
  },
  { key: "comfortable_factor", label: "Comfortable radius, times the tightest", help: "" },
  { key: "comfortable_factor_hard", label: "… in green or deep stock", help: "" },
  {
    key: "teeth_missing_allowed",
    label: "Teeth a band may lack, 0 or 1",
    help: "A band with more lost stays off the saw until mended.",
  },
  { key: "dullness_show", label: "Dullest edge for show faces", help: "0 keen, 1 at its limit." },
  { key: "dullness_sand", label: "… ready to sand", help: "" },
  { key: "dullness_plane", label: "… to be planed", help: "" },
  { key: "dullness_rough", label: "… left rough", help: "" },
];

export interface TermLine {
  readonly key: keyof Shop["rack"];
  readonly label: string;
  readonly help: string;
}
/** What sharpening takes, and how surely spares are wanted. */
export const TERMS: readonly TermLine[] = [
  { key: "in_house_min", label: "Sharpening in house, minutes", help: "One band, off the saw." },
  { key: "in_house_money", label: "… and in wheels and wear", help: "" },
  { key: "on_saw_min", label: "Sharpening on the saw, minutes", help: "The saw stands meanwhile." },
  { key: "on_saw_money", label: "… and in wheels and wear", help: "" },
  { key: "out_money", label: "Sent out, each", help: "With its share of the postage." },
  { key: "out_days", label: "… days away", help: "Turns into spares that must stand in." },
  { key: "handling_min", label: "… minutes to pack and unpack", help: "" },
  {
    key: "service",
    label: "Spares: chance not to run out",
    help: "0.9: once in ten waits nothing is left.",
  },
  { key: "lead_weeks", label: "Weeks until new bands come", help: "" },
];
