import { z } from 'zod';
import { commonSettings } from '../shared/commonSettings.ts';

/** The recipe of the web edition. */
export const HtmlSettings = z.object({
  ...commonSettings,
  ground: z
    .string()
    .regex(/^#[0-9a-fA-F]{6}$/, 'a colour such as #ECE7DC')
    .default('#ECE7DC')
    .meta({ title: 'Behind the pages', help: 'The colour that shows around the pages.', group: 'Pages', format: 'colour' }),
  gap: z
    .number()
    .int()
    .min(0)
    .max(200)
    .default(24)
    .meta({ title: 'Space between pages', help: 'How far apart the stacked pages stand.', unit: 'px', group: 'Pages' }),
});
export type HtmlSettings = z.infer<typeof HtmlSettings>;
