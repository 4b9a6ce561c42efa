import { fireEvent, render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { shop } from "../../lib/shop.svelte";
import { REFERENCE } from "../../tests/samples";
import type { SignEffect } from "../../api/schema";
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

  it.each([
    ["smoke", "smouldering"],
    ["tick", "weld"],
  ] as const)("%s stops, and nothing else is said to do", (symptom, words) => {
    const effect: SignEffect = {
      sign: "wander",
      dullness_before: 0.2,
      dullness_after: 0.2,
      do: "nothing",
      words: "Note it and go on.",
    };
    const symptoms = [symptom, "wander"] as const;
    render(Symptoms, { symptoms: [...symptoms], effects: [effect], onsymptoms: vi.fn() });
    expect(screen.getByRole("alert").textContent).toContain(words);
    expect(screen.queryByText(/go on/)).toBeNull();
  });

  it("says no more of a wander than that it is noted", () => {
    render(Symptoms, { symptoms: ["wander"], onsymptoms: vi.fn() });
    expect(screen.queryByRole("alert")).toBeNull();
    expect(screen.getByRole("button", { name: "wander" }).getAttribute("aria-pressed")).toBe(
      "true",
    );
  });
});
