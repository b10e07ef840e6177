import { z } from 'zod';

/** Something about a document that a designer should look at, with its place. */
export const Finding = z.object({
  code: z.enum([
    'font.substituted',
    'font.broken',
    'font.notToEmbed',
    'glyph.missing',
    'glyph.lent',
    'text.overflow',
    'word.cut',
    'alt.missing',
    'style.handFormatted',
    'heading.none',
    'heading.skip',
    'picture.coarse',
    'picture.coarseForPrint',
    'picture.heavy',
    'picture.twice',
    'picture.missing',
    'picture.cmyk',
    'text.emptyParagraphs',
    'text.rowsOfSpaces',
    'style.alike',
    'item.outside',
    'item.tiny',
    'page.noText',
    'layer.hidden',
    'layer.notPrinted',
    'style.loop',
    'frame.noRoom',
    'chain.loop',
    'table.tooWide',
  ]),
  says: z.string(),
  page: z.number().int().optional(),
  subject: z.string().optional(),
  /** The item to show it at, where the subject is none. */
  item: z.string().optional(),
  /** The family of fonts it is about. */
  family: z.string().optional(),
  /** The styles it is about, where these are several. */
  styles: z.array(z.string()).optional(),
});
export type Finding = z.infer<typeof Finding>;
