import { z } from 'zod';
import { bookSettings } from '../book/bookSettings.ts';
import { commonSettings } from '../commonSettings.ts';

const { cover, css, depth, pageList } = bookSettings;

/** The recipe of the e-book that reflows. */
export const EpubSettings = z.object({
  ...commonSettings,
  cover,
  fonts: z
    .enum(['embed', 'scrambled', 'reader'])
    .default('embed')
    .meta({
      title: 'Typefaces',
      help: 'Whether the book brings its own typefaces. Scrambled ones work only inside the book.',
      group: 'Look',
      labels: { embed: 'The document’s own', scrambled: 'The document’s own, scrambled', reader: 'Those of the reader’s device' },
    }),
  css,
  depth,
  pageList,
});
export type EpubSettings = z.infer<typeof EpubSettings>;
