import { marrowbyAlmanac } from './almanac/almanac.ts';
import { fiveWorlds } from './fiveWorlds/fiveWorlds.ts';
import { handbook } from './handbook/handbook.ts';
import type { Sample } from './sampleAssembly.ts';
import { openDomeNight } from './openDomeNight.ts';

/** The sample documents, in the order in which they stand on the shelf. */
export async function samples(): Promise<Sample[]> {
  return Promise.all([marrowbyAlmanac(), openDomeNight(), handbook(), fiveWorlds()]);
}
