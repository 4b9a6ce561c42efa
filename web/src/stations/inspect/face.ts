import type { FaceInput } from "../../api/schema";
import type { PlaceToRead } from "../../drawings/relief";

/** A face that is being read, kept with its job until it is saved. */
export interface FaceDraft {
  points: "four" | "nine" | "any";
  /** Places tapped on the board, where any may be read. */
  own: PlaceToRead[];
  /** By place, as typed in the units shown. */
  typed: string[];
  piece: string;
  simulated: boolean;
  roughness: number | null;
  ridge_mm: number | null;
  /** It is a trial on another wood. */
  trial: string;
  guided: NonNullable<FaceInput["guided"]>;
}

export const BLANK_FACE: FaceDraft = {
  points: "nine",
  own: [],
  typed: [],
  piece: "",
  simulated: false,
  roughness: null,
  ridge_mm: null,
  trial: "",
  guided: "",
};

/** What the work was led by. */
export const LED: Readonly<Record<string, string>> = {
  "": "not said",
  fence: "the fence",
  point: "a single point",
  line: "a scribed line, by hand",
};

/** ", led by the fence", where it was said. */
export function ledBy(guided: string): string {
  return guided ? `, led by ${LED[guided] ?? guided}` : "";
}
