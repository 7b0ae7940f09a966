/** What a page begins with: asked for in one go, and kept in the lists that each kind has. */
import { beforeEach, expect, it, vi } from "vitest";

const GET = vi.hoisted(() => vi.fn());
vi.mock("../src/api/client", async (original) => {
  const client = await original<typeof import("../src/api/client")>();
  return { ...client, api: { GET } };
});

import type { Sheet } from "../src/api/client";
import { queryClient } from "../src/api/queryClient";
import { openOf } from "../src/api/sheets";
import { askTogether } from "../src/api/together";

const asked = (call: number) => GET.mock.calls[call]?.[1].params.query;

beforeEach(() => {
  GET.mockReset();
  queryClient.clear();
});

it("is asked for once, and kept by its kinds", async () => {
  GET.mockResolvedValue({ data: { sheets: [{ id: "s" }], views: [] } });
  askTogether("p", ["sheets", "views"]);
  askTogether("p", ["sheets", "views"]);
  await vi.waitFor(() => expect(queryClient.getQueryData(["views", "p"])).toEqual([]));
  expect(queryClient.getQueryData(["sheets", "p"])).toEqual([{ id: "s" }]);
  expect(GET).toHaveBeenCalledTimes(1);
  expect(asked(0)).toEqual({ project: "p", kinds: ["sheets", "views"] });
});

it("leaves out what is there already", async () => {
  queryClient.setQueryData(["sheets", "p"], []);
  GET.mockResolvedValue({ data: { views: [] } });
  askTogether("p", ["sheets", "views"]);
  expect(asked(0).kinds).toEqual(["views"]);
  await vi.waitFor(() => expect(queryClient.getQueryData(["views", "p"])).toEqual([]));
});

it("is forgotten where it cannot be had, so that each list asks for itself", async () => {
  GET.mockRejectedValue(new Error("no connection"));
  askTogether("p", ["sheets", "views"]);
  await vi.waitFor(() => expect(queryClient.getQueryState(["views", "p"])).toBeUndefined());
  GET.mockResolvedValue({ data: { views: [] } });
  askTogether("p", ["views"]);
  await vi.waitFor(() => expect(queryClient.getQueryData(["views", "p"])).toEqual([]));
});

it("opens the sheet of the address, or else the first of the register", () => {
  const sheets = [
    { id: "b", position: 2 },
    { id: "a", position: 1 },
  ] as Sheet[];
  expect(openOf(sheets, "b")?.id).toBe("b");
  expect(openOf(sheets, undefined)?.id).toBe("a");
  expect(openOf(sheets, "gone")?.id).toBe("a");
  expect(openOf([], "b")).toBeUndefined();
});
