/** Angles and places of a building, as they are written and typed. */
import { t } from "../../words/words";

const FIGURE = new Intl.NumberFormat("en", { minimumFractionDigits: 3, maximumFractionDigits: 3 });

/** A length in mm in metres, with its sign: −0.200 m. */
export function metres(length: number): string {
  return `${FIGURE.format(length / 1000).replace("-", "−")} m`;
}

/** 20.00°, or 0° for what is not turned. */
export function degrees(angle: number): string {
  return angle === 0 ? "0°" : `${angle.toFixed(2).replace("-", "−")}°`;
}

/** A point in metres, a line for each axis with its name; short where it is zero. */
export function placeText(point: number[], axes: string[]): string {
  if (axes.every((_, k) => !point[k])) return t("at its zero");
  return axes.map((axis, k) => `${axis} ${metres(point[k] ?? 0)}`).join("\n");
}

/** The angle that was typed, with a comma or a point; null for none, or one out of bounds. */
export function turnTyped(text: string): number | null {
  const plain = text.trim().replace(",", ".").replace("−", "-").replace(/°$/, "");
  const angle = Number(plain);
  return plain === "" || !Number.isFinite(angle) || Math.abs(angle) > 360 ? null : angle;
}

/** A length in metres that was typed, in mm; null for none. */
export function metresTyped(text: string): number | null {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  const length = Number(plain);
  return plain === "" || !Number.isFinite(length) ? null : length * 1000;
}
