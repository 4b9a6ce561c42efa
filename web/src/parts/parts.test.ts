import { fireEvent, render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { shop } from "../lib/shop.svelte";
import { invalidFields } from "../lib/invalidFields.svelte";
import { BAND, EXPLAINED, PAGE, REFERENCE, SETTINGS, SOFT, WINDOW } from "../tests/samples";
import BandInCurve from "./pictures/BandInCurve.svelte";
import BandInWork from "./pictures/BandInWork.svelte";
import Cautions from "./Cautions.svelte";
import Choices from "./fields/Choices.svelte";
import EdgeTip from "./pictures/EdgeTip.svelte";
import FeedScale from "./pictures/FeedScale.svelte";
import Figure from "./Figure.svelte";
import Keypad from "./fields/Keypad.svelte";
import LifeStrip from "./pictures/LifeStrip.svelte";
import MaterialFinder from "./fields/MaterialFinder.svelte";
import OutlineDrawing from "./pictures/OutlineDrawing.svelte";
import QuantityField from "./fields/QuantityField.svelte";
import QuantityPad from "./fields/QuantityPad.svelte";

beforeEach(() => {
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
  HTMLDialogElement.prototype.showModal = function () {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function () {
    this.open = false;
    this.dispatchEvent(new Event("close"));
  };
});

const field = (over: Record<string, unknown> = {}) => ({
  label: "Thickness",
  value: 0.81,
  kind: "thin" as const,
  onvalue: vi.fn(),
  ...over,
});

describe("what can be read two ways", () => {
  it("is asked about, holds the page back meanwhile, and is taken by a tap", async () => {
    const onvalue = vi.fn();
    const { unmount } = render(QuantityField, field({ kind: "length", value: 185, onvalue }));
    await fireEvent.input(screen.getByLabelText("Thickness"), { target: { value: "1,200" } });
    expect(onvalue).not.toHaveBeenCalled();
    expect(screen.getByText(/may be either/)).toBeTruthy();
    expect(invalidFields.any).toBe(true);
    await fireEvent.click(screen.getByRole("button", { name: "1.2 mm" }));
    expect(onvalue).toHaveBeenLastCalledWith(1.2);
    expect(invalidFields.any).toBe(false);
    await fireEvent.input(screen.getByLabelText("Thickness"), { target: { value: "twelve" } });
    expect(invalidFields.any).toBe(true);
    unmount();
    expect(invalidFields.any).toBe(false);
  });
});

describe("the number keys", () => {
  it("take one sign, and go on by themselves once a reading is whole", async () => {
    const ontext = vi.fn();
    const onwhole = vi.fn();
    const props = { places: 2, ontext, onwhole };
    const { rerender } = render(Keypad, { ...props, text: "14.5" });
    await fireEvent.click(screen.getByRole("button", { name: "." }));
    expect(ontext).not.toHaveBeenCalled();
    await fireEvent.click(screen.getByRole("button", { name: "7" }));
    expect(ontext).toHaveBeenCalledWith("14.57");
    expect(onwhole).toHaveBeenCalledOnce();
    await rerender({ ...props, text: "14.57" });
    await fireEvent.click(screen.getByRole("button", { name: "Take the last digit back" }));
    expect(ontext).toHaveBeenLastCalledWith("14.5");
  });
});

describe("a quantity field", () => {
  it("reads both decimal signs and units, and gives SI", async () => {
    const props = field();
    render(QuantityField, props);
    const input = screen.getByLabelText("Thickness");
    await fireEvent.input(input, { target: { value: "0,64" } });
    expect(props.onvalue).toHaveBeenLastCalledWith(0.64);
    await fireEvent.input(input, { target: { value: '1/32"' } });
    expect(props.onvalue).toHaveBeenLastCalledWith(25.4 / 32);
  });

  it("says what it cannot read and keeps what was typed", async () => {
    const props = field();
    render(QuantityField, props);
    const input = screen.getByLabelText<HTMLInputElement>("Thickness");
    await fireEvent.input(input, { target: { value: "thick" } });
    expect(props.onvalue).not.toHaveBeenCalled();
    expect(screen.getByRole("alert").textContent).toContain("“thick” cannot be read");
    await fireEvent.blur(input);
    expect(input.value).toBe("thick");
    expect(input.getAttribute("aria-invalid")).toBe("true");
  });

  it("asks about an unusual value and takes the answer", async () => {
    const props = field({ value: 6.4, usual: "thickness_mm" });
    const headers = { "content-type": "application/json" };
    vi.spyOn(globalThis, "fetch").mockResolvedValue(new Response('{"value":0.64}', { headers }));
    render(QuantityField, props);
    await fireEvent.click(await screen.findByRole("button", { name: "0.64 mm" }));
    expect(props.onvalue).toHaveBeenCalledWith(0.64);
  });

  it("lets someone not know, and says what is assumed", async () => {
    const onchoose = vi.fn();
    const unknown = { words: "0.9 mm is assumed.", chosen: true, onchoose };
    render(QuantityField, field({ unknown }));
    expect(screen.getByText("0.9 mm is assumed.")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>("Thickness").disabled).toBe(true);
    await fireEvent.click(screen.getByLabelText("don’t know"));
    expect(onchoose).toHaveBeenCalledWith(false);
  });

  it("gives null when emptied, unless it is required", async () => {
    const props = field();
    const { unmount } = render(QuantityField, props);
    await fireEvent.input(screen.getByLabelText("Thickness"), { target: { value: "" } });
    expect(props.onvalue).toHaveBeenCalledWith(null);
    unmount();
    const needed = field({ required: true });
    render(QuantityField, needed);
    await fireEvent.input(screen.getByLabelText("Thickness"), { target: { value: " " } });
    expect(needed.onvalue).not.toHaveBeenCalled();
  });

  it("shows the server's fault beside itself", () => {
    render(QuantityField, field({ error: "6.4 is out of range; accepted: at most 5" }));
    expect(screen.getByRole("alert").textContent).toContain("accepted: at most 5");
  });
});

describe("the pad", () => {
  it("steps by what suits the size", async () => {
    const onvalue = vi.fn();
    render(QuantityPad, { label: "Height", value: 185, kind: "length", onvalue });
    await fireEvent.click(screen.getByRole("button", { name: "More" }));
    expect(onvalue).toHaveBeenLastCalledWith(186);
    await fireEvent.click(screen.getByRole("button", { name: "Less" }));
    expect(onvalue).toHaveBeenLastCalledWith(184);
  });

  it("never steps to nothing", async () => {
    const onvalue = vi.fn();
    render(QuantityPad, { label: "Height", value: 0.1, kind: "length", onvalue });
    await fireEvent.click(screen.getByRole("button", { name: "Less" }));
    expect(onvalue).not.toHaveBeenCalled();
  });

  it("has sixteenths in inches, on top of the whole ones", async () => {
    shop.units = "inch";
    const onvalue = vi.fn();
    render(QuantityPad, { label: "Height", value: 7 * 25.4, kind: "length", onvalue });
    await fireEvent.click(screen.getByRole("button", { name: "3/8" }));
    expect(onvalue).toHaveBeenCalledWith(Number((7.375 * 25.4).toFixed(4)));
  });
});

describe("choices", () => {
  it("mark the chosen one and tell the other", async () => {
    const onchoose = vi.fn();
    const options = [
      { key: "plane", name: "to be planed" },
      { key: "sand", name: "ready to sand", note: "finer" },
    ];
    render(Choices, { legend: "Face", options, chosen: "plane", onchoose });
    expect(screen.getByLabelText<HTMLInputElement>("to be planed").checked).toBe(true);
    await fireEvent.click(screen.getByLabelText(/ready to sand/));
    expect(onchoose).toHaveBeenCalledWith("sand");
  });
});

describe("a figure", () => {
  it("opens its reasons in the shop's units and closes again", async () => {
    render(Figure, { label: "tension", value: "135", unit: "MPa", explained: EXPLAINED });
    await fireEvent.click(screen.getByRole("button", { name: /tension/ }));
    const dialog = screen.getByRole("dialog");
    expect(dialog.textContent).toContain("150 MPa");
    expect(dialog.textContent).toContain("€\u00a01.50");
    expect(dialog.textContent).toContain("32 %");
    expect(dialog.textContent).toContain("Tension target: full");
    await fireEvent.click(screen.getByRole("button", { name: "Close" }));
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("is plain text without reasons", () => {
    render(Figure, { label: "bite", value: "0.03", unit: "mm" });
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("turns its reasons over with the units", async () => {
    shop.units = "inch";
    render(Figure, { label: "tension", value: "x", explained: EXPLAINED });
    await fireEvent.click(screen.getByRole("button"));
    expect(screen.getByRole("dialog").textContent).toContain("psi");
  });
});

describe("the edge", () => {
  it("has a word and a tip that grows as it dulls", () => {
    const radius = (um: number) => {
      const { container, unmount } = render(EdgeTip, { edge: "keen", radius_um: um });
      const d = container.querySelector("path")?.getAttribute("d") ?? "";
      unmount();
      return Number(/A([\d.]+)/.exec(d)?.[1]);
    };
    expect(radius(8)).toBeLessThan(radius(18));
    expect(radius(18)).toBeLessThan(radius(55));
    render(EdgeTip, { edge: "tired", radius_um: 32 });
    expect(screen.getByText("tired")).toBeTruthy();
  });
});

describe("cautions", () => {
  const cautions = [
    { key: "a", level: "stop" as const, text: "Round stock turns.", standing: false },
    { key: "b", level: "caution" as const, text: "Hands clear.", standing: true },
    { key: "c", level: "note" as const, text: "Light on the work.", standing: false },
  ];

  it("put stops in words, fold what always holds, and always end with ours", () => {
    render(Cautions, { cautions, disclaimer: "The manual first." });
    expect(screen.getByText("Stop.")).toBeTruthy();
    const folded = screen.getByText("And the 1 that always hold at a saw").closest("details");
    expect(folded?.textContent).toContain("Hands clear.");
    expect(folded?.textContent).not.toContain("Light on the work.");
    expect(screen.getByText("The manual first.")).toBeTruthy();
  });

  it("are all open when asked", () => {
    render(Cautions, { cautions, disclaimer: "x", folded: false });
    expect(screen.queryByText(/always hold/)).toBeNull();
    expect(screen.getByText("Light on the work.")).toBeTruthy();
  });
});

describe("the feed scale", () => {
  const show = (onfeed = vi.fn()) => {
    render(FeedScale, {
      window: WINDOW,
      hot_from: WINDOW.floor_m_min / 2,
      words: REFERENCE.limit_marks,
      soft: SOFT,
      feed: 2,
      onfeed,
    });
    return onfeed;
  };

  it("names every limit and where teeth rub", () => {
    show();
    for (const word of ["motor", "finish", "full gullets", "your push", "rubs below"]) {
      expect(screen.getByText(word)).toBeTruthy();
    }
  });

  it("moves by keys, a twentieth at a time, to floor and ceiling", async () => {
    const onfeed = show();
    const slider = screen.getByRole("slider");
    await fireEvent.keyDown(slider, { key: "ArrowRight" });
    expect(onfeed.mock.lastCall?.[0]).toBeCloseTo(2.1);
    await fireEvent.keyDown(slider, { key: "ArrowLeft" });
    expect(onfeed.mock.lastCall?.[0]).toBeCloseTo(2 / 1.05);
    await fireEvent.keyDown(slider, { key: "Home" });
    expect(onfeed).toHaveBeenLastCalledWith(0.55);
    await fireEvent.keyDown(slider, { key: "End" });
    expect(onfeed).toHaveBeenLastCalledWith(2.5);
    onfeed.mockClear();
    await fireEvent.keyDown(slider, { key: "x" });
    expect(onfeed).not.toHaveBeenCalled();
  });

  it("says its value in the shop's units", () => {
    shop.units = "inch";
    show();
    expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toMatch(/ft\/min$/);
  });
});

describe("the band in the work", () => {
  const work = {
    band: BAND,
    height_mm: 185,
    guard_mm: 10,
    gullet_fill: 0.32,
    fill_limit_reached: false,
    teeth_in_cut: 14.57,
    material: "larch",
    metal: false,
    grained: true,
  };

  it("tells teeth, fill and scale in words too", () => {
    render(BandInWork, work);
    const name = screen.getByRole("img").getAttribute("aria-label") ?? "";
    expect(name).toContain("14.6 teeth");
    expect(name).toContain("32 percent filled");
    expect(name).toMatch(/scale/);
  });

  it("fills gullets only while they stand in the work, fuller on the way down", () => {
    const { container } = render(BandInWork, work);
    const chips = [...container.querySelectorAll(".chip")].map((c) => c.getAttribute("d") ?? "");
    expect(chips.length).toBeGreaterThan(3);
    const size = (d: string) => {
      const xs = d.match(/[\d.]+(?= )/g)?.map(Number) ?? [];
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(size(chips.at(-2) ?? "")).toBeGreaterThan(size(chips[0] ?? ""));
  });

  it("draws a tube hollow and a log round", () => {
    const tube = render(BandInWork, { ...work, grained: false, shape: "tube", wall_mm: 10 });
    expect(tube.container.querySelector(".hollow")).toBeTruthy();
    tube.unmount();
    const log = render(BandInWork, { ...work, shape: "round" });
    expect(Number(log.container.querySelector(".work")?.getAttribute("rx"))).toBeGreaterThan(50);
  });

  it("says grit where there are no teeth to count", () => {
    render(BandInWork, { ...work, band: { ...BAND, gullet_depth_mm: 0 } });
    expect(screen.getByText("no teeth to count")).toBeTruthy();
  });
});

describe("the band in its bend", () => {
  it("says what it turns and what is asked", () => {
    render(BandInCurve, {
      band: BAND,
      radius_mm: 150,
      tight_mm: 101,
      comfortable_mm: 126,
      place: { lean_rad: 0.05, clearance_mm: 0.1 },
    });
    const name = screen.getByRole("img").getAttribute("aria-label");
    expect(name).toContain("Turns 101 mm at the tightest, 126 mm in comfort; the job asks 150 mm");
  });
});

describe("a band's life", () => {
  it("shows runs, trouble, sharpenings and the fan", () => {
    const { container } = render(LifeStrip, { page: PAGE });
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("2 runs, 1 sharpenings");
    expect(container.querySelectorAll(".run")).toHaveLength(1);
    expect(container.querySelectorAll(".trouble")).toHaveLength(1);
    expect(container.querySelectorAll(".event")).toHaveLength(1);
    expect(container.querySelector(".fan")).toBeTruthy();
  });

  it("has no fan once scrapped", () => {
    const page = { ...PAGE, band: { ...PAGE.band, state: "scrapped" } };
    const { container } = render(LifeStrip, { page });
    expect(container.querySelector(".fan")).toBeNull();
  });
});

describe("the material finder", () => {
  it("finds by other names and despite spelling", async () => {
    const onchoose = vi.fn();
    render(MaterialFinder, { chosen: "white_oak_dry", onchoose });
    const input = screen.getByLabelText("Material");
    await fireEvent.input(input, { target: { value: "polythene" } });
    await fireEvent.click(screen.getByRole("button", { name: "HDPE" }));
    expect(onchoose).toHaveBeenCalledWith("hdpe");
    await fireEvent.input(input, { target: { value: "lrch" } });
    await fireEvent.keyDown(input, { key: "Enter" });
    expect(onchoose).toHaveBeenLastCalledWith("european_larch_dry");
  });

  it("says when there is nothing like it, and marks the chosen one", async () => {
    render(MaterialFinder, { chosen: "white_oak_dry", onchoose: vi.fn() });
    expect(
      screen.getByRole("button", { name: "White oak (dry)" }).getAttribute("aria-pressed"),
    ).toBe("true");
    await fireEvent.input(screen.getByLabelText("Material"), { target: { value: "zzzzzz" } });
    expect(screen.getByText("Nothing like “zzzzzz” in the table.")).toBeTruthy();
  });
});

describe("an outline", () => {
  it("marks the tightest place and each corner", () => {
    const outline = {
      min_radius_mm: 20,
      at_mm: [10, 0] as [number, number],
      length_mm: 100,
      corners: [[0, 0]] as [number, number][],
      stretches: [],
      chains: [
        [
          { x_mm: 0, y_mm: 0, radius_mm: null },
          { x_mm: 10, y_mm: 0, radius_mm: 20 },
          { x_mm: 20, y_mm: 10, radius_mm: 20 },
        ],
      ],
    };
    const { container } = render(OutlineDrawing, { outline, turns_mm: 30, label: "K-07" });
    expect(container.querySelectorAll(".corner")).toHaveLength(1);
    expect(container.querySelectorAll(".at")).toHaveLength(1);
    expect(container.querySelectorAll('[data-kind="tight"]')).toHaveLength(1);
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("20 mm is marked");
  });
});
