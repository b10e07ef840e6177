import type { ObservedFlow } from '../flow/observedFlow.ts';
import { child } from '../../packages/officeParts.ts';
import { openWord } from './openWord.ts';
import type { OpenWord } from './openWord.ts';
import { wordFontFiles } from './wordFontFiles.ts';
import { WordReader } from './wordReader.ts';
import type { Outside } from './wordReader.ts';

/** Reads a text document back from its bytes alone. Throws where it is none. */
export async function observeDocx(bytes: Uint8Array, outside: Outside): Promise<ObservedFlow> {
  const word = await openWord(bytes);
  const { document } = word;
  const reader = new WordReader(word, word.main, word.looks, word.labels, outside);
  const body = child(document, 'w:body');
  if (body) await reader.blocks(body, []);
  for (const kind of ['footnote', 'endnote'] as const) reader.notes(kind, word.related(`${kind}s`).root);
  reader.checkIds(document);
  return observedWord(word, reader);
}

/** What a document says of itself, with what was read of its text. */
export async function observedWord(word: OpenWord, { out }: WordReader): Promise<ObservedFlow> {
  const core = [...word.relations('').values()].find((r) => r.type === 'core-properties')?.target;
  const said = (name: string): string => child(core === undefined ? undefined : word.part(core), name)?.text ?? '';
  return {
    title: said('dc:title'),
    language: said('dc:language'),
    ...out,
    embedded: await wordFontFiles(word, word.related('fontTable')),
    problems: word.problems,
  };
}
