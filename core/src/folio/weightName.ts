/** What weights are called (OpenType 1.9, OS/2 usWeightClass), those that text is mostly set in. */
const WEIGHTS: Record<number, string> = { 300: 'light', 400: 'regular', 500: 'medium', 600: 'semibold', 700: 'bold', 900: 'black' };

/** A weight's name; undefined for one that has none. */
export const weightName = (weight: number): string | undefined => WEIGHTS[weight];
