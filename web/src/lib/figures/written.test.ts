import { beforeAll, describe, expect, it } from "vitest";

import cases from "../../../../tests/data/written.json";
import { REFERENCE } from "../../tests/samples";
import { readWritten, takeRules, writtenNumbers } from "./written";

beforeAll(() => takeRules(REFERENCE.written));

describe("what people write", () => {
  it.each(cases)("$text ($kind) is read as the core reads it", (given) => {
    const found = readWritten(given.text, given.kind, given.usual_size);
    expect(found).toHaveLength(given.values.length);
    given.values.forEach((value, i) => expect(found[i]).toBeCloseTo(value, 6));
  });

  it("may be a plain number", () => {
    expect(writtenNumbers("1 1/4")).toEqual([1.25]);
    expect(writtenNumbers("1,200")).toEqual([1200, 1.2]);
    expect(writtenNumbers("many")).toEqual([]);
  });
});
