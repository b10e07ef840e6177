/** The middle one of some values, or the higher of the two in the middle. */
export const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
