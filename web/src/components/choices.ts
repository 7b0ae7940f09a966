/**
 * The choices of an enumeration that the API's schema has, in the order in which they are named. A value that
 * is added there is missing from `names`, and does not compile.
 */
export const choicesOf = <T extends string>(names: Record<T, string>) =>
  Object.entries(names) as [value: T, name: string][];
