import { OBJECT } from '../../folio/text.ts';
import { child } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { SIGN, STANDS_FOR } from '../../ports/standIns.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { notOurs, partsOf } from './officeArchive.ts';

/** The words of an open text document. */
export interface OdtTexts {
  /** The document that it was written from. */
  document: string;
  /** What each paragraph was when it was written, as a sign of it, by its id in the file; parts of such say what they are parts of. */
  signs: ReadonlyMap<string, OdtSign>;
  /** Paragraphs in the order in which they stand; what is no letter is one OBJECT. New ones have no id. */
  texts: { id: string | null; text: string }[];
}

interface OdtSign {
  text: string;
  part: { paragraph: string; from: number; to: number } | null;
}

const OWN = 'urn:elastic-folio:paragraphs:1#';

/** Reads an open text document that was written here and changed elsewhere. Throws a FolioError where it is none. */
export async function odtTexts(file: string, limits: ArchiveLimits): Promise<OdtTexts> {
  const parts = await partsOf(file, limits, /^([^/]+\.rdf|content\.xml)$/);
  let document: string | null = null;
  const signs = new Map<string, OdtSign>();
  for (const [path, { children }] of parts)
    if (path.endsWith('.rdf'))
      for (const { attributes, children: says } of children)
        for (const { uri, local, text } of says) {
          if (uri !== OWN) continue;
          if (local === 'document') document = text;
          else if (local === 'text') {
            const subject = Object.entries(attributes).find(([name]) => name.endsWith('about'))?.[1] ?? '';
            const said = (property: string): string | undefined => says.find((s) => s.uri === OWN && s.local === property)?.text;
            const [paragraph, from, to] = ['paragraph', 'from', 'to'].map(said);
            const part = paragraph === undefined ? null : { paragraph, from: Number(from), to: Number(to) };
            signs.set(subject.slice(subject.indexOf('#') + 1), { text, part });
          }
        }
  if (document === null) throw notOurs('does not say which paragraphs of a document it holds');
  const body = child(child(parts.get('content.xml'), 'office:body'), 'office:text');
  if (!body) throw notOurs('is no text document');
  const reader = new Reader();
  reader.blocks(body);
  return { document, signs, texts: reader.texts };
}

/** What of a text is none of its paragraphs: what was taken out while changes were recorded, lists that are made anew. */
const PASSED_OVER = new Set(['text:tracked-changes', 'text:table-of-content', 'office:forms', 'text:sequence-decls', 'office:annotation']);

class Reader {
  readonly texts: OdtTexts['texts'] = [];

  blocks(around: Node): void {
    for (const node of around.children) {
      if (node.name === 'text:p' || node.name === 'text:h') this.paragraph(node);
      else if (!PASSED_OVER.has(node.name)) this.blocks(node);
    }
  }

  /** The place between whose beginning and end words are none of the text. */
  private standIn: string | null = null;

  private paragraph(p: Node): void {
    const at: OdtTexts['texts'][number] = { id: p.attributes['xml:id'] ?? null, text: '' };
    this.texts.push(at);
    const around = this.standIn;
    this.standIn = null;
    at.text = this.inline(p);
    this.standIn = around;
  }

  /** The letters of a paragraph, white space folded as part 3, 6.1.2 says; what stands in notes and frames are texts of their own. */
  private inline(around: Node): string {
    return (around.content ?? [])
      .map((n) => {
        if (typeof n !== 'string' && /^text:bookmark-(start|end)$/.test(n.name)) {
          const name = n.attributes['text:name'] ?? '';
          if (n.name === 'text:bookmark-end' && name === this.standIn) this.standIn = null;
          if (n.name !== 'text:bookmark-start' || this.standIn !== null) return '';
          const isObject = name.startsWith(STANDS_FOR);
          if (isObject || name.startsWith(SIGN)) this.standIn = name;
          return isObject ? OBJECT : '';
        }
        if (this.standIn !== null) return typeof n === 'string' ? '' : this.inline(n);
        if (typeof n === 'string') return n.replace(/[ \t\r\n]+/g, ' ');
        switch (n.name) {
          case 'text:span':
          case 'text:a':
          case 'text:meta':
            return this.inline(n);
          case 'text:s':
            return ' '.repeat(Number(n.attributes['text:c'] ?? 1));
          case 'text:tab':
            return '\t';
          case 'text:line-break':
            return '\n';
          case 'text:note':
          case 'draw:frame':
            this.blocks(n);
            return OBJECT;
          case 'text:bookmark':
          case 'text:soft-page-break':
          case 'text:change':
          case 'text:change-start':
          case 'text:change-end':
          case 'office:annotation':
          case 'office:annotation-end':
            return '';
          default:
            // Fields, readings, controls.
            return OBJECT;
        }
      })
      .join('');
  }
}
