import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { Composer } from '../src/compose/index.ts';
import { findingsOf } from '../src/check/index.ts';
import type { Folio } from '../src/index.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { readBytes } from './odf/support/flatFile.ts';
import { handMadeOdf, style } from './support/handMadeOdf.ts';
import { bytesOf, fontsOf, make, PUBLICATIONS, sample } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

/** The flyer's picture lost its end on the way: its head still says what it is. */
const cutOff = async () => {
  const flyer = await sample('open-dome-night');
  const whole = await bytesOf(flyer, 'dusk');
  const media = async (id: string): Promise<Uint8Array> => (id === 'dusk' ? whole.subarray(0, whole.length >> 1) : bytesOf(flyer, id));
  const { head } = flyer.folio;
  const folio: Folio = { ...flyer.folio, head: { ...head, media: { ...head.media, dusk: { ...head.media['dusk']!, sha256: 'cut' } } } };
  return { flyer, folio, media };
};

describe('a picture that cannot be decoded', () => {
  test('is told from a whole one, also where its head is whole', async () => {
    const whole = await sharp({
      create: { width: 300, height: 200, channels: 3, background: '#357', noise: { type: 'gaussian', mean: 90, sigma: 40 } },
    });
    for (const bytes of [
      await whole.clone().jpeg().toBuffer(),
      await whole.clone().png().toBuffer(),
      await whole.clone().webp({ lossless: true }).toBuffer(),
    ]) {
      expect(await sharpPictures.decodes(bytes)).toBe(true);
      for (const share of [0.3, 0.6, 0.9])
        expect(await sharpPictures.decodes(bytes.subarray(0, Math.floor(bytes.length * share)))).toBe(false);
    }
    expect(await sharpPictures.decodes(new TextEncoder().encode('no picture'))).toBe(false);
  });

  test.each(
    ofToday(
      PUBLICATIONS.map((w) => w.id),
      3,
      (id) => id,
    ),
  )('does not keep %s from being made: a stand-in is in its place, and the ledger says dropped', async (output) => {
    const { flyer, folio, media } = await cutOff();
    const made = await make(flyer, output, {}, folio, { media });
    expect(made.valid).toBe(true);
    const entries = made.ledger.filter((e) => e.subject.aspect === 'picture' && e.subject.id === 'picture');
    expect(entries.map((e) => [e.outcome, e.code])).toEqual([['dropped', 'picture.damaged']]);
  });

  test('is shown by its stand-in in the web edition, as large as it was', async () => {
    const { flyer, folio, media } = await cutOff();
    const made = await make(flyer, 'html', {}, folio, { media });
    const pictures = made.paths.filter((p) => /\.(jpe?g|png|webp|avif)$/.test(p));
    const was = folio.head.media['dusk']!;
    const shapes = await Promise.all(pictures.map(async (p) => sharp(await made.read(p)).metadata()));
    expect(shapes.map((m) => m.width / m.height)).toContainEqual(expect.closeTo(was.width! / was.height!, 1));
  });

  const odf = (name: string, bytes: Uint8Array): Uint8Array =>
    handMadeOdf(
      {
        kind: 'presentation',
        automatic: style('g', 'graphic', ''),
        body: `<draw:page draw:name="one" draw:master-page-name="M"><draw:frame draw:style-name="g" svg:x="1cm" svg:y="1cm" svg:width="4cm" svg:height="3cm"><draw:image xlink:href="Pictures/${name}"/></draw:frame></draw:page>`,
      },
      { [`Pictures/${name}`]: bytes },
    );

  test.each([
    [
      'its end is missing',
      async () =>
        (
          await sharp({
            create: { width: 400, height: 300, channels: 3, background: '#a52', noise: { type: 'gaussian', mean: 90, sigma: 40 } },
          })
            .jpeg()
            .toBuffer()
        ).subarray(0, 4000),
    ],
    ['nobody can tell what it is', async () => new TextEncoder().encode('not a picture at all')],
    ['it is empty', async () => new Uint8Array()],
  ])('is brought in with its place and becomes a finding there: %s', async (_why, bytes) => {
    const { folio } = await readBytes('cut.odp', odf('a.jpg', await bytes()));
    const [item] = Object.values(folio.spreads)
      .flatMap((s) => Object.values(s.items))
      .filter((i) => i.kind === 'picture');
    expect(item && folio.head.media[(item as { media: string }).media]).toMatchObject({ damaged: true });
    const fonts = await fontsOf(folio);
    const findings = findingsOf(folio, new Composer(fonts).compose(folio), fonts);
    expect(findings.filter((f) => f.code === 'picture.damaged')).toMatchObject([
      { page: 1, subject: item!.id, says: expect.stringContaining('is damaged') },
    ]);
  });
});
