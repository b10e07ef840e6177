import { z } from 'zod';

/** Something about a document that a designer should look at, with its place. */
export const Finding = z.object({
  code: z.enum([
    'font.substituted',
    'font.broken',
    'glyph.missing',
    'text.overflow',
    'word.cut',
    'alt.missing',
    'style.handFormatted',
    'heading.none',
    'heading.skip',
    'picture.coarse',
    'layer.hidden',
    'style.loop',
    'frame.noRoom',
    'chain.loop',
    'table.tooWide',
  ]),
  says: z.string(),
  page: z.number().int().optional(),
  subject: z.string().optional(),
});
export type Finding = z.infer<typeof Finding>;
