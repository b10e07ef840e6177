import { z } from 'zod';

/** Settings that outputs of slides have in common, worded once. */
export const slideSettings = {
  notes: z.boolean().default(true).meta({
    title: 'Speaker’s notes',
    help: 'Texts that are notes to a page go along as notes to its slide.',
    group: 'What goes in',
  }),
  media: z
    .enum(['inside', 'still'])
    .default('inside')
    .meta({
      title: 'Films and sounds',
      help: 'Whether they are in the file, or their still pictures alone.',
      group: 'Motion',
      labels: { inside: 'In the file', still: 'Still pictures' },
    }),
  transitions: z.boolean().default(true).meta({
    title: 'Page transitions',
    help: 'Slides come as pages do, in the nearest way that the format has.',
    group: 'Motion',
  }),
};
