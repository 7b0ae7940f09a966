/** Linework as the server sends it, read without an object for any line. */
import { expect, it } from "vitest";
import { pointsOf, unpack } from "../src/canvas/linework";

/** Two lines, of 2 and 3 points. */
function file(magic = "DFL1"): ArrayBuffer {
  const arrays = [
    ["points", "<f8", 10],
    ["starts", "<u4", 3],
    ["role", "<i1", 2],
  ];
  let header = JSON.stringify({ elements: ["a"], layers: ["Walls"], materials: [], arrays });
  header = header.padEnd(header.length + ((8 - ((header.length + 8) % 8)) % 8));
  const made = new ArrayBuffer(8 + header.length + 80 + 12 + 2);
  new Uint8Array(made).set(new TextEncoder().encode(magic));
  new DataView(made).setUint32(4, header.length, true);
  new Uint8Array(made).set(new TextEncoder().encode(header), 8);
  new Float64Array(made, 8 + header.length, 10).set([0, 0, 5000, 0, 1, 1, 2, 2, 3.25, -3]);
  new Uint32Array(made, 8 + header.length + 80, 3).set([0, 2, 5]);
  new Int8Array(made, 8 + header.length + 92, 2).set([1, 2]);
  return made;
}

it("has its arrays where the header says", () => {
  const { arrays, layers } = unpack(file());
  const lines = { points: arrays.points ?? [], starts: arrays.starts ?? [] };
  expect(layers).toEqual(["Walls"]);
  expect(pointsOf(lines, 0)).toEqual([
    [0, 0],
    [5000, 0],
  ]);
  expect(pointsOf(lines, 1)).toEqual([
    [1, 1],
    [2, 2],
    [3.25, -3],
  ]);
  expect([...(arrays.role as Int8Array)]).toEqual([1, 2]);
});

it("of another format is refused", () => {
  expect(() => unpack(file("ABCD"))).toThrow("no linework");
});
