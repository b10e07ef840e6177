import { resolve } from 'node:path';
import { writeSamples } from '@elastic-folio/demo';
import type { SamplesResult } from './results.ts';

/** Writes the sample documents, each as a package and as an OpenDocument file. */
export const samplesInto = async (folder: string): Promise<SamplesResult> => ({ files: await writeSamples(resolve(folder)) });
