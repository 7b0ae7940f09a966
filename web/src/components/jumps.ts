/** What one can jump to by its name, and in which order that is offered. */

export interface Jump {
  /** What it is: "Sheet", "View", "Station", "Command". */
  kind: string;
  name: string;
  go: () => void;
}

/**
 * Those whose name has all the words, the best first: what begins with the words before what has a word that
 * begins with one, before the rest; else in their order.
 */
export function foundAmong(jumps: readonly Jump[], typed: string): Jump[] {
  const words = typed.trim().toLocaleLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return [...jumps];
  const whole = words.join(" ");
  const rank = (jump: Jump) => {
    const name = jump.name.toLocaleLowerCase();
    if (!words.every((word) => `${name} ${jump.kind.toLocaleLowerCase()}`.includes(word))) return -1;
    if (name.startsWith(whole)) return 0;
    return words.every((word) => name.split(/[\s,]+/).some((part) => part.startsWith(word))) ? 1 : 2;
  };
  return jumps
    .map((jump) => ({ jump, rank: rank(jump) }))
    .filter(({ rank: own }) => own >= 0)
    .sort((a, b) => a.rank - b.rank)
    .map(({ jump }) => jump);
}
