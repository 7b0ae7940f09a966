/** Pictures of drawings: what is asked of the painter, in which order, and when they are shown. */
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { BOARD, pictures, type Wanted } from "../src/canvas/pictures";

interface Sent {
  number: number;
  linework: string;
}
const sent: Sent[] = [];
let painter: { onmessage?: (event: { data: object }) => void };
vi.stubGlobal(
  "Worker",
  class {
    onmessage = undefined;
    constructor() {
      painter = this as typeof painter;
    }
    postMessage(message: Sent) {
      sent.push(message);
    }
  },
);
const wanted = (linework: string): Wanted => ({
  linework,
  style: { pens: {}, layers: {}, cuts: [], redrawn: [], thinnest: 1 },
  ratio: 0.01,
  turn: 0,
  region: [0, 0, 10, 10],
  pixels: 1,
});
const bitmap = { width: 10, height: 10, close: () => undefined };
const names = () => sent.map((each) => each.linework);
async function paint(linework: string) {
  const number = sent.find((each) => each.linework === linework)?.number;
  painter.onmessage?.({ data: { number, bitmap } });
  await vi.advanceTimersByTimeAsync(0);
}

beforeEach(() => {
  sent.length = 0;
  vi.useFakeTimers();
});
afterEach(() => vi.useRealTimers());

it("has two painted at once, and those of the board before small ones", async () => {
  for (const each of ["a", "b", "c"]) pictures.get(`sheet/${each}`, wanted(each));
  pictures.get(`${BOARD}/d`, wanted("d"));
  expect(names()).toEqual(["a", "b"]);
  await paint("a");
  expect(names()).toEqual(["a", "b", "d"]);
  await paint("b");
  await paint("d");
  await paint("c");
  expect(pictures.get(`${BOARD}/d`, wanted("d")).complete).toBe(true);
});

it("shows those of its own place, several that come shortly after each other at once", async () => {
  const [shown, other] = [vi.fn(), vi.fn()];
  const stop = pictures.watch("one", shown);
  pictures.watch("two", other);
  for (const each of ["p", "q", "r"]) pictures.get(`one/${each}`, wanted(each));
  await paint("p");
  await paint("q");
  expect(shown).toHaveBeenCalledTimes(0);
  await vi.advanceTimersByTimeAsync(200);
  expect(shown).toHaveBeenCalledTimes(1);
  // The last is waited for by nobody.
  await paint("r");
  expect(shown).toHaveBeenCalledTimes(2);
  expect(other).not.toHaveBeenCalled();
  stop();
});
