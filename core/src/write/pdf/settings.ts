import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';

/** The recipe of the PDF. */
export const PdfSettings = z.object({
  ...commonSettings,
  resolution: commonSettings.resolution.default(220),
  bookmarks: z
    .boolean()
    .default(true)
    .meta({ title: 'Bookmarks', help: 'Headings become bookmarks that readers can jump by.', group: 'Reading on screen' }),
});
export type PdfSettings = z.infer<typeof PdfSettings>;
