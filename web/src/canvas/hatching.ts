/**
 * Filling what is cut, as the core does (drafting/styles/hatches.py): areas, then the lines of hatches within
 * them.
 */
import hatches from "../../../contract/hatches.json";
import type { DrawingItem } from "../api/client";
import { screened } from "./penColours";

/** A family of parallel lines of a hatch; figures for a spacing of 1 mm. */
export interface Family {
  angle: number;
  apart: number;
  shift: number;
  dashes: readonly number[];
  slide: number;
}
/** How what is cut is filled, with the lines of its hatch. */
export type Cut = DrawingItem["cuts"][number] & { lines: readonly Family[] };

const HATCHES: Record<string, readonly Family[]> = hatches;
export const withLines = (cuts: readonly DrawingItem["cuts"][number][]): Cut[] =>
  cuts.map((cut) => ({ ...cut, lines: HATCHES[cut.hatch] ?? [] }));
/** Lines nearer to each other than this are a tone to the eye, and are painted as one; pixels. */
const A_TONE = 2.2;

export interface Region {
  material: string;
  /** The id of the element that is cut. */
  element: string;
  /**
   * Its outline and holes in real millimetres, and the box they lie in: least u, least v, greatest u,
   * greatest v.
   */
  path: Path2D;
  box: readonly [number, number, number, number];
}

export const cutOf = (cuts: readonly Cut[], material: string) =>
  cuts.find(
    ({ match }) =>
      !match ||
      match
        .split("|")
        .some((part) => part.trim() && material.toLowerCase().includes(part.trim().toLowerCase())),
  );

/**
 * Where a drawing lies in a picture: real mm to paper mm by `ratio` and `turn`, paper mm to pixels by the
 * rest.
 */
export interface PicturePlacement {
  ratio: number;
  turn: number;
  pixels: number;
  /** The pixel at which paper mm are zero. */
  x: number;
  y: number;
  /** No line is thinner than this, pixels. */
  thinnest: number;
  /** The size of the picture, pixels. */
  width: number;
  height: number;
}

export function setReal(
  context: OffscreenCanvasRenderingContext2D,
  { ratio, turn, pixels, x, y }: PicturePlacement,
) {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const scale = ratio * pixels;
  context.setTransform(scale * cos, -scale * sin, -scale * sin, -scale * cos, x, y);
}

/** Fill regions, each as is said beside it. */
export function fillRegions(
  context: OffscreenCanvasRenderingContext2D,
  chosen: readonly (readonly [Region, Cut | undefined])[],
  placement: PicturePlacement,
) {
  for (const [{ path }, cut] of chosen) {
    if (!cut) continue;
    const tone = toneOf(cut, placement);
    if (!cut.fill && !tone) continue;
    setReal(context, placement);
    context.globalAlpha = cut.opacity / 100;
    if (cut.fill) {
      context.fillStyle = cut.fill;
      context.fill(path, "evenodd");
    }
    context.globalAlpha = 1;
    if (tone) {
      context.fillStyle = tone;
      context.fill(path, "evenodd");
    }
  }
  for (const [region, cut] of chosen)
    if (cut?.lines.length && !toneOf(cut, placement)) hatch(context, region, cut, placement);
}

/** The tone of a hatch whose lines run together; nothing where they can. */
function toneOf(cut: Cut, { pixels }: PicturePlacement): string {
  if (!cut.lines.length || Math.min(...cut.lines.map((f) => f.apart)) * cut.spacing * pixels >= A_TONE)
    return "";
  const inked = cut.lines.reduce((sum, f) => sum + (cut.width / (f.apart * cut.spacing)) * shareOf(f), 0);
  const parts = [1, 3, 5].map((k) => parseInt(screened(cut.colour, cut.screen).slice(k, k + 2), 16));
  return `rgba(${parts.join(",")},${Math.min(inked, 1).toFixed(3)})`;
}

/** How much of a family's lines is dash. */
function shareOf({ dashes }: Family): number {
  const whole = dashes.reduce((sum, part) => sum + part, 0);
  return whole ? dashes.reduce((sum, part, k) => sum + (k % 2 ? 0 : part), 0) / whole : 1;
}

function hatch(
  context: OffscreenCanvasRenderingContext2D,
  { path, box }: Region,
  cut: Cut,
  placement: PicturePlacement,
) {
  const { pixels, x, y, ratio, width, height } = placement;
  context.save();
  setReal(context, placement);
  context.clip(path, "evenodd");
  context.setTransform(pixels, 0, 0, -pixels, x, y);
  context.strokeStyle = screened(cut.colour, cut.screen);
  context.lineWidth = Math.max(cut.width, placement.thinnest / pixels);
  context.lineCap = "butt";
  // Only what can be seen of the region is hatched, however far it reaches.
  const [cos, sin] = [Math.cos((placement.turn * Math.PI) / 180), Math.sin((placement.turn * Math.PI) / 180)];
  const [u0, v0, u1, v1] = box;
  const corners = (
    [
      [u0, v0],
      [u1, v0],
      [u1, v1],
      [u0, v1],
    ] as const
  ).map(([u, v]) => [ratio * (u * cos - v * sin), ratio * (u * sin + v * cos)] as const);
  const west = Math.max(Math.min(...corners.map((p) => p[0])), -x / pixels);
  const east = Math.min(Math.max(...corners.map((p) => p[0])), (width - x) / pixels);
  const south = Math.max(Math.min(...corners.map((p) => p[1])), (y - height) / pixels);
  const north = Math.min(Math.max(...corners.map((p) => p[1])), y / pixels);
  if (west < east && south < north)
    for (const family of cut.lines) lines(context, family, cut, [west, south, east, north]);
  context.restore();
}

function lines(
  context: OffscreenCanvasRenderingContext2D,
  family: Family,
  cut: Cut,
  [west, south, east, north]: readonly [number, number, number, number],
) {
  const angle = ((family.angle + cut.angle) * Math.PI) / 180;
  const [ax, ay] = [Math.cos(angle), Math.sin(angle)];
  const corners = [
    [west, south],
    [east, south],
    [east, north],
    [west, north],
  ] as const;
  const across = corners.map(([px, py]) => -px * ay + py * ax);
  const along = corners.map(([px, py]) => px * ax + py * ay);
  const step = family.apart * cut.spacing;
  const dashes = family.dashes.map((part) => part * cut.spacing);
  const period = dashes.reduce((sum, part) => sum + part, 0);
  const [from, to] = [Math.min(...along), Math.max(...along)];
  context.setLineDash(dashes);
  context.beginPath();
  for (
    let row = Math.ceil(Math.min(...across) / step - family.shift);
    (row + family.shift) * step <= Math.max(...across);
    row++
  ) {
    const off = (row + family.shift) * step;
    const slide = row * family.slide * cut.spacing;
    // Each line begins where a dash does, so that dashes run on from one region to the next.
    const start = period ? Math.floor((from - slide) / period) * period + slide : from;
    context.moveTo(start * ax - off * ay, start * ay + off * ax);
    context.lineTo(to * ax - off * ay, to * ay + off * ax);
  }
  context.stroke();
  context.setLineDash([]);
}
