import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';

/** The recipe of the PDF. */
export const PdfSettings = z.object({
  ...commonSettings,
  resolution: commonSettings.resolution.default(220),
  tight: z.boolean().default(false).meta({
    title: 'Take time for smaller files',
    help: 'Photographs are packed as tightly as JPEG allows: about a sixth smaller, for four times the work.',
    group: 'Pictures',
  }),
  cards: z
    .enum(['layers', 'pages', 'first'])
    .default('layers')
    .meta({
      title: 'Cards of switchers',
      help: 'All in one place, where only full reading programs turn them; or each further card as a page of its own, right after its page, which works in every program and on paper; or only the first.',
      group: 'Reading on screen',
      labels: { layers: 'All in their place, as layers', pages: 'Each on a page of its own', first: 'Only the first' },
    }),
  bookmarks: z
    .boolean()
    .default(true)
    .meta({ title: 'Bookmarks', help: 'Headings become bookmarks that readers can jump by.', group: 'Reading on screen' }),
});
export type PdfSettings = z.infer<typeof PdfSettings>;
