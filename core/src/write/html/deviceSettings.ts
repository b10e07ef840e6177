import { z } from 'zod';

const group = 'Kept on a device';

/** Settings for editions that stay with their readers: without a connection, and on a home screen. */
export const deviceSettings = {
  offline: z
    .enum(['no', 'opened', 'all'])
    .default('no')
    .meta({
      title: 'Without a connection',
      help: 'What can still be read. Works where the edition stands on a server with https, not from a folder.',
      group,
      labels: { no: 'Nothing is kept', opened: 'What was opened before', all: 'Everything, fetched on the first visit' },
    }),
  app: z.boolean().default(false).meta({
    title: 'For home screens',
    help: 'Readers can put it beside their programs, with an icon and a window of its own.',
    group,
  }),
  appName: z
    .string()
    .max(30)
    .default('')
    .meta({
      title: 'Name under the icon',
      help: 'Short: some dozen letters are seen. Empty: the title’s first words.',
      group,
      showIf: { app: [true] },
    }),
  icon: z
    .string()
    .default('')
    .meta({
      title: 'Icon',
      help: 'A picture of the document; one that is not square stands in a square of the theme colour. None: the top of the first page.',
      group,
      choicesFrom: 'pictures',
      showIf: { app: [true] },
    }),
  window: z
    .enum(['standalone', 'fullscreen', 'minimal-ui'])
    .default('standalone')
    .meta({
      title: 'Its window',
      help: 'What is around the pages when it is opened from there.',
      group,
      labels: { standalone: 'Nothing of the browser', fullscreen: 'Nothing at all', 'minimal-ui': 'Back and reload' },
      showIf: { app: [true] },
    }),
  theme: z
    .string()
    .regex(/^(#[0-9a-fA-F]{6})?$/, 'a colour such as #1E5B4B')
    .default('')
    .meta({
      title: 'Theme colour',
      help: 'Browsers paint their frame with it. Empty: the colour behind the pages.',
      group,
      format: 'colour',
    }),
};
