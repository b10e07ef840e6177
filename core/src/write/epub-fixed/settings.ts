import { z } from 'zod';
import { bookSettings } from '../book/bookSettings.ts';
import { commonSettings } from '../commonSettings.ts';

const { cover, css, depth, pageList } = bookSettings;

/** The recipe of the e-book whose pages keep their design. */
export const FixedEpubSettings = z.object({
  ...commonSettings,
  spreads: z
    .enum(['auto', 'turned', 'always', 'never'])
    .default('auto')
    .meta({
      title: 'Facing pages',
      help: 'When readers see two pages beside each other. Each page keeps the side it has in the layout.',
      group: 'Pages',
      labels: { auto: 'As the device likes', turned: 'When the device is turned', always: 'Always', never: 'Never' },
    }),
  orientation: z
    .enum(['auto', 'portrait', 'landscape'])
    .default('auto')
    .meta({
      title: 'Held',
      help: 'How the device is best held for these pages.',
      group: 'Pages',
      labels: { auto: 'Either way', portrait: 'Upright', landscape: 'Turned' },
    }),
  cover,
  fonts: z
    .enum(['embed', 'scrambled'])
    .default('embed')
    .meta({
      title: 'Typefaces',
      help: 'Pages need the document’s own typefaces. Scrambled ones work only inside the book.',
      group: 'Look',
      labels: { embed: 'Inside the book', scrambled: 'Inside the book, scrambled' },
    }),
  css,
  depth,
  pageList,
});
export type FixedEpubSettings = z.infer<typeof FixedEpubSettings>;
