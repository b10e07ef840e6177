import { z } from 'zod';
import { Language } from '../../folio/ids.ts';
import { choiceOfTexts } from '../../language/goesOut.ts';

/** The recipe of every file for translators. */
export const ExchangeSettings = z.object({
  target: Language.default('de').meta({
    title: 'Into',
    help: 'The language that it is translated into, such as de or pt-BR.',
    group: 'Languages',
  }),
  source: z
    .union([z.literal(''), Language])
    .default('')
    .meta({ title: 'From', help: 'The language that it is translated from. Empty: the document’s.', group: 'Languages' }),
  targets: z
    .enum(['empty', 'copies'])
    .default('empty')
    .meta({
      title: 'Texts without a translation',
      help: 'Some tools want a copy of the source where nothing is translated yet.',
      group: 'Languages',
      labels: { empty: 'Have an empty target', copies: 'Have a copy of their source' },
    }),
  pretranslation: z
    .enum(['none', 'inContext', 'exact'])
    .default('exact')
    .meta({
      title: 'From the memory',
      help: 'What was translated before goes along, so that nobody does it again.',
      group: 'Languages',
      labels: { none: 'Nothing', inContext: 'What is the same in the same place', exact: 'All that is the same' },
    }),
  ...choiceOfTexts,
  pagesToSee: z.boolean().default(true).meta({
    title: 'Pages to look at',
    help: 'A PDF of the document goes along, so that translators see where a text stands.',
    group: 'What goes along',
  }),
  pictures: z
    .boolean()
    .default(false)
    .meta({ title: 'Pictures', help: 'Pictures go along as files, for words in them.', group: 'What goes along' }),
});
export type ExchangeSettings = z.infer<typeof ExchangeSettings>;
