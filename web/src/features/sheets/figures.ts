/** A figure as a field shows it: to a hundredth, without zeros at its end. */
export const shownFigure = (value: number) => String(Math.round(value * 100) / 100);
