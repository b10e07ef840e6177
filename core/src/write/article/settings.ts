import { z } from 'zod';
import { commonSettings } from '../commonSettings.ts';

const address = z
  .union([
    z.literal(''),
    z.string().regex(/^(https?:\/\/|\.{0,2}\/|[A-Za-z0-9_-])[^\s"'<>]*$/, 'an address such as /style.css or https://…'),
  ])
  .default('');

/** The recipe of the plain article: HTML for people who style it themselves. */
export const ArticleSettings = z.object({
  ...commonSettings,
  only: z.string().max(20_000).default('').meta({
    title: 'Only these items',
    help: 'Ids of frames and pictures, with spaces between: nothing else goes in. Empty: everything.',
    group: 'What goes in',
  }),
  order: z
    .enum(['path', 'layout'])
    .default('path')
    .meta({
      title: 'Order',
      help: 'Whether texts follow one another as the reading path has them, or as they stand on the pages.',
      group: 'What goes in',
      labels: { path: 'By the reading path', layout: 'By the layout' },
    }),
  files: z
    .enum(['one', 'sections'])
    .default('one')
    .meta({
      title: 'Files',
      help: 'Whether all of it is one file, or every section has its own.',
      group: 'What goes in',
      labels: { one: 'One file', sections: 'One for each section' },
    }),
  lists: z
    .enum(['lists', 'text'])
    .default('lists')
    .meta({
      title: 'Lists',
      help: 'Whether numbers and bullets are made by the browser, or stand in the text as they were set.',
      group: 'Markup',
      labels: { lists: 'As lists', text: 'As text' },
    }),
  styleSheet: z
    .enum(['beside', 'inside', 'linked', 'none'])
    .default('beside')
    .meta({
      title: 'Style sheet',
      help: 'Where the styles made from the document stand, if they are wanted at all.',
      group: 'Markup',
      labels: { beside: 'In a file beside it', inside: 'Inside the file', linked: 'At an address of your own', none: 'None' },
    }),
  styleAddress: address.meta({
    title: 'Address of the style sheet',
    help: 'What the file names as its style sheet.',
    group: 'Markup',
    showIf: { styleSheet: 'linked' },
  }),
  scriptAddress: address.meta({
    title: 'Address of a script',
    help: 'A program that the file names, such as one for statistics. Empty: none.',
    group: 'Markup',
  }),
  pictureFormat: z
    .enum(['auto', 'jpeg', 'png', 'webp'])
    .default('auto')
    .meta({
      title: 'Format of pictures',
      help: 'Automatic: JPEG for photographs, PNG where something shows through.',
      group: 'Pictures',
      labels: { auto: 'Automatic', jpeg: 'JPEG', png: 'PNG', webp: 'WebP' },
    }),
  progressive: z
    .boolean()
    .default(true)
    .meta({ title: 'Progressive', help: 'JPEG pictures appear whole at once and sharpen as they arrive.', group: 'Pictures' }),
});
export type ArticleSettings = z.infer<typeof ArticleSettings>;
