import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';
import sharp from 'sharp';

/** Something that can be sent to the application, and where. `document`: it becomes one, and is taken off the shelf again. */
export interface Input {
  kind: string;
  name: string;
  bytes: Uint8Array;
  /** The address; `{id}` stands for the document that it is sent to. */
  to: string;
  document?: true;
}

const folio = (...args: string[]): void => {
  const { status, stderr } = spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' });
  if (status !== 0) throw new Error(`No input could be made: ${stderr}`);
};

/** Whole files of every kind that the application takes, made by itself from a sample; `few` leaves out what takes long to make. */
export async function inputs(folder: string, few = false): Promise<Input[]> {
  mkdirSync(folder, { recursive: true });
  folio('samples', '--out', folder);
  const flyer = join(folder, 'open-dome-night.efolio');
  const out: Input[] = [{ kind: 'package', name: 'a.efolio', bytes: readFileSync(flyer), to: '/api/folios', document: true }];
  const formats = few ? ['xliff-2.1', 'po'] : ['xliff-1.2', 'xliff-2.1', 'xlsx', 'docx-columns', 'tmx', 'po', 'csv', 'xml'];
  for (const format of formats) {
    folio('segments', flyer, '--to', format, '--target', 'de', '--out', join(folder, 'texts'));
    const home = join(folder, 'texts', format);
    const name = readdirSync(home).find((f) => f.startsWith('texts.'))!;
    const bytes = readFileSync(join(home, name));
    out.push({ kind: `exchange ${format}`, name, bytes, to: '/api/folios/{id}/languages/de/return' });
    if (format === 'tmx') out.push({ kind: 'memory', name, bytes, to: '/api/memory/en/de' });
  }
  const office = few ? ['odp'] : ['odp', 'odt', 'docx', 'pptx'];
  folio('convert', flyer, '--to', office.join(','), '--out', join(folder, 'office'));
  for (const format of office) {
    const home = join(folder, 'office', format);
    const name = readdirSync(home).find((f) => f.endsWith(`.${format}`))!;
    const bytes = readFileSync(join(home, name));
    out.push({ kind: `corrections ${format}`, name, bytes, to: '/api/folios/{id}/corrections' });
    if (format === 'odp') out.push({ kind: 'presentation', name, bytes, to: '/api/folios', document: true });
  }
  const fonts = dirname(createRequire(import.meta.url).resolve('@expo-google-fonts/work-sans/package.json'));
  const font = readFileSync(join(fonts, '400Regular', 'WorkSans_400Regular.ttf'));
  out.push({ kind: 'font', name: 'a.ttf', bytes: font, to: '/api/fonts' });
  const picture = sharp({ create: { width: 120, height: 90, channels: 3, background: '#357' } });
  for (const format of ['png', 'jpeg', 'webp'] as const)
    out.push({
      kind: `picture ${format}`,
      name: `a.${format}`,
      bytes: await picture.clone().toFormat(format).toBuffer(),
      to: '/api/folios/{id}/files',
    });
  const tbx =
    '<?xml version="1.0"?><tbx type="TBX-Basic" style="dca" xml:lang="en" xmlns="urn:iso:std:iso:30042:ed-2"><text><body><conceptEntry id="c1"><langSec xml:lang="en"><termSec><term>dome</term></termSec></langSec><langSec xml:lang="de"><termSec><term>Kuppel</term></termSec></langSec></conceptEntry></body></text></tbx>';
  out.push({ kind: 'terms', name: 'a.tbx', bytes: Buffer.from(tbx), to: '/api/terms/en/de/file' });
  out.push({
    kind: 'captions',
    name: 'a.vtt',
    bytes: Buffer.from('WEBVTT\n\n00:00.000 --> 00:02.000\nA bell rings.\n'),
    to: '/api/folios/{id}/files',
  });
  const recipe = JSON.stringify({
    called: 'a.json',
    text: '{"format":"elastic-folio-recipe","output":"pdf","version":1,"name":"A","settings":{}}',
  });
  out.push({ kind: 'JSON', name: 'a.json', bytes: Buffer.from(recipe), to: '/api/recipes/read' });
  return out;
}
