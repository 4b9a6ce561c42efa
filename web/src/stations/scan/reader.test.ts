import { expect, test, vi } from "vitest";

import { bandOf } from "./reader";

vi.mock("zxing-wasm/reader", () => ({ prepareZXingModule: vi.fn(), readBarcodes: vi.fn() }));
vi.mock("zxing-wasm/reader/zxing_reader.wasm?url", () => ({ default: "/reader.wasm" }));

test.each([
  ["https://192.0.2.7:8443/#/rack/12", 12],
  ["http://localhost/#/rack/3", 3],
  ["https://elsewhere.example/#/setup/3", null],
  ["#/rack/3/../../x", null],
  ["12", null],
])("the code %s opens band %s", (code, band) => {
  expect(bandOf(code)).toBe(band);
});
