/** How large the board will be, before anything is laid out. */
import { beforeEach, expect, it, vi } from "vitest";
import { keepRoom, roomToCome } from "../src/stores/board";

const kept = new Map<string, string>();
const open = (width: number, height: number) => {
  vi.stubGlobal("innerWidth", width);
  vi.stubGlobal("innerHeight", height);
};

beforeEach(() => {
  kept.clear();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  });
  open(1280, 800);
});

it("is as it was last in a window of the same size", () => {
  expect(roomToCome()).toBeNull();
  keepRoom({ width: 1010, height: 588 });
  keepRoom({ width: 1012.5, height: 590 });
  expect(roomToCome()).toEqual({ width: 1012.5, height: 590 });
  expect(kept.size).toBe(1);
});

it("is not known in a window of another size, nor while there is no board", () => {
  keepRoom({ width: 1010, height: 588 });
  open(1281, 800);
  expect(roomToCome()).toBeNull();
  keepRoom({ width: 0, height: 0 });
  open(1280, 800);
  expect(roomToCome()).toEqual({ width: 1010, height: 588 });
});
