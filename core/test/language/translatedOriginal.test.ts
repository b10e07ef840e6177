import { describe, expect, test } from '@jest/globals';
import { asOpenDocument } from '@elastic-folio/demo';
import { unzipSync } from 'fflate';
import { Edition, readText } from '../../src/index.ts';
import type { Folio } from '../../src/index.ts';
import { fromReadable, inEdition, pseudoTranslation, sameParts, signaturesOf, unitsOf } from '../../src/language/index.ts';
import { translatedOriginal } from '../../src/write/index.ts';
import { flat, readBytes } from '../odf/support/flatFile.ts';
import type { FlatParts } from '../odf/support/flatFile.ts';
import { foundFiles } from '../odf/support/foundFiles.ts';
import { collectBytes } from '../../src/write/assets/outputFile.ts';
import { sample } from '../support/samples.ts';

type Came = Awaited<ReturnType<typeof readBytes>>;

/** A document with every text in another language: as given, else as a pseudo-translation. */
function inGerman(folio: Folio, given: Record<string, string> = {}, isOnly = false): Folio {
  const units = Object.fromEntries(
    unitsOf(folio).flatMap((u) => {
      const target = given[u.id] === undefined ? (isOnly ? null : pseudoTranslation(u.parts, 'de')) : fromReadable(given[u.id]!);
      return target && !sameParts(target, u.parts)
        ? [[u.id, { segments: [{ source: u.parts, target, state: 'translated' }], codes: signaturesOf(u.codes) }]]
        : [];
    }),
  );
  return { ...folio, editions: { de: Edition.parse({ language: 'de', units }) } };
}

const german = async (came: Came, given: Record<string, string> = {}, isOnly = false): Promise<Uint8Array> =>
  collectBytes(await translatedOriginal(inGerman(came.folio, given, isOnly), came.origin!, 'de'));

/** The texts of a document, in their order. */
const texts = (folio: Folio): string[] =>
  folio.head.storyOrder.flatMap((id) =>
    folio.stories[id]!.order.flatMap((b) => {
      const block = folio.stories[id]!.blocks[b]!;
      return block.kind === 'paragraph' ? [readText(block)] : [];
    }),
  );

const RICH: FlatParts = {
  kind: 'presentation',
  automatic:
    `<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>` +
    `<style:style style:name="gr1" style:family="graphic"><style:graphic-properties draw:stroke="none"/></style:style>`,
  pages:
    `<draw:page draw:name="One" draw:master-page-name="M"><!-- kept --><draw:frame draw:style-name="gr1" svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="2cm"><draw:text-box>` +
    `<text:p xml:id="a">Come <text:bookmark text:name="here"/><text:span text:style-name="T1">early</text:span> to <text:a xlink:href="https://marrowby.example/">our pages</text:a>,<text:s text:c="2"/>page <text:page-number>1</text:page-number><text:line-break/>or late</text:p>` +
    `<text:p xml:id="b">Left as it is</text:p><text:p xml:id="c"/></draw:text-box></draw:frame></draw:page>`,
};

describe('the file that a document came in from, in another language', () => {
  test('has only its texts changed: what is around words goes with their codes', async () => {
    const came = await readBytes('slides.fodp', flat(RICH));
    const made = new TextDecoder().decode(
      await german(came, { a: 'Zu {2}unseren Seiten{/2} kommen Sie{wrap}{1}früh & gern{/1},  Seite {3/}' }, true),
    );
    const before = flat(RICH);
    const [start, end] = [before.indexOf('Come '), before.indexOf('</text:p>')];
    expect(made.startsWith(before.slice(0, start))).toBe(true);
    expect(made.endsWith(before.slice(end))).toBe(true);
    expect(made.slice(start, made.length - (before.length - end))).toBe(
      '<text:bookmark text:name="here"/>Zu <text:a xlink:href="https://marrowby.example/">unseren Seiten</text:a> kommen Sie<text:line-break/>' +
        '<text:span text:style-name="T1">früh &amp; gern</text:span>, <text:s text:c="1"/>Seite <text:page-number>1</text:page-number>',
    );
  });

  test('a package stays the package that it was: the same files in the same order, all others byte for byte', async () => {
    const bytes = await collectBytes(asOpenDocument(await sample('five-worlds')).package);
    const came = await readBytes('five-worlds.odp', bytes);
    const [before, after] = [unzipSync(bytes), unzipSync(await german(came))];
    expect(Object.keys(after)).toEqual(Object.keys(before));
    for (const [path, content] of Object.entries(before))
      if (!/^(content|styles|meta)\.xml$/.test(path))
        expect([path, Buffer.from(after[path]!).equals(Buffer.from(content))]).toEqual([path, true]);
  });

  test('drawings and presentations by other people come back with all their texts translated and their layout as it was', async () => {
    for (const { name, bytes } of await foundFiles()) {
      const came = await readBytes(name, bytes);
      const back = await readBytes(name, await german(came));
      expect([name, texts(back.folio)]).toEqual([name, texts(inEdition(inGerman(came.folio), 'de'))]);
      const boxes = (f: Folio): unknown => Object.values(f.spreads).map((s) => Object.values(s.items).map((i) => [i.kind, i.transform]));
      expect([name, boxes(back.folio)]).toEqual([name, boxes(came.folio)]);
    }
  });
});
