// One document's way to an output in a process of its own, so that its memory is told apart from all else: prints a line of JSON.
import { readFileSync, writeFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { Folio } from '@elastic-folio/core';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';
import { writeOutput } from './printing.ts';

/** Highest memory of this process since it was last set back, and its memory now, in MiB (Linux, proc(5)). */
const status = (name: 'VmHWM' | 'VmRSS'): number =>
  Number(new RegExp(`${name}:\\s+(\\d+)`).exec(readFileSync('/proc/self/status', 'utf8'))![1]) / 1024;
const setBack = (): void => writeFileSync('/proc/self/clear_refs', '5');

/** Lets go of what is garbage, and gives its memory back. */
async function settle(): Promise<void> {
  for (let i = 0; i < 3; i++) {
    globalThis.gc?.();
    await wait(200);
  }
}

const folio = Folio.parse(JSON.parse(readFileSync(process.argv[2]!, 'utf8')));
const fonts = await loadFonts(folio.head, [await shippedFontSource()]);
await settle();
const read = status('VmRSS');
const began = performance.now();
const composition = new Composer(fonts).compose(folio);
const composeMs = performance.now() - began;
await settle();
const loaded = status('VmRSS');
const toLoad = status('VmHWM');
setBack();
let bytes = 0;
const writing = performance.now();
await writeOutput(folio, composition, fonts, process.argv[3]!, (_, chunk) => (bytes += chunk.length));
const writeMs = performance.now() - writing;
const peak = status('VmHWM');
console.log(
  JSON.stringify({
    composeMs,
    writeMs,
    kiB: bytes / 1024,
    read,
    loaded,
    aboveLoaded: peak - loaded,
    highest: Math.max(peak, toLoad),
  }),
);
