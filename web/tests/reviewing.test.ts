import { expect, test } from "vitest";
import type { Comment, Review } from "../src/api/client";
import { toPaper, toScreen } from "../src/canvas/geometry";
import { ALL, filtered, inDays, standing } from "../src/features/issue/review/reviewCommands";
import { keyed, lookingAt, pinched, whole } from "../src/features/review/gestures";
import { measuredMark } from "../src/features/review/measuring";

const CAMERA = { scale: 2, x: 50, y: 700 };
const SPACE = { width: 1000, height: 800 };

test("what lies under two fingers stays under them", () => {
  const before = [
    { x: 200, y: 300 },
    { x: 400, y: 300 },
  ] as const;
  const now = [
    { x: 100, y: 250 },
    { x: 600, y: 250 },
  ] as const;
  const after = pinched(CAMERA, before, now);
  before.forEach((finger, k) => {
    const [x, y] = toScreen(after, ...toPaper(CAMERA, finger.x, finger.y));
    expect(x).toBeCloseTo(now[k]?.x ?? 0);
    expect(y).toBeCloseTo(now[k]?.y ?? 0);
  });
});

test("a whole sheet lies within its space, clear of the tools at the foot", () => {
  for (const [sheet, space] of [
    [{ width: 841, height: 594 }, SPACE],
    [
      { width: 594, height: 841 },
      { width: 390, height: 760 },
    ],
  ] as const) {
    const camera = whole(sheet, space);
    const [left, foot] = toScreen(camera, 0, 0);
    const [right, top] = toScreen(camera, sheet.width, sheet.height);
    expect(Math.min(left, top)).toBeGreaterThanOrEqual(0);
    expect(right).toBeLessThanOrEqual(space.width);
    expect(foot).toBeLessThanOrEqual(space.height - 70);
  }
});

test("a place that is jumped to is in the middle, and large enough", () => {
  const camera = lookingAt(CAMERA, [120, 80], SPACE, 3);
  expect(toScreen(camera, 120, 80)).toEqual([500, 400]);
  expect(camera.scale).toBe(3);
});

test("keys move and zoom, and others do nothing", () => {
  expect(keyed("ArrowRight", CAMERA, SPACE)?.x).toBeLessThan(CAMERA.x);
  expect(keyed("+", CAMERA, SPACE)?.scale).toBeGreaterThan(CAMERA.scale);
  expect(keyed("x", CAMERA, SPACE)).toBeNull();
});

test("a length is true within one drawing that has a scale, and nothing else is", () => {
  const drawings = [
    { name: "Plan", box: [10, 10, 100, 100], ratio: 0.01 },
    { name: "Street", box: [200, 10, 100, 100], ratio: 0 },
    { name: "Detail over it", box: [60, 60, 40, 40], ratio: 0.1 },
  ];
  const length = (first: [number, number], last: [number, number]) => {
    const mark = measuredMark({ kind: "length", first, last, length: 0 }, { drawings });
    return mark.kind === "length" ? Math.round(mark.length) : null;
  };
  expect(length([20, 20], [50, 20])).toBe(3000);
  expect(length([70, 70], [90, 70])).toBe(200);
  expect(length([20, 20], [90, 90])).toBe(0);
  expect(length([210, 20], [250, 20])).toBe(0);
  expect(length([20, 20], [5, 5])).toBe(0);
});

const REVIEW = {
  ready: true,
  withdrawn: false,
  until: "2031-05-04T00:00:00Z",
  job: null,
} as unknown as Review;
const NOW = new Date("2031-05-01T00:00:00Z");

test("a review says how it stands", () => {
  const stands = (change: object) => standing({ ...REVIEW, ...change } as Review, NOW);
  expect(stands({})).toBe("Open");
  expect(stands({ until: "2031-04-01T00:00:00Z" })).toBe("Ended");
  expect(stands({ withdrawn: true })).toBe("Withdrawn");
  expect(stands({ ready: false })).toBe("Being made ready");
  expect(stands({ ready: false, job: { state: "failed" } })).toBe("Could not be made ready");
});

test("days ahead are counted over the end of a month", () => {
  expect(inDays(14, new Date(2031, 0, 25, 12))).toBe("2031-02-08");
});

test("comments are found by their words, those of answers too, and by how they stand", () => {
  const comment = (number: number, more: object) =>
    ({
      number, text: "", author: "Oda Brand", sheet_number: "A-01", state: "open", review: "r", assigned: "",
      answers: [], ...more,
    }) as unknown as Comment; // prettier-ignore
  const all = [
    comment(1, { text: "Window too low" }),
    comment(2, { text: "Why?", answers: [{ text: "The window is bought" }], state: "answered" }),
    comment(3, { sheet_number: "A-02", assigned: "Kim" }),
  ];
  const numbers = (wanted: object) => filtered(all, { ...ALL, ...wanted }).map((c) => c.number);
  expect(numbers({})).toEqual([1, 2, 3]);
  expect(numbers({ text: "WINDOW oda" })).toEqual([1, 2]);
  expect(numbers({ state: "answered" })).toEqual([2]);
  expect(numbers({ sheet: "A-02" })).toEqual([3]);
  expect(numbers({ assigned: "Kim", state: "done" })).toEqual([]);
});
