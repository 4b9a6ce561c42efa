/** What the tables know of faults, read once; and words that the pages share. */
import { askPatiently, client } from "../../api/client";
import type { FaultsKnown, SignShown } from "../../api/schema";

class KnownFaults {
  all = $state.raw<FaultsKnown | null>(null);

  async load(): Promise<void> {
    this.all ??= await askPatiently(() => client.GET("/api/faults/known"));
  }

  sign(key: string): SignShown | undefined {
    return this.all?.signs.find((s) => s.key === key);
  }

  /** Signs group by group, in the order they are offered. */
  get groups(): { name: string; signs: SignShown[] }[] {
    const found: { name: string; signs: SignShown[] }[] = [];
    for (const sign of this.all?.signs ?? []) {
      const last = found.at(-1);
      if (last?.name === sign.group_name) last.signs.push(sign);
      else found.push({ name: sign.group_name, signs: [sign] });
    }
    return found;
  }
}

export const known = new KnownFaults();

export const DEGREES = [
  ["clear", "clear"],
  ["slight", "slight"],
  ["absent", "looked: not there"],
] as const;

/** What each instrument is called. */
export const NEEDS: Readonly<Record<string, string>> = {
  nothing: "nothing but eyes and hands",
  light: "a light",
  rule: "a rule",
  scrap: "a scrap to saw",
  gloves: "gloves",
  feeler: "feeler slips",
  square: "a square",
  straightedge: "a long straightedge",
  caliper: "a caliper",
  gauge: "a tension gauge",
  microphone: "a microphone (this device)",
  tachometer: "a tachometer or the drive’s display",
  wax: "wax",
};

/** Where a remedy or a check is done: its page, and what it is called. */
export function placeOf(
  opens: string,
  ids: { saw: number; band: number | null; job: number | null },
): { href: string; name: string } | null {
  const [station, step] = opens.split(".");
  const named = (step ?? "").replaceAll("_", " ");
  if (station === "rack") {
    return ids.band === null
      ? { href: "#/rack", name: "the rack" }
      : { href: `#/rack/${ids.band}`, name: "the band’s page" };
  }
  if (station === "plan") {
    return { href: ids.job === null ? "#/plan" : `#/plan/${ids.job}`, name: `Plan: ${named}` };
  }
  if (station === "setup") {
    return { href: "#/setup", name: `Set up: ${named}` };
  }
  if (station === "saw") {
    const page = step === "tyre" ? "upkeep" : "stand";
    return { href: `#/shop/saws/${ids.saw}/${page}`, name: `the saw: ${named}` };
  }
  if (station === "stock") return { href: "#/stock", name: "Stock" };
  if (opens === "electrician")
    return { href: `#/shop/saws/${ids.saw}/upkeep`, name: "a licensed electrician" };
  return null;
}
