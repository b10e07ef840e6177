import { Term } from '../../language/terms.ts';
import { primary } from '../../language/goesOut.ts';
import { FolioError } from '../../ports/ports.ts';
import { childNode, childNodes, textIn, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** What is read at most of one file. */
const MOST_TERMS = 200_000;

/**
 * Terms of a file of terminology, from one language into another: TBX as ISO 30042:2019 has it (`conceptEntry`, `langSec`, `termSec`) and
 * as that of 2008 had it (`termEntry`, `langSet`, `tig` or `ntig`). `others`: concepts that are not in both languages.
 */
export function readTerms(text: string, source: string, target: string): { terms: Term[]; others: number } {
  const terms: Term[] = [];
  let others = 0;
  let isTbx = false;
  walkXml(text, 'The file of terms', {
    whole: new Set(['conceptEntry', 'termEntry']),
    opened(name) {
      if (name === 'tbx' || name === 'martif') isTbx = true;
    },
    taken(entry) {
      const sections = [...childNodes(entry, 'langSec'), ...childNodes(entry, 'langSet')];
      const said = (language: string): string[] =>
        sections.filter((s) => primary(s.attributes['xml:lang'] ?? '') === primary(language)).flatMap(termsOfSection);
      const [ours, theirs] = [said(source), said(target)];
      if (!ours.length || !theirs.length) return void others++;
      const note = noteOf(entry);
      for (const one of ours)
        for (const other of theirs) {
          const term = Term.safeParse({ source: one, target: other, ...(note && { note }) });
          if (term.success && terms.length < MOST_TERMS) terms.push(term.data);
        }
    },
  });
  if (!isTbx) throw new FolioError('terms.kind', 'The file holds no terms in the TBX format.', 'Choose a file ending in .tbx.');
  return { terms, others };
}

const termsOfSection = (section: XmlNode): string[] =>
  ['termSec', 'tig', 'ntig'].flatMap((name) =>
    childNodes(section, name).flatMap((sec) => {
      const term = childNode(sec, 'term') ?? childNode(childNode(sec, 'termGrp') ?? sec, 'term');
      const said = term ? textIn(term).trim() : '';
      return said ? [said] : [];
    }),
  );

function noteOf(entry: XmlNode): string {
  const note = childNode(entry, 'note') ?? childNodes(entry, 'descrip').find((d) => d.attributes['type'] === 'definition');
  return note ? textIn(note).trim().slice(0, 2000) : '';
}
