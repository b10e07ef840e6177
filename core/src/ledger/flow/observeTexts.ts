import type { PicturePort } from '../../ports/ports.ts';
import { StyleRules } from '../html/css.ts';
import { attribute, elementsOf, isElement, isText, parsePage, textOf } from '../html/dom.ts';
import type { Element, Node } from '../html/dom.ts';
import { resolve } from '../html/address.ts';
import type { TextFile } from '../html/address.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import { Cascade } from './cascade.ts';
import type { ObservedFlow, ObservedFlowBlock, ObservedFlowCell } from './observedFlow.ts';

export interface FlowFiles {
  file(path: string): Promise<Uint8Array | undefined>;
  pictures: PicturePort;
}

const BLOCKS = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'li', 'pre', 'figcaption', 'td', 'th', 'div']);
/** What stands in these is no text of the document: readings, what stands in for them, ways back from notes. */
const isAside = (e: Element): boolean => e.tagName === 'rt' || e.tagName === 'rp' || attribute(e, 'role') === 'doc-backlink';

/** Reads files of running text in their order: what stands in them, in the order in which it is read. */
export async function observeTexts(
  texts: readonly TextFile[],
  files: FlowFiles,
): Promise<Pick<ObservedFlow, 'blocks' | 'figures' | 'tables' | 'notes' | 'problems'>> {
  const out = { blocks: [], figures: [], tables: [], notes: [], problems: [] } as Pick<
    ObservedFlow,
    'blocks' | 'figures' | 'tables' | 'notes' | 'problems'
  >;
  const documents = texts.map((t) => ({ ...t, root: parsePage(t.text) }));
  const ids = new Map(documents.map((d) => [d.path, new Set([...elementsOf(d.root)].flatMap((e) => attribute(e, 'id') ?? []))]));
  for (const { path, root } of documents) {
    const seen = new Set<string>();
    for (const e of elementsOf(root)) {
      const id = attribute(e, 'id');
      if (id !== undefined && seen.has(id)) out.problems.push({ file: path, says: `“${id}” names two elements` });
      if (id !== undefined) seen.add(id);
      const href = e.tagName === 'a' ? attribute(e, 'href') : undefined;
      const target = href === undefined ? null : resolve(path, href);
      if (target && !(ids.get(target.file)?.has(target.id) ?? (target.id === '' && ids.has(target.file))))
        out.problems.push({ file: path, says: `a link leads to “${href}”, which is not there` });
    }
    const looks = new Cascade(await sheetsOf(path, root, files));
    const html = [...elementsOf(root)].find((e) => e.tagName === 'html');
    const body = [...elementsOf(root)].find((e) => e.tagName === 'body');
    if (body) await new TextWalker(path, out, files, looks).read(body, (html && attribute(html, 'lang')) ?? '');
  }
  return out;
}

interface Where {
  language: string;
  within: string[];
}

class TextWalker {
  constructor(
    private readonly path: string,
    private readonly out: Pick<ObservedFlow, 'blocks' | 'figures' | 'tables' | 'notes' | 'problems'>,
    private readonly files: FlowFiles,
    private readonly looks: Cascade,
  ) {}

  async read(node: Node, language: string): Promise<void> {
    await this.visit(node, { language, within: [] });
  }

  private async visit(node: Node, where: Where): Promise<void> {
    if (!isElement(node)) return;
    const language = attribute(node, 'lang') ?? where.language;
    const inside: Where = { language, within: [...where.within, node.tagName] };
    if (/footnote|endnote/.test(attribute(node, 'epub:type') ?? '') || /^doc-(footnote|endnote)$/.test(attribute(node, 'role') ?? '')) {
      const back = [...elementsOf(node)].find((e) => attribute(e, 'role') === 'doc-backlink');
      this.out.notes.push({ number: back ? textOf(back).trim() : '', text: readable(node).trim(), back: back !== undefined });
      // Notes stand at the end of a file and are read where their reference leads.
      return;
    }
    if (node.tagName === 'table') this.out.tables.push(tableOf(node, this.looks));
    if (node.tagName === 'img') await this.figure(node);
    if (node.tagName === 'video' || node.tagName === 'audio') await this.played(node);
    if (BLOCKS.has(node.tagName) && hasOwnText(node)) this.block(node, inside);
    for (const child of node.childNodes) await this.visit(child, inside);
  }

  private block(e: Element, { language, within }: Where): void {
    const block: ObservedFlowBlock = {
      element: e.tagName,
      within: within.slice(0, -1),
      text: ownText(e),
      language,
      links: [],
      readings: [],
      look: this.looks.of(e),
      runs: ownRuns(e).map(({ text, parent }) => ({ text, look: this.looks.of(parent), language: languageWithin(parent, e) ?? language })),
      initial: this.looks.hasInitial(e),
      file: this.path,
    };
    for (const inner of ownElements(e)) {
      const href = attribute(inner, 'href');
      if (inner.tagName === 'a' && href !== undefined && !/^doc-(noteref|backlink)$/.test(attribute(inner, 'role') ?? ''))
        block.links.push({ text: readable(inner), href });
      if (inner.tagName === 'ruby') {
        const reading = inner.childNodes
          .filter((n) => isElement(n) && n.tagName === 'rt')
          .map(textOf)
          .join('');
        block.readings.push({ base: readable(inner), reading });
      }
    }
    this.out.blocks.push(block);
  }

