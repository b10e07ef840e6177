/** Lengths of the office formats, from points (ISO/IEC 29500-1: 20.1.2.1, EMU are 914,400 to the inch; 17.18.74, twentieths). */
export const emu = (points: number): number => Math.round(points * 12_700);
export const twips = (points: number): number => Math.round(points * 20);
/** Font sizes and raised baselines. */
export const halfPoints = (points: number): number => Math.round(points * 2);
/** Weights of borders. */
export const eighths = (points: number): number => Math.round(points * 8);
/** Angles, in sixty thousandths of a degree, clockwise; from 0 to a full turn. */
export const angle60000 = (degrees: number): number => {
  const turn = Math.round(degrees * 60_000) % 21_600_000;
  return turn < 0 ? turn + 21_600_000 : turn;
};
/** Shares, in thousandths of a per cent. */
export const thousandths = (share: number): number => Math.round(share * 100_000);
