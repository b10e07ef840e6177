import { z } from 'zod';
import { Language } from '../folio/ids.ts';
import { PAGE_RANGE } from '../folio/pageRange.ts';

/** Settings that every output with pages has, worded once. */
export const commonSettings = {
  pages: z
    .string()
    .regex(PAGE_RANGE, 'must be written like 2-5, 8')
    .default('')
    .meta({ title: 'Pages', help: 'Which pages go into the result, for example 2-5, 8. Empty: all of them.', group: 'What goes in' }),
  hiddenLayers: z
    .enum(['out', 'in'])
    .default('out')
    .meta({
      title: 'Hidden layers',
      help: 'Whether readers get what lies on hidden layers, such as notes to the printer.',
      group: 'What goes in',
      labels: { out: 'Leave out', in: 'Put in' },
    }),
  title: z.string().max(500).default('').meta({
    title: 'Title',
    help: 'What readers see in the title bar and hear announced. Empty: the document’s title.',
    group: 'About the document',
  }),
  language: z
    .union([z.literal(''), Language])
    .default('')
    .meta({
      title: 'Language',
      help: 'The language screen readers speak, such as en or de-AT. Empty: the document’s language.',
      group: 'About the document',
    }),
  resolution: z.number().int().min(36).max(600).default(150).meta({
    title: 'Picture resolution',
    help: 'Pictures with more pixels than this at their printed size are made smaller.',
    unit: 'ppi',
    group: 'Pictures',
  }),
  quality: z.number().int().min(20).max(100).default(82).meta({
    title: 'Picture quality',
    help: 'Higher keeps finer detail in photographs and makes larger files.',
    unit: '%',
    group: 'Pictures',
  }),
};
