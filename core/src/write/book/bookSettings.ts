import { z } from 'zod';

/** Settings that every e-book has, worded once. */
export const bookSettings = {
  cover: z
    .enum(['picture', 'page', 'none'])
    .default('picture')
    .meta({
      title: 'Cover',
      help: 'What a shelf of books shows: the document’s own cover picture, or its first page drawn.',
      group: 'About the document',
      labels: { picture: 'The cover picture, else the first page', page: 'The first page, drawn', none: 'None' },
    }),
  css: z.string().max(100_000).default('').meta({
    title: 'Own style sheet',
    help: 'CSS that comes after the styles made from the document and goes before them.',
    group: 'Look',
    format: 'css',
  }),
  depth: z
    .number()
    .int()
    .min(1)
    .max(6)
    .default(3)
    .meta({ title: 'Depth of the contents', help: 'Headings down to this level are listed for jumping to.', group: 'Finding one’s way' }),
  pageList: z.boolean().default(true).meta({
    title: 'Printed page numbers',
    help: 'Readers can go to a page of the printed edition by its number.',
    group: 'Finding one’s way',
  }),
};

export interface CoverSettings {
  cover: 'picture' | 'page' | 'none';
}
