import { fireEvent, render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SETTINGS } from "../../tests/samples";
import Pace from "./Pace.svelte";

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
});

describe("keeping the pace", () => {
  it("tells the true feed of a marked length, and gives it on", async () => {
    const onfeed = vi.fn();
    const clock = vi.spyOn(performance, "now");
    clock.mockReturnValue(1000);
    render(Pace, { feed: 1.5, onfeed });
    await fireEvent.click(screen.getByText("Keep the pace"));
    await fireEvent.click(screen.getByRole("button", { name: "First mark at the band" }));
    clock.mockReturnValue(31_000);
    await fireEvent.click(screen.getByRole("button", { name: "Second mark at the band" }));
    expect(onfeed).toHaveBeenCalledWith(2);
    expect(screen.getByRole("status").textContent).toContain("2.0 m/min");
  });

  it("is stopped without telling anything", async () => {
    const onfeed = vi.fn();
    render(Pace, { feed: 1.5, onfeed });
    await fireEvent.click(screen.getByRole("button", { name: "First mark at the band" }));
    await fireEvent.click(screen.getByRole("button", { name: "Stop" }));
    expect(onfeed).not.toHaveBeenCalled();
    expect(screen.getByRole("button", { name: "First mark at the band" })).toBeTruthy();
  });
});
