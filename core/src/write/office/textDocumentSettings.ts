import { z } from 'zod';
import { officeSettings } from './officeSettings.ts';

const { columns, crops, effects, blends } = officeSettings;
const running = { way: ['running'] };
const laid = { way: ['laid'] };

/** What recipes of text documents have in common, whichever format they are for. */
export const textDocumentSettings = {
  way: z
    .enum(['running', 'laid'])
    .default('running')
    .meta({
      title: 'What for',
      help: 'To be rewritten as one text from beginning to end, or page by page as it is laid out, everything in its place.',
      group: 'What goes in',
      labels: { running: 'Running text', laid: 'As laid out' },
    }),
  template: z.boolean().default(false).meta({
    title: 'As a template',
    help: 'A file from which colleagues begin new documents in the same styles.',
    group: 'What goes in',
  }),
  linked: z
    .enum(['linked', 'apart'])
    .default('linked')
    .meta({
      title: 'Texts over several frames',
      help: 'Whether words go on from box to box when others write, or every box keeps its own.',
      group: 'Text',
      labels: { linked: 'Go on from box to box', apart: 'Each box has its own' },
      showIf: laid,
    }),
  masters: z
    .enum(['header', 'page'])
    .default('header')
    .meta({
      title: 'What repeats on pages',
      help: 'Items of master pages stand in the headers of pages, out of the way of those who write, or on each page like all else.',
      group: 'What goes in',
      labels: { header: 'In the headers', page: 'On each page' },
      showIf: laid,
    }),
  columns: columns.meta({ ...columns.meta(), showIf: running }),
  contents: z.boolean().default(true).meta({
    title: 'Table of contents',
    help: 'A list of headings at the beginning that can be made anew after changes.',
    group: 'Finding one’s way',
    showIf: running,
  }),
  depth: z
    .number()
    .int()
    .min(1)
    .max(6)
    .default(3)
    .meta({
      title: 'Depth of the contents',
      help: 'Headings down to this level are listed.',
      group: 'Finding one’s way',
      showIf: { ...running, contents: [true] },
    }),
  pageNumbers: z.boolean().default(true).meta({
    title: 'Page numbers',
    help: 'At the foot of every page of the new document.',
    group: 'Finding one’s way',
    showIf: running,
  }),
  crops: crops.meta({ ...crops.meta(), showIf: laid }),
  effects: effects.meta({ ...effects.meta(), showIf: laid }),
  blends: blends.meta({ ...blends.meta(), showIf: { ...laid, pictures: ['inside', 'beside'] } }),
};
