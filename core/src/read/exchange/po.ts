import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { fromReadable } from '../../language/parts.ts';
import { stateOf } from '../../language/states.ts';
import { FolioError } from '../../ports/ports.ts';
import { unitOfSegment } from '../../language/unit.ts';
import { readerOfText } from './exchangeReader.ts';

export const poReader = readerOfText(
  {
    id: 'po',
    extensions: ['.po'],
  },
  readPo,
);

async function readPo(text: string): Promise<Inbound> {
  const { po } = await import('gettext-parser');
  let read: ReturnType<typeof po.parse>;
  try {
    read = po.parse(text, { defaultCharset: 'utf-8', validation: false });
  } catch {
    throw new FolioError('exchange.damaged', 'The PO file is damaged or was not copied whole.', 'Ask the translator to save it again.');
  }
  const header = (name: string): string | null =>
    Object.entries(read.headers ?? {})
      .find(([k]) => k.toLowerCase() === name)?.[1]
      ?.trim() || null;
  const out = emptyInbound();
  out.document = header('project-id-version');
  out.source = header('x-source-language');
  out.target = header('x-target-language') ?? header('language')?.replace('_', '-') ?? null;
  for (const [context, entries] of Object.entries(read.translations))
    for (const { msgid, msgstr = [], comments } of Object.values(entries)) {
      if (!context && !msgid) continue;
      const said = msgstr[0] ?? '';
      const extracted = (comments?.extracted ?? '').split('\n');
      const state = /^state: (.*)$/.exec(extracted.find((l) => l.startsWith('state: ')) ?? '')?.[1];
      const fuzzy = (comments?.flag ?? '').split(/,\s*/).includes('fuzzy');
      // Editors take the mark off where a text is done, and leave our word for its state as it was.
      const is = stateOf(state);
      out.segments.push({
        ...unitOfSegment(context),
        source: fromReadable(msgid),
        target: said ? fromReadable(said) : null,
        state: fuzzy ? 'initial' : is === 'initial' || is === null ? 'translated' : is,
        comments: (comments?.translator ?? '')
          .split('\n')
          .map((c) => c.trim())
          .filter(Boolean),
      });
    }
  return out;
}
