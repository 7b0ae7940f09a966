import { expect, test } from "vitest";
import { may, needed, refusal, whoMay } from "../src/sync/roles";
import type { Step } from "../src/sync/rows";

const PROJECT = {
  name: "Quay house",
  owner: "ines",
  role: "reader",
  roles: { rui: "reader", dag: "drafter", cleo: "checker", abe: "drafter" },
};
const step = (rows: Step["rows"], after: object | null, before: object | null = {}): Step =>
  ({ rows, id: "x", before, after }) as Step;

test("who may not do something is told who may, the owner first", () => {
  expect(whoMay(PROJECT, "draw")).toEqual(["ines", "abe", "dag"]);
  expect(refusal(PROJECT, "sign")).toBe(
    "You are a reader of “Quay house” and cannot sign its sheets as checked or approved. ines, cleo can.",
  );
});

test("those who draw do not sign, and those who check do not draw", () => {
  const roles = ["owner", "drafter", "checker", "reader", ""];
  expect(roles.filter((role) => may({ role }, "draw"))).toEqual(["owner", "drafter"]);
  expect(roles.filter((role) => may({ role }, "sign"))).toEqual(["owner", "checker"]);
  expect(roles.filter((role) => may({ role }, "look"))).toEqual(["owner", "drafter", "checker", "reader"]);
});

test("a change needs what its rows and fields need", () => {
  expect(needed([step("viewports", { x: 1 })])).toEqual(["draw"]);
  expect(needed([step("comments", { state: "done" }), step("waivers", {}, null)])).toEqual(["check"]);
  expect(needed([step("sheets", { checker: "Cleo", checked_on: "2031-05-04" })])).toEqual(["sign"]);
  expect(needed([step("sheets", { checker: "Cleo", title: "x" })])).toEqual(["sign", "draw"]);
  expect(needed([step("sheets", { checker: "Cleo" }, null)])).toEqual(["draw"]);
});
