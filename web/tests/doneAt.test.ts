import { describe, expect, it } from "vitest";
import { doneAt } from "../src/sync/doneAt";
import type { Step } from "../src/sync/rows";

/** Two sheets with a viewport on the second, and a view with a note in it. */
const rows = (kind: string) =>
  ({
    sheets: [{ id: "s1" }, { id: "s2" }],
    viewports: [{ id: "v", sheet: "s2", view: "w" }],
    views: [{ id: "w" }],
    annotations: [{ id: "n", sheet: null, view: "w" }],
  })[kind] ?? [];
const at = (...steps: Step[]) => doneAt(steps, rows);

describe("what was undone is seen", () => {
  it("on the sheet on which it stands, also where it says nothing of it", () => {
    const step: Step = { rows: "viewports", id: "v", before: { x: 1 }, after: { x: 2 } };
    expect(at(step)).toEqual({ station: "sheets", subject: "s2" });
  });
  it("on the sheet from which it was deleted", () => {
    const step: Step = { rows: "viewports", id: "gone", before: { sheet: "s1", view: "w" }, after: null };
    expect(at(step)).toEqual({ station: "sheets", subject: "s1" });
  });
  it("in the view in which it stands", () => {
    const step: Step = { rows: "annotations", id: "n", before: {}, after: {} };
    expect(at(step)).toEqual({ station: "views", subject: "w" });
  });
  it("where one is, if it was done there too", () => {
    const steps: Step[] = ["s1", "s2"].map((id) => ({ rows: "sheets", id, before: {}, after: {} }));
    expect(doneAt(steps, rows)?.subject).toBe("s1");
    expect(doneAt(steps, rows, "s2")?.subject).toBe("s2");
  });
  it("at its station, where its sheet is gone or it stands on none", () => {
    expect(at({ rows: "sheets", id: "s9", before: {}, after: null })).toEqual({
      station: "sheets",
      subject: "",
    });
    expect(at({ rows: "recipients", id: "r", before: {}, after: {} })).toEqual({
      station: "issue",
      subject: "",
    });
    expect(at({ rows: "waivers", id: "a", before: null, after: {} })).toEqual({
      station: "check",
      subject: "",
    });
  });
});
