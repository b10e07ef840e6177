import type { Node } from '../../packages/officeParts.ts';
import { OBJECT } from '../../folio/text.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { notOurs, partsOf } from './officeArchive.ts';

/** Stands in a text where a paragraph was divided (Unicode: PARAGRAPH SEPARATOR). */
export const DIVIDED = '\u2029';

/** The words of a text document, by the paragraphs of ours that it lists. */
export interface DocxTexts {
  /** The document that it was written from. */
  document: string;
  listed: { id: string; bookmark: string; text: string; part: { from: number; to: number } | null }[];
  /** By bookmark; what is no letter is one OBJECT. */
  texts: ReadonlyMap<string, string>;
  /** Paragraphs around which no bookmark is, with the bookmark that ended last before each. */
  unknown: { after: string | null; text: string }[];
}

const LIST = 'urn:elastic-folio:paragraphs:1';

/** Reads a text document that was written here and changed elsewhere. Throws a FolioError where it is none. */
export async function docxTexts(file: string, limits: ArchiveLimits): Promise<DocxTexts> {
  const parts = await partsOf(file, limits, /^(word\/(document|footnotes|endnotes)|customXml\/item\d+)\.xml$/);
  const document = parts.get('word/document.xml');
  if (!document) throw notOurs('is no text document');
  const list = [...parts.values()].find((p) => p.uri === LIST);
  if (!list) throw notOurs('does not say which paragraphs of a document it holds');
  const listed = list.children.flatMap(({ attributes: a, local }) =>
    local === 'paragraph' && a['id'] && a['bookmark']
      ? [{ id: a['id'], bookmark: a['bookmark'], text: a['text'] ?? '', part: partIn(a) }]
      : [],
  );
  const walker = new Walker(new Set(listed.map((l) => l.bookmark)));
  walker.blocks(document, true);
  for (const path of ['word/footnotes.xml', 'word/endnotes.xml']) if (parts.has(path)) walker.blocks(parts.get(path)!, false);
  return { document: list.attributes['document'] ?? '', listed, texts: walker.texts, unknown: walker.unknown };
}

const partIn = ({ from, to }: Record<string, string>): { from: number; to: number } | null =>
  from === undefined ? null : { from: Number(from), to: Number(to) };

/** Bookmarks whose words are none of the text: figures, what stands for something, what only stands there as well. */
const ASIDE = /^[fnx]_/;

class Walker {
  readonly texts = new Map<string, string>();
  readonly unknown: DocxTexts['unknown'] = [];
  /** Bookmarks that are open, by their numbers; those of figures hold what is none of the paragraph’s own. */
  private readonly open = new Map<string, string>();
  private last: string | null = null;
  private initial = '';
  private loose = '';
  private fields = 0;

  constructor(private readonly listed: ReadonlySet<string>) {}

  /** `told`: whether what stands around no bookmark is told of. */
  blocks(around: Node, told: boolean): void {
    for (const node of around.children) {
      if (node.name === 'w:p') this.paragraph(node, told);
      else if (
        node.name === 'w:sdt' &&
        node.children.some((c) => c.name === 'w:sdtPr' && c.children.some((d) => d.name === 'w:docPartObj'))
      )
        continue;
      else this.blocks(node, told);
    }
  }

  private paragraph(p: Node, told: boolean): void {
    const pPr = p.children.find((c) => c.name === 'w:pPr');
    const isInitial = pPr?.children.some((c) => c.name === 'w:framePr' && c.attributes['w:dropCap'] !== undefined);
    // One that is open already goes on: somebody has divided it.
    for (const bookmark of this.openListed()) this.texts.set(bookmark, this.texts.get(bookmark)! + DIVIDED);
    this.loose = '';
    const before = this.texts.size;
    this.inline(p);
    if (isInitial) this.initial += this.loose;
    else if (told && this.loose.trim() && this.texts.size === before && !this.openListed().length)
      this.unknown.push({ after: this.last, text: this.loose.trim() });
  }

  private openListed(): string[] {
    return [...this.open.values()].filter((name) => this.texts.has(name));
  }

  private say(text: string): void {
    if (this.fields) return;
    const open = this.openListed();
    if ([...this.open.values()].some((name) => ASIDE.test(name))) return;
    for (const name of open) this.texts.set(name, this.texts.get(name)! + text);
    if (!open.length) this.loose += text;
  }

  private inline(around: Node): void {
    for (const n of around.children) {
      switch (n.name) {
        case 'w:bookmarkStart': {
          const name = n.attributes['w:name'] ?? '';
          if (name.startsWith('n_')) this.say(OBJECT);
          this.open.set(n.attributes['w:id'] ?? '', name);
          if (this.listed.has(name) && !this.texts.has(name)) {
            this.texts.set(name, this.initial);
            this.initial = '';
          }
          break;
        }
        case 'w:bookmarkEnd': {
          const name = this.open.get(n.attributes['w:id'] ?? '');
          if (name !== undefined && this.listed.has(name)) this.last = name;
          this.open.delete(n.attributes['w:id'] ?? '');
          break;
        }
        case 'w:r':
          this.run(n);
          break;
        case 'w:fldSimple':
          this.say(OBJECT);
          break;
        // What was taken out or away while changes were recorded is not there any more.
        case 'w:del':
        case 'w:moveFrom':
        case 'w:pPr':
          break;
        default:
          this.inline(n);
      }
    }
  }

  /** Boxes that are anchored in a paragraph have texts of their own. */
  private boxes(around: Node): void {
    for (const n of around.children) {
      if (n.name !== 'w:txbxContent') {
        this.boxes(n);
        continue;
      }
      const outside = [...this.open];
      const loose = this.loose;
      this.open.clear();
      this.blocks(n, true);
      this.open.clear();
      for (const [id, name] of outside) this.open.set(id, name);
      this.loose = loose;
    }
  }

  private run(r: Node): void {
    for (const n of r.children) {
      switch (n.name) {
        case 'w:t':
          this.say(n.text);
          break;
        case 'w:tab':
          this.say('\t');
          break;
        case 'w:br':
          if (n.attributes['w:type'] === undefined || n.attributes['w:type'] === 'textWrapping') this.say('\n');
          break;
        case 'w:cr':
          this.say('\n');
          break;
        case 'w:softHyphen':
          this.say('\u00AD');
          break;
        case 'w:noBreakHyphen':
          this.say('\u2011');
          break;
        case 'w:drawing':
          if (n.children.some((c) => c.name === 'wp:anchor')) this.boxes(n);
          else this.say(OBJECT);
          break;
        // The newer form of what is anchored; the older one says the same again.
        case 'mc:AlternateContent':
          for (const choice of n.children) if (choice.name === 'mc:Choice') this.run(choice);
          break;
        case 'w:pict':
        case 'w:ruby':
        case 'w:footnoteReference':
        case 'w:endnoteReference':
          this.say(OBJECT);
          break;
        case 'w:fldChar':
          if (n.attributes['w:fldCharType'] === 'begin') {
            this.say(OBJECT);
            this.fields++;
          } else if (n.attributes['w:fldCharType'] === 'end') this.fields = Math.max(0, this.fields - 1);
      }
    }
  }
}
