import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Sample } from '@elastic-folio/demo';
import { FontFace, FontSet } from '../src/compose/index.ts';
import { laterCardsOf } from '../src/index.ts';
import { fontsOf, make, sample } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

// Programs that had no part in making the file: qpdf and Poppler, from Debian's packages.
const tools = existsSync('/usr/bin/qpdf') && existsSync('/usr/bin/pdfinfo');
const outside = tools ? test : test.skip;
let folder: string;
let file: string;
let almanac: Sample;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'folio-pdf-'));
  almanac = await sample('marrowby-almanac');
  file = join(folder, 'a.pdf');
  await writeFile(file, await (await make(almanac, 'pdf')).read('document.pdf'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));
const run = (program: string, ...args: string[]): string => execFileSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 26 });
const words = (text: string): string[] =>
  text
    // A divided word is whole: its hyphen is a soft one (ISO 32000-1, 14.8.2.2.3).
    .replace(/\u00AD\s*/g, '')
    .replace(/[\s\u00A0\f]+/g, ' ')
    .trim()
    .split(' ');

describe('the PDF, seen by other programs', () => {
  outside('is clean in syntax and streams (ISO 32000-1, 7.5)', () => {
    expect(run('qpdf', '--check', file)).toMatch(/No syntax or stream encoding errors/);
  });

  outside('says its title, language-tagged structure and exact page size (ISO 32000-1, 14.3.3, 14.7, 14.11.2)', () => {
    const info = run('pdfinfo', file);
    expect(info).toMatch(/Title:\s+The Marrowby Almanac/);
    expect(info).toMatch(/Tagged:\s+yes/);
    expect(info).toMatch(/Page size:\s+595\.276 x 765\.354 pts/);
    expect(run('pdfinfo', '-box', file)).toMatch(/TrimBox:\s+0\.00\s+0\.00\s+595\.28\s+765\.35/);
  });

  outside('has headings, paragraphs, lists, figures and links as structure (ISO 32000-1, 14.8.4)', () => {
    const types = run('pdfinfo', '-struct', file)
      .split('\n')
      .map((l) => l.trim().split(' ')[0]);
    const count = (type: string): number => types.filter((t) => t === type).length;
    expect([count('H1'), count('H2'), count('LI'), count('Figure'), count('Link'), count('BlockQuote')]).toEqual([8, 15, 21, 24, 14, 2]);
  });

  outside('gives the words in reading order (ISO 32000-1, 14.8.2.3)', () => {
    const text = run('pdfinfo', '-struct-text', file);
    const spoken = [...text.matchAll(/^\s*"(.*)"$/gm)].map((m) => m[1]!).join(' ');
    const order = [
      'Spring on the hill',
      'The Marrowby Almanac',
      'Diary: five evenings',
      'New: walks at twilight',
      'When the dome turns',
      'There is a sound',
      'The great tube',
      'weighs a little over',
      'A roof with a memory',
      'It goes on in another hand',
      'They go quiet',
      'leaves the river',
      'Reading the sky in March',
      'Liebe Freunde',
      'Diary',
      'How to find us',
    ];
    let at = 0;
    for (const passage of order) {
      const next = words(spoken).join(' ').indexOf(passage, at);
      expect([passage, next >= at]).toEqual([passage, true]);
      at = next;
    }
  });

  outside('gives every word of upright text when it is copied, and none that is hidden', () => {
    const bag = (list: string[]): string[] => list.filter((w) => /\w/.test(w)).sort();
    // Reading by place alone sets a drop capital apart from its word; by the tags it is whole, as the test after this one shows.
    const text = run('pdftotext', '-raw', file, '-').replace('T\nhe dome', 'The dome').replace('W\ne meet', 'We meet');
    // The number of a note stands right after its word.
    const copied = bag(words(text.replace(/([a-z.])[12](?=[\s,])/g, '$1 ')));
    // Poppler takes turned text apart letter by letter, so those two texts are left aside.
    // Of a switcher, a file for paper shows the first card.
    const later = new Set(Object.values(almanac.folio.spreads).flatMap(laterCardsOf));
    const upright = Object.values(almanac.folio.stories).filter(
      (s) => !/note|quote|label/.test(s.id) && !s.frames.some((f) => later.has(f.item)),
    );
    const wanted = bag(
      upright.flatMap((s) =>
        s.order.flatMap((id) => {
          const block = s.blocks[id];
          return block?.kind === 'paragraph' ? words(block.content.map((n) => (n.type === 'span' ? n.text : ' ')).join('')) : [];
        }),
      ),
    );
    for (const word of wanted) expect([word, copied.splice(copied.indexOf(word), copied.includes(word) ? 1 : 0)]).toEqual([word, [word]]);
    expect(copied.filter((w) => /printer/i.test(w))).toEqual([]);
  });

  outside('carries its fonts, reduced, with the way back to Unicode (ISO 32000-1, 9.9, 9.10.3)', () => {
    const rows = run('pdffonts', file).split('\n').slice(2).filter(Boolean);
    expect(rows.length).toBeGreaterThanOrEqual(7);
    for (const row of rows) expect(row).toMatch(/^[A-Z]{6}\+\S+\s+CID TrueType\s+Identity-H\s+yes yes yes/);
  });
});

describe('a font that may not be embedded', () => {
  /** The same fonts with OS/2 fsType set to 2, restricted licence embedding (OpenType 1.9, OS/2). */
  const restricted = async (): Promise<FontSet> => {
    const set = await fontsOf(almanac.folio);
    return new FontSet(
      set.faces.map((f) => {
        if (f.family !== 'Source Serif 4' || f.weight !== 600 || f.style !== 'normal') return f;
        const bytes = f.bytes.slice();
        const view = new DataView(bytes.buffer);
        for (let i = 0; i < view.getUint16(4); i++)
          if (view.getUint32(12 + i * 16) === 0x4f532f32) view.setUint16(view.getUint32(12 + i * 16 + 8) + 8, 2);
        return new FontFace(f.key, f.family, f.weight, f.style, bytes);
      }),
    );
  };
  test.each(ofToday(['html', 'pdf'], 1, (id) => id))('is not in the %s; its letters are drawn and the ledger says so', async (output) => {
    const { ledger, valid, paths, read } = await make(almanac, output, {}, undefined, { fonts: await restricted() });
    expect(valid).toBe(true);
    expect(ledger.find((e) => e.subject.id === 'night-words-text-1' && e.subject.aspect === 'look')).toMatchObject({
      outcome: 'adapted',
      code: 'font.drawn',
    });
    expect(ledger.find((e) => e.subject.id === 'dome-feature-2' && e.subject.aspect === 'look')).toMatchObject({ outcome: 'kept' });
    if (output === 'html') {
      expect(paths.filter((p) => p.includes('600semibold') && p.includes('serif') && !p.includes('italic'))).toEqual([]);
      expect(new TextDecoder().decode(await read('index.html'))).toContain('When the');
    } else if (tools) {
      const other = join(folder, 'r.pdf');
      await writeFile(other, await read('document.pdf'));
      expect(run('pdffonts', other)).not.toMatch(/SourceSerif4-SemiBold(?!Italic)/);
    }
  });
});
