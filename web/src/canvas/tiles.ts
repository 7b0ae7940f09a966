/** Sheets as tiles of pixels, coarse to fine: which of them a view of the sheet needs. */
import type { TileLevel } from "../api/client";
import { toPaper, type Camera } from "./geometry";

/** The side of a tile, pixels. */
export const TILE = 512;
/** Pixels of a tile are stretched to so many of the screen before a finer level is taken. */
const STRETCH = 1.05;

export interface Tile {
  level: number;
  row: number;
  column: number;
  /** Where it lies, mm from the upper left corner of the sheet. */
  left: number;
  top: number;
  width: number;
  height: number;
}

interface Space {
  width: number;
  height: number;
}

/** The coarsest level that looks sharp at so many pixels of the screen for a mm; else the finest. */
export function levelFor(levels: readonly TileLevel[], perMm: number): number {
  const found = levels.findIndex((level) => level.per_mm * STRETCH >= perMm);
  return found < 0 ? levels.length - 1 : found;
}

/**
 * The tiles that are seen: those of the coarsest level, which are always there, then those of the level that
 * looks sharp.
 */
export function tilesSeen(
  levels: readonly TileLevel[],
  sheet: Space,
  camera: Camera,
  space: Space,
  ratio: number,
): Tile[] {
  const sharp = levelFor(levels, camera.scale * ratio);
  const [left, top] = toPaper(camera, 0, 0);
  const [right, foot] = toPaper(camera, space.width, space.height);
  const seen = { left, right, top: sheet.height - top, foot: sheet.height - foot };
  return (sharp === 0 ? [0] : [0, sharp]).flatMap((number) => {
    const level = levels[number];
    if (!level) return [];
    const side = TILE / level.per_mm;
    const first = (at: number) => Math.max(0, Math.floor(at / side));
    const last = (at: number, count: number) => Math.min(count - 1, Math.floor(at / side));
    const found: Tile[] = [];
    for (let row = first(seen.top); row <= last(seen.foot, level.rows); row += 1)
      for (let column = first(seen.left); column <= last(seen.right, level.columns); column += 1)
        found.push({
          level: number,
          row,
          column,
          left: column * side,
          top: row * side,
          width: Math.min(side, Math.ceil(sheet.width * level.per_mm - column * TILE) / level.per_mm),
          height: Math.min(side, Math.ceil(sheet.height * level.per_mm - row * TILE) / level.per_mm),
        });
    return found;
  });
}