  private async played(e: Element): Promise<void> {
    const at = (name: string): Promise<Uint8Array | undefined> | undefined => {
      const source = resolve(this.path, attribute(e, name) ?? '');
      return source ? this.files.file(source.file) : undefined;
    };
    this.out.figures.push({
      alt: attribute(e, 'aria-label') ?? '',
      caption: captionOf(e),
      picture: await this.signature(await at('poster')),
      plays: (await at('src'))?.byteLength ?? 0,
      after: this.out.blocks.length,
    });
  }

  private async figure(img: Element): Promise<void> {
    const source = resolve(this.path, attribute(img, 'src') ?? '');
    const bytes = source && (await this.files.file(source.file));
    if (!bytes) this.out.problems.push({ file: this.path, says: `the picture “${attribute(img, 'src')}” is not there` });
    this.out.figures.push({
      alt: attribute(img, 'alt') ?? '',
      caption: captionOf(img),
      picture: await this.signature(bytes ?? undefined),
      after: this.out.blocks.length,
    });
  }

  private async signature(bytes: Uint8Array | undefined): Promise<Uint8Array | undefined> {
    return bytes && this.files.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined);
  }
}

/** What is said below a picture, film or sound. */
function captionOf(shown: Element): string {
  const figure = ancestor(shown, 'figure');
  const caption = figure && [...elementsOf(figure)].find((e) => e.tagName === 'figcaption');
  return caption ? readable(caption) : '';
}

/** The style sheets of a file, those inside it and those it names. */
async function sheetsOf(path: string, root: Node, files: FlowFiles): Promise<StyleRules> {
  const rules = new StyleRules();
  for (const e of elementsOf(root)) {
    if (e.tagName === 'style') rules.add(textOf(e));
    const source = e.tagName === 'link' && attribute(e, 'rel') === 'stylesheet' ? resolve(path, attribute(e, 'href') ?? '') : null;
    const bytes = source && (await files.file(source.file));
    if (bytes) rules.add(new TextDecoder().decode(bytes));
  }
  return rules;
}

function ancestor(e: Element, name: string): Element | undefined {
  for (let at = e.parentNode; at && isElement(at); at = at.parentNode) if (at.tagName === name) return at;
  return undefined;
}

/** Text below an element as it is read. */
const readable = (node: Node): string =>
  isText(node)
    ? node.value
    : isElement(node) && isAside(node)
      ? ''
      : 'childNodes' in node
        ? node.childNodes.map(readable).join(isElement(node) && node.tagName === 'tr' ? ' ' : '')
        : '';

/** Texts of an element without those of blocks inside it: an entry of a list may hold another list. */
function ownRuns(e: Element): { text: string; parent: Element }[] {
  return e.childNodes.flatMap((n): { text: string; parent: Element }[] => {
    if (isText(n)) return [{ text: n.value, parent: e }];
    if (!isElement(n) || isAside(n) || BLOCKS.has(n.tagName) || /^(ul|ol|table|figure|aside)$/.test(n.tagName)) return [];
    return n.tagName === 'br' ? [{ text: ' ', parent: e }] : ownRuns(n);
  });
}
const ownText = (e: Element): string =>
  ownRuns(e)
    .map((r) => r.text)
    .join('');
/** The language that an element inside another is said to be in, if it is. */
function languageWithin(e: Element, block: Element): string | undefined {
  for (let at: Node | null = e; at && isElement(at) && at !== block; at = at.parentNode) {
    const own = attribute(at, 'lang');
    if (own !== undefined) return own;
  }
  return undefined;
}
const hasOwnText = (e: Element): boolean => ownText(e).trim() !== '';

function* ownElements(e: Element): Generator<Element> {
  for (const child of e.childNodes)
    if (isElement(child) && !BLOCKS.has(child.tagName) && !/^(ul|ol|table|figure|aside)$/.test(child.tagName)) {
      yield child;
      yield* ownElements(child);
    }
}

const tableOf = (table: Element, looks: Cascade): ObservedFlowCell[][] =>
  [...elementsOf(table)]
    .filter((e) => e.tagName === 'tr')
    .map((row) =>
      row.childNodes.filter(isElement).map((cell) => ({
        text: readable(cell),
        heading: cell.tagName === 'th',
        rows: Number(attribute(cell, 'rowspan') ?? 1),
        columns: Number(attribute(cell, 'colspan') ?? 1),
        ground: looks.of(cell).ground,
        lines: looks.lines(cell),
      })),
    );
