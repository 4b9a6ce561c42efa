import { beforeEach, describe, expect, it, vi } from "vitest";

import type { KeyedStep } from "../../api/schema";
import { freshKey } from "../../api/writes";
import { server } from "../../tests/server";
import { type NewRun, outbox } from "./outbox.svelte";

const STEP: KeyedStep = { key: "tension", done: true, left: { stress_MPa: 120 } };
const EVENT = { kind: "cleaned" as const, who: "Odda" };
const RUN: NewRun = {
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  pieces: 7,
  length_mm: 3600,
};
const away = () => vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
const asked = () => vi.mocked(fetch).mock.calls.map(([request]) => request as Request);

beforeEach(async () => {
  vi.restoreAllMocks();
  await outbox.clear();
  await vi.waitFor(() => expect(outbox.count).toBe(0));
});

async function kept(): Promise<void> {
  away();
  await outbox.later({ kind: "step", setup_id: 9, body: STEP }, "Tension", "#/setup/9", freshKey());
  await new Promise((done) => setTimeout(done, 5));
  await outbox.log(RUN);
  await new Promise((done) => setTimeout(done, 5));
  await outbox.later(
    { kind: "event", band_id: 7, body: EVENT },
    "cleaned, K-07",
    "#/rack/7",
    freshKey(),
  );
  await vi.waitFor(() => expect(outbox.count).toBe(3));
}

describe("steps and events", () => {
  it("wait with the runs, are counted with them, and go in their order", async () => {
    await kept();
    expect(outbox.stepsOf(9).tension?.title).toBe("Tension");
    expect(outbox.stepsOf(8)).toEqual({});
    server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.send();
    await vi.waitFor(() => expect(outbox.count).toBe(0));
    expect(asked().map((r) => new URL(r.url).pathname)).toEqual([
      "/api/setups/9/steps",
      "/api/runs",
      "/api/bands/7/events",
    ]);
  });

  it("keep their key from try to try, and tell beside the body how long they waited", async () => {
    await kept();
    await outbox.send();
    const first = asked().find((r) => r.url.endsWith("/steps"));
    server({});
    await outbox.send();
    const second = asked().find((r) => r.url.endsWith("/steps"));
    expect(first?.headers.get("Idempotency-Key")).toMatch(/^[0-9a-f]{32}$/);
    expect(second?.headers.get("Idempotency-Key")).toBe(first?.headers.get("Idempotency-Key"));
    expect(Number(second?.headers.get("Jade-Waited"))).toBeGreaterThan(0);
    expect(await second?.clone().json()).toEqual(STEP);
  });

  it("refused are set aside with the reason, and can be tried again or given up", async () => {
    away();
    await outbox.later(
      { kind: "step", setup_id: 9, body: STEP },
      "Tension",
      "#/setup/9",
      freshKey(),
    );
    const type = "urn:jade-ribbon:problem:conflict";
    const body = JSON.stringify({ type, code: "conflict", detail: "Isolate the saw first." });
    vi.spyOn(globalThis, "fetch").mockImplementation(() =>
      Promise.resolve(
        new Response(body, {
          status: 409,
          headers: { "content-type": "application/problem+json" },
        }),
      ),
    );
    await outbox.send();
    await vi.waitFor(() => expect(outbox.writes[0]?.refused).toBe("Isolate the saw first."));
    expect(outbox.anyRefused).toBe(true);
    await outbox.drop(outbox.writes[0]?.key ?? "");
    await vi.waitFor(() => expect(outbox.count).toBe(0));
  });
});
