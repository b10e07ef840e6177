import { produce } from 'immer';
import { Composer } from '../../src/compose/index.ts';
import type { Composition, FontFace, FontSet, SetLine } from '../../src/compose/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import { fontsOf } from './samples.ts';
import { tinyFolio } from './tinyFolio.ts';

/** The plain sans serif among the fonts that ship. */
const fonts: FontSet = await fontsOf(tinyFolio(['x']));
export const sans: FontFace = fonts.match({ fontFamily: 'Work Sans', fontWeight: 400, fontStyle: 'normal', fontStretch: 100 });

export const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
export const lines = (folio: Folio, frame = 'f1'): SetLine[] => compose(folio).frames.get(frame)!.lines;
export const plain = (line: SetLine): string => line.runs.map((r) => r.text).join('');
export const width = (text: string, size = 10): number =>
  (sans.shape(text, 0, text.length, { features: {}, language: 'en', script: 'Latn', direction: 'ltr' }).width * size) / sans.unitsPerEm;
export const TEXT =
  'It begins as a hum under the floor, climbs the iron stair, and then the whole roof of the room sets off, slowly and with considerable dignity, to look at another part of the sky. Extraordinary observations notwithstanding, nobody misunderstands.';
export const HYPHENS = { before: 2, after: 3, inARow: 2, capitals: false };
export const withStyles = (
  paragraphs: [style: string, text: string | Inline[]][],
  styles: Record<string, object>,
  o: Parameters<typeof tinyFolio>[1] = {},
): Folio =>
  produce(
    tinyFolio(
      paragraphs.map(([, t]) => t),
      o,
    ),
    (d) => {
      for (const [id, paragraph] of Object.entries(styles))
        d.head.paragraphStyles[id] = { ...d.head.paragraphStyles['p']!, id, basedOn: 'p', paragraph };
      paragraphs.forEach(([style], i) => ((d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).style = style));
    },
  );
