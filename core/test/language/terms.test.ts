import { describe, expect, test } from '@jest/globals';
import { termsIn, termsMissing } from '../../src/language/index.ts';
import { readTerms } from '../../src/read/index.ts';

/** After the example of ISO 30042:2019 (TBX), dialect Core, data category as content; from memory, with words of the sample world. */
const NEWER = `<?xml version="1.0" encoding="UTF-8"?>
<tbx type="TBX-Core" style="dca" xml:lang="en" xmlns="urn:iso:std:iso:30042:ed-2">
  <tbxHeader><fileDesc><sourceDesc><p>Marrowby Hill</p></sourceDesc></fileDesc></tbxHeader>
  <text><body>
    <conceptEntry id="c1">
      <descrip type="definition">The roof that turns.</descrip>
      <langSec xml:lang="en"><termSec><term>dome</term></termSec></langSec>
      <langSec xml:lang="de-DE"><termSec><term>Kuppel</term></termSec><termSec><term>Haube</term></termSec></langSec>
    </conceptEntry>
    <conceptEntry id="c2">
      <langSec xml:lang="en"><termSec><term>keeper</term></termSec></langSec>
      <langSec xml:lang="fr"><termSec><term>gardien</term></termSec></langSec>
    </conceptEntry>
  </body></text>
</tbx>`;
/** The same as the standard of 2008 had it. */
const OLDER = `<?xml version="1.0"?>
<martif type="TBX" xml:lang="en"><martifHeader><fileDesc><sourceDesc><p>x</p></sourceDesc></fileDesc></martifHeader><text><body>
  <termEntry id="c1"><note>Of the observatory.</note>
    <langSet xml:lang="en"><tig><term>dome</term></tig></langSet>
    <langSet xml:lang="de"><ntig><termGrp><term>Kuppel</term></termGrp></ntig></langSet>
  </termEntry>
</body></text></martif>`;

describe('files of terms', () => {
  test('concepts in both languages are taken, with every way to say them; regions of a language count', () => {
    expect(readTerms(NEWER, 'en', 'de')).toEqual({
      terms: [
        { source: 'dome', target: 'Kuppel', note: 'The roof that turns.' },
        { source: 'dome', target: 'Haube', note: 'The roof that turns.' },
      ],
      others: 1,
    });
    expect(readTerms(NEWER, 'en', 'fr')).toEqual({ terms: [{ source: 'keeper', target: 'gardien' }], others: 1 });
    expect(readTerms(OLDER, 'en-GB', 'de-AT').terms).toEqual([{ source: 'dome', target: 'Kuppel', note: 'Of the observatory.' }]);
  });
  test.each([
    ['another kind of file', '<tmx version="1.4"><body/></tmx>', /no terms in the TBX format/],
    ['a file that breaks off', NEWER.slice(0, 300), /cannot be read/],
    ['entities of its own', NEWER.replace('<tbx', '<!DOCTYPE tbx [<!ENTITY x "y">]><tbx'), /entities of its own/],
  ])('%s is told in words', (_, text, says) => {
    expect(() => readTerms(text, 'en', 'de')).toThrow(says);
  });
});

const TERMS = [
  { source: 'dome', target: 'Kuppel' },
  { source: 'open dome night', target: 'Offene Kuppelnacht' },
  { source: 'telescope', target: 'Fernrohr' },
  { source: 'telescope', target: 'Teleskop' },
];
describe('terms in texts', () => {
  test.each([
    ['The dome turns.', ['dome']],
    ['Domes turn, and the dome’s door too.', ['Domes', 'dome’s']],
    ['Dominoes and a dometop are no such thing.', []],
    ['Open Dome Night under the dome', ['Open Dome Night', 'dome']],
    ['İs a dome there?', ['dome']],
  ])('%s', (text, found) => {
    expect(termsIn(text, TERMS).map((f) => text.slice(f.from, f.to))).toEqual(found);
  });
  test('a translation without a term is told, and any of its translations will do', () => {
    expect(termsMissing('The dome and the telescope', 'Die Haube und das Teleskop', TERMS)).toEqual([TERMS[0]]);
    expect(termsMissing('The dome', 'Unter der Kuppel', TERMS)).toEqual([]);
  });
});
