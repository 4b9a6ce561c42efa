import { describe, expect, it } from "vitest";

import { level, PluckWatch } from "../../lib/microphone";
import { crownHeight, facePath } from "./tyre";
import { bandPath, threeWheels, twoWheels, wheelsFor } from "./wheels";

describe("wheels to scale", () => {
  it("stand so far apart that the band's length goes round two of them", () => {
    const [top, bottom] = twoWheels([400, 400], 3360);
    const apart = (bottom?.y ?? 0) - (top?.y ?? 0);
    expect(2 * apart + Math.PI * 400).toBeCloseTo(3360);
  });

  it("stand in a triangle whose sides and one turn make the length", () => {
    const wheels = threeWheels([300, 300, 300], 2500);
    const side = Math.hypot(
      (wheels[0]?.x ?? 0) - (wheels[2]?.x ?? 0),
      (wheels[0]?.y ?? 0) - (wheels[2]?.y ?? 0),
    );
    expect(3 * side + Math.PI * 300).toBeCloseTo(2500);
    expect(wheelsFor([300, 300, 300], 2500)).toHaveLength(3);
  });

  it("never overlap, however short the band is said to be", () => {
    const [top, bottom] = twoWheels([400, 400], 100);
    expect((bottom?.y ?? 0) - (top?.y ?? 0)).toBeGreaterThanOrEqual(400);
  });

  it("are joined by a closed path with an arc for each wheel", () => {
    const path = bandPath(twoWheels([400, 400], 3360));
    expect(path.match(/A/g)).toHaveLength(2);
    expect(path.endsWith("Z")).toBe(true);
    expect(path).not.toContain("NaN");
  });
});

describe("a band on its tyre", () => {
  it("has a crown only where the tyre is crowned", () => {
    expect(crownHeight(15, 30, true)).toBeGreaterThan(crownHeight(2, 30, true));
    expect(crownHeight(15, 30, false)).toBe(0);
    expect(facePath(30, true, 4, 6)).toMatch(/^M0 /);
  });
});

describe("sound from the microphone", () => {
  it("has rung long enough some time after a rise over the quiet, not before", () => {
    const watch = new PluckWatch();
    expect(watch.rung(0.01, 0.1)).toBe(false);
    expect(watch.rung(0.012, 3)).toBe(false);
    expect(watch.rung(0.2, 3.1)).toBe(false);
    expect(watch.rung(0.15, 4.6)).toBe(false);
    expect(watch.rung(0.1, 4.8)).toBe(true);
  });

  it("tells how loud a block is", () => {
    expect(level(new Float32Array([0.5, -0.5]))).toBeCloseTo(0.5);
    expect(level(new Float32Array())).toBe(0);
  });
});
