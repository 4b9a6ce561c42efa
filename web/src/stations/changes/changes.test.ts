import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { Deed } from "../../api/schema";
import { Edit } from "../../lib/edit.svelte";
import { notice } from "../../lib/notice.svelte";
import { type NewRun, outbox } from "../../lib/sending/outbox.svelte";
import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import Changes from "./Changes.svelte";
import Waiting from "./Waiting.svelte";

const DEED: Deed = {
  id: 41,
  at: "2026-11-20T10:00:00Z",
  who: "Odda",
  changes: [
    {
      id: 41,
      noun: "saw",
      noun_id: 2,
      action: "mount",
      title: "Saw Shop saw",
      changed: [{ field: "mounted band", before: "nothing", after: "7" }],
    },
    { id: 42, noun: "event", noun_id: 9, action: "add", title: "Record of a band", changed: [] },
  ],
  undone: false,
  held_by: "",
};
const HELD = { ...DEED, id: 40, held_by: "A later change to the same record stands." };
const UNDONE = { ...DEED, id: 39, undone: true };

beforeEach(async () => {
  vi.restoreAllMocks();
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
  notice.close();
  await outbox.clear();
  await waitFor(() => expect(outbox.entries).toEqual([]));
});

describe("what was changed", () => {
  it("tells each deed, and undoes one that nothing stands on", async () => {
    const { sent } = server({ "GET /api/changes": [DEED, HELD, UNDONE], "GET /api/saws": [] });
    render(Changes);
    expect((await screen.findAllByText("Odda")).length).toBe(3);
    expect(screen.getAllByText(/nothing → 7/).length).toBe(3);
    expect(screen.getByText("A later change to the same record stands.")).toBeTruthy();
    expect(screen.getByText("undone")).toBeTruthy();
    const undo = screen.getAllByRole("button", { name: "Undo" });
    expect(undo).toHaveLength(1);
    await fireEvent.click(undo[0] as HTMLElement);
    await waitFor(() => expect(notice.text).toContain("Taken back"));
    const posts = vi.mocked(fetch).mock.calls.map(([r]) => (r as Request).url);
    expect(posts.some((url) => url.endsWith("/api/changes/41/undo"))).toBe(true);
    expect(await sent("PATCH")).toEqual([]);
  });

  it("asks for those of one record, and for older ones from the last", async () => {
    const many = Array.from({ length: 50 }, (_, i) => ({ ...DEED, id: 100 - i }));
    server({ "GET /api/changes": (url: string) => (url.includes("before") ? [] : many) });
    render(Changes, { params: { noun: "band", id: "7" } });
    // Twelve at a time: those that are here are shown before older ones are asked for.
    for (let shown = 12; shown <= 60; shown += 12)
      await fireEvent.click(await screen.findByRole("button", { name: "Older ones" }));
    const urls = vi.mocked(fetch).mock.calls.map(([r]) => (r as Request).url);
    expect(urls[0]).toContain("noun=band&noun_id=7");
    await waitFor(() =>
      expect(
        vi.mocked(fetch).mock.calls.some(([r]) => (r as Request).url.includes("before=51")),
      ).toBe(true),
    );
  });
});

const RUN: NewRun = {
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  pieces: 7,
  length_mm: 3600,
  time_s: 600,
};

describe("what waits in this browser", () => {
  it("shows runs not sent, sends one anew as it was put right", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await outbox.log(RUN);
    render(Waiting);
    const pieces = await screen.findByLabelText<HTMLInputElement>("Pieces");
    expect(pieces.value).toBe("7");
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await fireEvent.input(pieces, { target: { value: "6" } });
    await fireEvent.click(screen.getByRole("button", { name: "Send it now" }));
    await screen.findByText(/the shop has every run/);
    expect(await sent("POST")).toMatchObject([{ pieces: 6 }]);
  });

  it("gives a run up and can put it back", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await outbox.log(RUN);
    render(Waiting);
    await fireEvent.click(await screen.findByRole("button", { name: "Discard" }));
    await screen.findByText(/the shop has every run/);
    await waitFor(() => expect(notice.undoable).toBe(true));
    await notice.undo();
    expect(await screen.findByLabelText("Pieces")).toBeTruthy();
  });

  it("lists forms that were filled in and not saved", async () => {
    const place = { key: "band.7", title: "Band K-07", href: "#/rack/7" };
    new Edit(place, { note: "" }, 1).set({ note: "keen" });
    render(Waiting);
    const link = screen.getByRole("link", { name: "Band K-07" });
    expect(link.getAttribute("href")).toBe("#/rack/7");
    await fireEvent.click(screen.getByRole("button", { name: "Discard" }));
    expect(screen.queryByText("Band K-07")).toBe(null);
  });
});
