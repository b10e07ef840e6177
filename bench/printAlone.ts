// One document's way to an output in a process of its own, so that its memory is told apart from all else: prints a line of JSON.
import { appendFileSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Folio } from '@elastic-folio/core';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import { keepHeapsSmall, shippedFontSource } from '@elastic-folio/core/node';
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

// As the programs do that convert.
keepHeapsSmall();
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
const cpu = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};
// Files wait on the disk to be read back, as those of a run do.
const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
const paths = new Map<string, string>();
let bytes = 0;
const [writing, writingCpu] = [performance.now(), cpu()];
const readBack = await writeOutput(folio, composition, fonts, process.argv[3]!, (path, chunk) => {
  bytes += chunk.length;
  const file = paths.get(path) ?? join(folder, String(paths.size));
  paths.set(path, file);
  appendFileSync(file, chunk);
});
const writeMs = performance.now() - writing;
const writeCpuMs = cpu() - writingCpu;
const peak = status('VmHWM');
await settle();
setBack();
const readingCpu = cpu();
const evidence = await readBack(
  [...paths].map(([path, file]) => ({
    path,
    mediaType: path.endsWith('.html') ? 'text/html' : 'application/octet-stream',
    bytes: async () => new Uint8Array(readFileSync(file)),
  })),
);
if (!evidence) throw new Error('Nothing was read back.');
const readBackCpuMs = cpu() - readingCpu;
const readBackPeak = status('VmHWM');
rmSync(folder, { recursive: true });
console.log(
  JSON.stringify({
    composeMs,
    writeMs,
    writeCpuMs,
    readBackCpuMs,
    kiB: bytes / 1024,
    read,
    loaded,
    aboveLoaded: peak - loaded,
    readBackAbove: readBackPeak - loaded,
    highest: Math.max(peak, toLoad, readBackPeak),
  }),
);
