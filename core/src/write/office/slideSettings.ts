import { z } from 'zod';

/** Settings that outputs of slides have in common, worded once. */
export const slideSettings = {
  spreads: z
    .enum(['apart', 'together'])
    .default('apart')
    .meta({
      title: 'Pages that lie side by side',
      help: 'Whether each page is a slide, or a spread is one wide slide, with what reaches over its fold in one piece.',
      group: 'What goes in',
      labels: { apart: 'A slide for each page', together: 'One slide for both' },
    }),
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
