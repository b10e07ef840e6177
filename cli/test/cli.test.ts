import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync, zipSync } from 'fflate';
import { ConvertResult, CorrectionsResult, EditionResult, InspectResult, SamplesResult, SegmentsResult } from '../src/index.ts';

// The built program, as a person calls it.
const program = join(dirname(dirname(dirname(fileURLToPath(import.meta.url)))), 'dist', 'folio.mjs');
let folder: string;
/** What the program says of the samples that it has put into `folder`. */
let drawn: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-cli-'));
  drawn = folio('samples', '--out', 'samples', '--json').stdout;
});
afterAll(() => rm(folder, { recursive: true, force: true }));
const folio = (...args: string[]) => spawnSync(process.execPath, [program, ...args], { encoding: 'utf8', cwd: folder, timeout: 60_000 });

describe('the command line', () => {
  test('a text document that came back is compared, and taken into a package of its own', async () => {
    folio('convert', 'samples/open-dome-night.efolio', '--to', 'docx', '--out', 'words');
    const files = unzipSync(new Uint8Array(await readFile(join(folder, 'words', 'docx', 'document.docx'))));
    const xml = new TextDecoder().decode(files['word/document.xml']);
    const changed = xml.replace(/(<w:t xml:space="preserve">[^<]*?)\b(telescope|dome|stars)\b/, '$1lantern');
    await writeFile(join(folder, 'changed.docx'), zipSync({ ...files, 'word/document.xml': new TextEncoder().encode(changed) }));
    const call = ['--from', 'changed.docx', '--json'];
    const run = folio('corrections', 'samples/open-dome-night.efolio', ...call, '--out', 'corrected.efolio');
    expect([run.status, run.stderr]).toEqual([0, '']);
    const found = CorrectionsResult.strict().parse(JSON.parse(run.stdout));
    expect(found).toMatchObject({ taken: 1, added: [], gone: [] });
    expect(found.corrections[0]!.after).toContain('lantern');
    expect(CorrectionsResult.parse(JSON.parse(folio('corrections', 'corrected.efolio', ...call).stdout)).corrections).toEqual([]);
    expect(folio('corrections', 'samples/five-worlds.efolio', ...call).stderr).toContain('another document');
  });

  test('texts go out for several documents as one set, come back into an edition, and outputs are made of it', async () => {
    const out = folio(
      'segments',
      'samples/five-worlds.odp',
      'samples/open-dome-night.efolio',
      '--to',
      'csv',
      '--target',
      'de',
      '--copy-source',
      '--out',
      'texts',
      '--json',
    );
    expect([out.status, out.stderr]).toEqual([0, '']);
    const sent = SegmentsResult.strict().parse(JSON.parse(out.stdout));
    expect(sent.documents.map((d) => d.valid)).toEqual([true, true]);
    expect(sent.total.total.segments).toBe(sent.documents.reduce((n, d) => n + d.analysis.total.segments, 0));
    const csv = await readFile(sent.documents[0]!.files.find((f) => f.path.endsWith('.csv'))!.path, 'utf8');
    await writeFile(
      join(folder, 'back.csv'),
      csv.replace(/Where it rains glass, sideways/g, 'Wo es Glas regnet, seitwärts').replaceAll(',initial,', ',translated,'),
    );
    const back = folio(
      'edition',
      'samples/five-worlds.odp',
      '--from',
      'back.csv',
      '--target',
      'de',
      '--out',
      'edition',
      '--original',
      '--json',
    );
    expect([back.status, back.stderr]).toEqual([0, '']);
    const taken = EditionResult.strict().parse(JSON.parse(back.stdout));
    expect(taken.segments.every((s) => s.taken)).toBe(true);
    expect(taken.files.map((f) => basename(f))).toEqual(['five-worlds.efolio', 'five-worlds.de.odp']);
    const content = (file: Buffer): string => new TextDecoder().decode(unzipSync(new Uint8Array(file))['content.xml']);
    const original = content(await readFile(join(folder, 'samples', 'five-worlds.odp')));
    expect(content(await readFile(taken.files[1]!))).toBe(
      original.replaceAll('Where it rains glass, sideways', 'Wo es Glas regnet, seitwärts'),
    );
    const made = folio('convert', 'edition/five-worlds.efolio', '--to', 'html', '--edition', 'de', '--out', 'in-german', '--json');
    expect(ConvertResult.parse(JSON.parse(made.stdout)).outputs[0]!.valid).toBe(true);
    expect(await readFile(join(folder, 'in-german', 'html', 'index.html'), 'utf8')).toContain('lang="de"');
    expect(folio('convert', 'edition/five-worlds.efolio', '--to', 'html', '--edition', 'fr', '--out', 'x').stderr).toContain(
      'no edition in “fr”',
    );
    expect(folio('segments', 'samples/five-worlds.odp', '--to', 'html', '--target', 'de', '--out', 'x').status).toBe(2);
  });

  test('samples, inspect and convert give the objects that are documented, and nothing else on standard output', async () => {
    const samples = SamplesResult.parse(JSON.parse(drawn));
    expect(samples.files.map((f) => basename(f.path))).toEqual(
      [
        ['marrowby-almanac', 'odg'],
        ['open-dome-night', 'odg'],
        ['observers-handbook', 'odg'],
        ['five-worlds', 'odp'],
      ].flatMap(([name, ending]) => [`${name}.efolio`, `${name}.${ending}`]),
    );
    // A package holds all of it; the others say what they cannot hold.
    expect(samples.files.map((f) => f.notHeld.length > 0)).toEqual(samples.files.map((f) => !f.path.endsWith('.efolio')));
    const inspected = InspectResult.strict().parse(JSON.parse(folio('inspect', 'samples/marrowby-almanac.efolio', '--json').stdout));
    expect(inspected).toMatchObject({ title: 'The Marrowby Almanac', pages: 16 });
    expect(inspected.paragraphStyles.find((s) => s.id === 'title')).toMatchObject({ name: 'Feature title', element: 'h1', places: 3 });
    await writeFile(
      join(folder, 'recipe.json'),
      JSON.stringify({ output: 'pdf', version: 1, name: 'Screen', settings: { title: 'From the recipe', bookmarks: false } }),
    );
    const run = folio('convert', 'samples/open-dome-night.efolio', '--to', 'html,pdf', '--out', 'out', '--recipe', 'recipe.json', '--json');
    expect([run.status, run.stderr]).toEqual([0, '']);
    const { outputs } = ConvertResult.strict().parse(JSON.parse(run.stdout));
    expect(outputs.map((o) => [o.id, o.valid])).toEqual([
      ['html', true],
      ['pdf', true],
    ]);
    expect(outputs.every((o) => o.ms > 0 && o.peakMemory > 1e7)).toBe(true);
    expect(await readdir(join(folder, 'out', 'html'))).toEqual(
      expect.arrayContaining(['index.html', 'style.css', 'player.js', 'fonts', 'pictures', 'ledger.json']),
    );
    const ledger = JSON.parse(await readFile(join(folder, 'out', 'pdf', 'ledger.json'), 'utf8')) as {
      entries: { subject: { aspect: string }; outcome: string; evidence?: string }[];
    };
    expect(ledger.entries.find((e) => e.subject.aspect === 'title')?.evidence).toContain('From the recipe');
    expect(ledger.entries.find((e) => e.subject.aspect === 'outline')?.outcome).toBe('excluded');
  });

  test('pages of an open presentation that nobody has changed go out as they came', async () => {
    const run = folio('convert', 'samples/five-worlds.odp', '--to', 'odp', '--out', 'as-they-came', '--json');
    expect([run.status, run.stderr]).toEqual([0, '']);
    const written = JSON.parse(await readFile(join(folder, 'as-they-came', 'odp', 'ledger.json'), 'utf8')) as {
      entries: { subject: { kind: string; aspect: string }; code: string; check: string }[];
    };
    const pages = written.entries.filter((e) => e.subject.kind === 'page' && e.subject.aspect === 'size');
    expect(pages.map((e) => [e.code, e.check])).toEqual(Array(5).fill(['page.original', 'confirmed']));
  });

  test.each([
    [[], 2, /command is missing/],
    [['fly'], 2, /no command "fly"/],
    [['inspect'], 2, /needs a FILE/],
    [['convert', 'x.efolio', '--out', 'o'], 2, /needs --to/],
    [['convert', 'x.efolio', '--to', 'paper', '--out', 'o'], 2, /no output "paper"/],
    [['inspect', 'x.efolio', '--loud'], 2, /Unknown option/],
    [['inspect', 'missing.efolio'], 1, /missing\.efolio does not exist/],
    [['inspect', 'note.txt'], 1, /of no kind that can be brought in/],
    [['convert', 'samples/open-dome-night.efolio', '--to', 'pdf', '--out', 'o', '--pages', '7'], 1, /pages 1 to 1/],
    [
      ['convert', 'samples/open-dome-night.efolio', '--to', 'pdf', '--out', 'o', '--pages', 'x'],
      1,
      /cannot be used: “pages” must be written like/,
    ],
    [['convert', 'samples/open-dome-night.efolio', '--to', 'pdf', '--out', 'o', '--edition', 'fr'], 1, /no edition in “fr”/],
    [['convert', 'samples/open-dome-night.efolio', '--to', 'pdf', '--out', 'o', '--recipe', 'note.txt'], 1, /is no recipe/],
  ] as [string[], number, RegExp][])('%j ends with code %i and a sentence', async (args, code, says) => {
    await writeFile(join(folder, 'note.txt'), 'hello');
    const run = folio(...args);
    expect(run.status).toBe(code);
    expect(run.stderr).toMatch(says);
    expect(run.stdout).toBe('');
    expect(await readdir(join(folder, 'o')).catch(() => [])).toEqual([]);
  });
});
