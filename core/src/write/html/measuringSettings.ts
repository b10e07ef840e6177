import { z } from 'zod';
import { MEASURED } from '../../folio/measured.ts';

const group = 'What readers do';

/** Settings for publishers who want to know what is read; nothing is sent unless a reader agrees. */
export const measuringSettings = {
  measureAt: z
    .string()
    .max(500)
    .regex(/^(https?:\/\/[^\s"<>]+)?$/, 'an address that begins with https:')
    .default('')
    .meta({
      title: 'Where it is sent',
      help: 'The address of your own collector. Empty: nothing is measured, and nobody is asked.',
      group,
      format: 'collector',
    }),
  measureId: z
    .string()
    .max(100)
    .default('')
    .meta({
      title: 'Sent as',
      help: 'What your collector knows this edition by.',
      group,
      showIf: { measureAt: 'any' },
    }),
  measured: z
    .array(z.enum(MEASURED))
    .default(['page'])
    .meta({
      title: 'What is sent',
      help: 'Never who it is: no name, no cookie, no number that lasts longer than a visit.',
      group,
      labels: {
        page: 'Pages that are shown',
        link: 'Links that are followed',
        media: 'Films and sounds that are played',
        form: 'That answers are given (not which)',
        search: 'Words that are searched for',
      },
      showIf: { measureAt: 'any' },
    }),
  measureAsk: z
    .string()
    .max(300)
    .default('')
    .meta({
      title: 'How readers are asked',
      help: 'Say what is done with it. Empty: a plain question in the edition’s language.',
      group,
      format: 'lines',
      showIf: { measureAt: 'any' },
    }),
};
