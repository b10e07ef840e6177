/** Lengths inside a Folio are points: 1 in = 72 pt = 96 CSS px = 25.4 mm (CSS Values 4, section 6.2). */
export const PT_PER_INCH = 72;
export const PX_PER_PT = 96 / 72;
export const PT_PER_PX = 72 / 96;

export const mm = (millimetres: number): number => (millimetres / 25.4) * PT_PER_INCH;
export const toMm = (points: number): number => (points / PT_PER_INCH) * 25.4;

/** Rounds to a fixed number of decimals and drops `-0`; used wherever a length is written to a file. */
export const round = (value: number, decimals = 4): number => {
  const factor = 10 ** decimals;
  return Math.round(value * factor) / factor + 0;
};
