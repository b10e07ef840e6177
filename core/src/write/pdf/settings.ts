import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';

/** The recipe of the PDF. */
export const PdfSettings = z.object({
  ...commonSettings,
  resolution: commonSettings.resolution.default(220),
  cards: z
    .enum(['layers', 'first'])
    .default('layers')
    .meta({
      title: 'Cards of switchers',
      help: 'Whether all cards are in the file, one in sight and turned by pressing, or only the first.',
      group: 'Reading on screen',
      labels: { layers: 'All, turned by pressing', first: 'Only the first' },
    }),
  bookmarks: z
    .boolean()
    .default(true)
    .meta({ title: 'Bookmarks', help: 'Headings become bookmarks that readers can jump by.', group: 'Reading on screen' }),
});
export type PdfSettings = z.infer<typeof PdfSettings>;
