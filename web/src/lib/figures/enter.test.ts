import { fireEvent } from "@testing-library/svelte";
import { describe, expect, it, vi } from "vitest";

import { enterGoesOn } from "./enter";

describe("Enter from a caliper", () => {
  it("goes on to the next field, and after the last is done", async () => {
    const box = document.createElement("div");
    box.innerHTML = "<input id='a'><input id='b'><button>Ask</button>";
    document.body.append(box);
    const done = vi.fn();
    const off = enterGoesOn(done)(box);
    const [a, b] = [...box.querySelectorAll("input")];
    a?.focus();
    await fireEvent.keyDown(a as Element, { key: "Enter" });
    expect(document.activeElement).toBe(b);
    await fireEvent.keyDown(b as Element, { key: "x" });
    expect(done).not.toHaveBeenCalled();
    await fireEvent.keyDown(b as Element, { key: "Enter" });
    expect(done).toHaveBeenCalledWith(box);
    off();
    await fireEvent.keyDown(b as Element, { key: "Enter" });
    expect(done).toHaveBeenCalledTimes(1);
    box.remove();
  });
});
