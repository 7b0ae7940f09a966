/** A model version's mesh for 3D, read from its arrays (docs/solid-format.md). */
import { errorOf } from "../../api/client";

export interface SolidElement {
  id: string;
  name: string;
  class: string;
  storey: string;
  layer: string;
  material: string;
  points: [number, number];
  triangles: [number, number];
  edges: [number, number];
}

export interface Solid {
  /** The model point that places are measured from, mm. */
  origin: readonly [number, number, number];
  elements: SolidElement[];
  places: Float32Array;
  triangles: Uint32Array;
  edges: Uint32Array;
}

export async function fetchSolid(version: number): Promise<Solid> {
  const response = await fetch(`/api/model-versions/${version}/solid/`);
  if (!response.ok) throw await errorOf(response);
  return readSolid(await response.arrayBuffer());
}

export function readSolid(bytes: ArrayBuffer): Solid {
  const length = new DataView(bytes).getUint32(4, true);
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 8, length))) as {
    origin: [number, number, number];
    points: number;
    triangles: number;
    edges: number;
    elements: SolidElement[];
  };
  let at = 8 + length;
  const places = new Float32Array(bytes, at, header.points * 3);
  at += places.byteLength;
  const triangles = new Uint32Array(bytes, at, header.triangles * 3);
  at += triangles.byteLength;
  return {
    origin: header.origin,
    elements: header.elements,
    places,
    triangles,
    edges: new Uint32Array(bytes, at, header.edges * 2),
  };
}

/** The sides of an element's box along the axes; mm. */
export function sidesOf({ places }: Solid, { points: [first, end] }: SolidElement): number[] {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let p = first * 3; p < end * 3; p++) {
    const at = places[p] ?? 0;
    low[p % 3] = Math.min(low[p % 3] ?? 0, at);
    high[p % 3] = Math.max(high[p % 3] ?? 0, at);
  }
  return high.map((h, axis) => Math.max(h - (low[axis] ?? 0), 0));
}

/** The numbers of all elements, the largest first. */
export function largestFirst(solid: Solid): number[] {
  const sizes = solid.elements.map((e) => Math.hypot(...sidesOf(solid, e)));
  return solid.elements.map((_, k) => k).sort((a, b) => (sizes[b] ?? 0) - (sizes[a] ?? 0));
}

/** Runs of indices, one after the other. */
export function joined(parts: Uint32Array[]): Uint32Array {
  const whole = new Uint32Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
