import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../../src/ledger/index.ts';
import { observeOdt } from '../../src/ledger/odf/observeOdt.ts';
import { redrawOdt } from '../../src/preview/opendocument/redrawOdf.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { corrections } from '../support/changedDocx.ts';
import { handMadeOdf } from '../support/handMadeOdf.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { make, sample } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';

/** A long paragraph of the Almanac’s first article, and a picture with a caption that stands on another page. */
const WORDS = 'dome-feature-9';
let almanac: Sample;
let made: Made;
let bytes: Uint8Array;
let xml: string;
beforeAll(async () => {
  const whole = await sample('marrowby-almanac');
  const folio = produce(whole.folio, (d) => {
    d.head.structure.pins['pin'] = { id: 'pin', item: 'map-picture', paragraph: WORDS, offset: 0, as: 'float', width: 0.9 };
  });
  almanac = { ...whole, folio };
  made = await make(almanac, 'odt', { resolution: 36 });
  bytes = await made.read('document.odt');
  xml = new TextDecoder().decode(unzipSync(bytes)['content.xml']);
});

describe('a picture that is pinned beside words, in an open text document', () => {
  test('stands in a frame of its own that its paragraph runs around, its caption with it', () => {
    expect(faultsOfOdf(bytes)).toEqual([]);
    const frame =
      /<draw:frame draw:style-name="(G\d+)" text:anchor-type="paragraph" svg:width="([\d.]+)pt"><draw:text-box fo:min-height="1pt">(.*?)<\/draw:text-box><\/draw:frame>/s.exec(
        xml,
      )!;
    expect(frame[3]).toMatch(/<draw:image [^>]*>.*The path leaves the river/s);
    expect(xml.slice(0, frame.index)).toMatch(new RegExp(`xml:id="${WORDS}">$`));
    expect(xml).toMatch(
      new RegExp(`style:name="${frame[1]}"[^>]*><style:graphic-properties style:wrap="left"[^>]*style:horizontal-pos="right"`),
    );
  });

  test('is no wider than 45 per cent of the text, whatever its pin says', () => {
    const width = Number(/text:anchor-type="paragraph" svg:width="([\d.]+)pt"/.exec(xml)![1]);
    const styles = new TextDecoder().decode(unzipSync(bytes)['styles.xml']);
    const of = (name: string): number => Number(new RegExp(`${name}="([\\d.]+)pt"`).exec(styles)![1]);
    expect(width).toBeLessThanOrEqual(0.45 * (of('fo:page-width') - of('fo:margin-left') - of('fo:margin-right')) + 0.01);
  });

  test('is read back before its paragraph, and brings nothing back that nobody has changed', async () => {
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'pin:pin:place')).toMatchObject({ outcome: 'kept', check: 'confirmed' });
    expect(await corrections(almanac.folio, bytes)).toEqual({ corrections: [], added: [], gone: [] });
  });

  test('is drawn beside its words', async () => {
    const html = await redrawOdt(bytes, 1, { beside: async () => undefined, faces: [], sizeOf: (b) => sharpPictures.info(b) });
    expect(html).toMatch(/<div style="float:right;width:[\d.]+pt[^>]*>\s*<p[^>]*><img [^>]*>.*?The path leaves the river.*?<\/div><p/s);
  });
});

test('a frame with words, as others write it, is read before the paragraph that it stands in', async () => {
  const parts = {
    body: '<text:p>Around <draw:frame text:anchor-type="paragraph"><draw:text-box><text:p>Beside</text:p></draw:text-box></draw:frame>it</text:p>',
  };
  const seen = await observeOdt(handMadeOdf(parts), { pictures: sharpPictures, beside: async () => undefined });
  expect(seen.blocks.map((b) => b.text)).toEqual(['Beside', 'Around it']);
});
