import { beforeAll, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { loadFonts } from '../../src/compose/index.ts';
import type { FontSet, FontSource } from '../../src/compose/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { shippedFontSource } from '../../src/ports/node.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { asSample, make } from '../support/samples.ts';
import { faultsOfPptx } from '../support/slideSchema.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { faultsOfDocx } from '../support/wordSchema.ts';

/** A font file without the table that has its names: the directory of tables (OpenType 1.9) calls it something else. */
function nameless(bytes: Uint8Array): Uint8Array {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let i = 0; i < view.getUint16(4); i++) {
    const at = 12 + i * 16;
    if (String.fromCharCode(...out.subarray(at, at + 4)) === 'name') out[at] = 'x'.charCodeAt(0);
  }
  return out;
}

const folio = tinyFolio(['Words in a font without names.']);
let fonts: FontSet;
let family: string;
beforeAll(async () => {
  const shipped = await shippedFontSource();
  const source: FontSource = {
    origin: shipped.origin,
    list: () => shipped.list(),
    bytes: async (key) => nameless(await shipped.bytes(key)),
  };
  fonts = await loadFonts(folio.head, [source]);
  family = fonts.faces[0]!.family;
});

test('a font without names is called what the document calls it', () => {
  for (const face of fonts.faces) {
    expect(face.familyOfFour).toEqual({ family: face.family, bold: face.weight >= 600, italic: face.style === 'italic' });
  }
});

test.each([
  ['docx', { way: 'running' }, 'document.docx', faultsOfDocx],
  ['docx', { way: 'laid' }, 'document.docx', faultsOfDocx],
  ['pptx', {}, 'document.pptx', faultsOfPptx],
  ['odt', {}, 'document.odt', faultsOfOdf],
  ['odp', {}, 'document.odp', faultsOfOdf],
] as [string, Record<string, unknown>, string, (bytes: Uint8Array) => string[]][])(
  'as %s %j the file keeps the rules of the standard, and names it',
  async (output, way, file, faultsOf) => {
    const made = await make(asSample(folio), output, way, folio, { fonts });
    const bytes = await made.read(file);
    expect(faultsOf(bytes)).toEqual([]);
    expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => subjectKey(e.subject))).toEqual([]);
    const parts = Object.entries(unzipSync(bytes)).filter(([path]) => path.endsWith('.xml'));
    expect(parts.some(([, part]) => new TextDecoder().decode(part).includes(family))).toBe(true);
  },
);
