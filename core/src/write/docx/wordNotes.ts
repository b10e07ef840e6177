import type { Inline, Story } from '../../folio/story.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el, words, xmlFile } from '../assets/xml.ts';
import { inBrackets, raised, run } from './inlineContent.ts';
import { CONTENT, NAMESPACES } from '../ooxml/wordNamespaces.ts';
import type { WordContext } from './wordContext.ts';
import { paragraphXml } from './wordParagraph.ts';

type Note = Inline & { type: 'note' };
type Kind = Note['kind'];

/** The first two notes of a file are the lines above notes (ISO/IEC 29500-1, 17.11.23). */
const FIRST = 2;

/** Notes of a text document, at the foot of pages and at its end, in the order of their references. */
export class WordNotes {
  private readonly waiting: Record<Kind, [Story, Note][]> = { footnote: [], endnote: [] };

  /** Takes a note; gives its number in the file. */
  take(story: Story, note: Note): number {
    return this.waiting[note.kind].push([story, note]) - 1 + FIRST;
  }

  /** Writes the parts, where there are notes. Gives what the settings must say of the lines above them. */
  write(pack: OfficePackage, document: Part, c: WordContext): Record<Kind, boolean> {
    for (const kind of ['footnote', 'endnote'] as const) {
      if (!this.waiting[kind].length) continue;
      const part = pack.add(`word/${kind}s.xml`, CONTENT[`${kind}s`]);
      document.relate(`${OFFICE}/${kind}s`, part);
      const here: WordContext = { ...c, part, note: inBrackets, initials: false };
      const notes = this.waiting[kind].map(([story, note], i) => noteXml(story, note, i + FIRST, here));
      const line = (type: string, id: number): Xml =>
        el(`w:${kind}`, { 'w:type': type, 'w:id': id }, el('w:p', {}, el('w:r', {}, el(`w:${type}`))));
      part.content = xmlFile(el(`w:${kind}s`, NAMESPACES, line('separator', 0), line('continuationSeparator', 1), notes));
    }
    return { footnote: this.waiting.footnote.length > 0, endnote: this.waiting.endnote.length > 0 };
  }
}

function noteXml(story: Story, note: Note, id: number, c: WordContext): Xml {
  const paragraphs = note.order.flatMap((p) => (story.blocks[p]?.kind === 'paragraph' ? [story.blocks[p]] : []));
  const text = paragraphs.map((paragraph, i) => {
    const number =
      i === 0 && all(run(raised(paragraph, c), el(`w:${note.kind}Ref`)), run(null, el('w:t', { 'xml:space': 'preserve' }, words(' '))));
    return paragraphXml(story, paragraph, { page: null, before: number }, c);
  });
  return el(`w:${note.kind}`, { 'w:id': id }, text.length ? text : el('w:p'));
}
