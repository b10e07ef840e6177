/** EMU in a point: 914,400 to the inch (ISO/IEC 29500-1, 20.1.2.1). */
const EMU_IN_A_POINT = 12_700;

/** A length that an office file gives in EMU, in points; 0 where it gives none. */
export const pointsOfEmu = (emu: string | undefined): number => Number(emu ?? 0) / EMU_IN_A_POINT;
