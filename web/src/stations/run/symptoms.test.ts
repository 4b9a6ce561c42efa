import { fireEvent, render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { shop } from "../../lib/shop.svelte";
import { REFERENCE } from "../../tests/samples";
import Symptoms from "./Symptoms.svelte";

beforeEach(() => {
  document.body.innerHTML = "";
  shop.reference = REFERENCE;
});

describe("what was seen, heard or felt", () => {
  it("is taken in by a tap and out by another", async () => {
    const told = vi.fn();
    const { rerender } = render(Symptoms, { symptoms: ["wander"], onsymptoms: told });
    await fireEvent.click(screen.getByRole("button", { name: "hard push" }));
    expect(told).toHaveBeenLastCalledWith(["wander", "hard_push"]);
    await rerender({ symptoms: ["wander", "hard_push"], onsymptoms: told });
    await fireEvent.click(screen.getByRole("button", { name: "wander" }));
    expect(told).toHaveBeenLastCalledWith(["hard_push"]);
  });

  it.each(["smoke", "burn"] as const)("%s stops: look for smouldering", (symptom) => {
    render(Symptoms, { symptoms: [symptom], onsymptoms: vi.fn() });
    expect(screen.getByRole("alert").textContent).toContain("smouldering");
  });

  it("says no more of a wander than that it is noted", () => {
    render(Symptoms, { symptoms: ["wander"], onsymptoms: vi.fn() });
    expect(screen.queryByRole("alert")).toBeNull();
    expect(screen.getByRole("button", { name: "wander" }).getAttribute("aria-pressed")).toBe(
      "true",
    );
  });
});
