import { fieldText } from '../../compose/fieldText.ts';
import { isSafeAddress } from '../../folio/address.ts';
import type { Destination } from '../../folio/motion.ts';
import { leadingOf, resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Inline, Paragraph, Span, Story } from '../../folio/story.ts';
import { contentLength, lengthOf, readText, SOFT_HYPHEN } from '../../folio/text.ts';
import { seenAs } from '../reflow/readersInk.ts';
import { halfPoints } from '../ooxml/lengths.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { all, el, words } from '../assets/xml.ts';
import { lookParts, runProperties } from './runLook.ts';
import type { WordContext } from './wordContext.ts';

/** Something that stands at a place in a paragraph beside its own content. */
export interface Insertion {
  offset: number;
  xml: Xml;
}

/** Text as a run holds it: what is no letter has an element of its own (ISO/IEC 29500-1, 17.3.3). */
function textOf(text: string): Xml {
  const parts = text.split(/([\u00AD\u2011\t\n])/);
  return all(
    parts.map((part): Child => {
      if (!part) return null;
      if (part === SOFT_HYPHEN) return el('w:softHyphen');
      if (part === '\u2011') return el('w:noBreakHyphen');
      if (part === '\t') return el('w:tab');
      if (part === '\n') return el('w:br');
      return el('w:t', { 'xml:space': 'preserve' }, words(part));
    }),
  );
}

export const run = (properties: Xml | null, ...content: Child[]): Xml => el('w:r', {}, properties, ...content);

/** The runs of a paragraph. `onGround`: it stands on a ground of the document’s, so that its own ink is seen. */
export function inlineContent(
  story: Story,
  paragraph: Paragraph,
  { page, insertions = [], onGround = false }: { page: string | null; insertions?: readonly Insertion[]; onGround?: boolean },
  c: WordContext,
): Xml {
  const waiting = [...insertions].sort((a, b) => a.offset - b.offset);
  const end = contentLength(paragraph.content);
  const out: Xml[] = [];
  let at = 0;
  let open: { link: string; runs: Xml[] } | null = null;
  const close = (): void => {
    if (open) out.push(linked(story, open.link, all(open.runs), c));
    open = null;
  };
  const put = (xml: Xml, link?: string): void => {
    if (open?.link !== link) close();
    if (link === undefined) out.push(xml);
    else (open ??= { link, runs: [] }).runs.push(xml);
  };
  const insertUpTo = (offset: number): void => {
    while (waiting.length && Math.min(waiting[0]!.offset, end) <= offset) put(waiting.shift()!.xml);
  };
  for (const node of paragraph.content) {
    insertUpTo(at);
    const next = at + lengthOf(node);
    if (node.type === 'span') {
      const properties = c.styles.run(paragraph, node, inkOf(paragraph, node, onGround, c));
      let from = 0;
      for (const stop of waiting.filter((w) => w.offset > at && w.offset < next)) {
        put(run(properties, textOf(node.text.slice(from, stop.offset - at))), node.link);
        from = stop.offset - at;
        insertUpTo(stop.offset);
      }
      put(run(properties, textOf(node.text.slice(from))), node.link);
    } else put(nodeXml(story, paragraph, node, page, onGround, c));
    at = next;
  }
  insertUpTo(Infinity);
  close();
  return all(out);
}

/** Text whose ink would not be seen on white paper has that of the reader. */
export function inkOf(
  paragraph: Paragraph,
  span: Pick<Span, 'style' | 'overrides'>,
  onGround: boolean,
  c: WordContext,
): string | undefined {
  const { head } = c.folio;
  const look = resolveSpan(head, resolveParagraph(head, paragraph).character, span);
  return !onGround && !c.exactInk && seenAs(look.fill, c.folio) === 'unseen' ? 'auto' : undefined;
}

/** A link around runs; what leads nowhere in the file is text (17.16.22). */
function linked(story: Story, id: string, runs: Xml, c: WordContext): Xml {
  const link = story.links[id];
  const to = link && targetOf(link.destination, c);
  return to ? el('w:hyperlink', { ...to, 'w:tooltip': link.title?.slice(0, 260), 'w:history': '1' }, runs) : runs;
}

function targetOf(destination: Destination, c: WordContext): Record<string, string> | null {
  if (destination.to === 'address')
    return isSafeAddress(destination.href) ? { 'r:id': c.part.relateOutside(`${OFFICE}/hyperlink`, destination.href) } : null;
  if (destination.to === 'page') return c.has('pg', destination.page) ? { 'w:anchor': c.bookmarks.name('pg', destination.page) } : null;
  if (destination.to === 'paragraph')
    return c.has('p', destination.paragraph) ? { 'w:anchor': c.bookmarks.name('p', destination.paragraph) } : null;
  return null;
}

/** A field with what it shows until it is worked out anew (17.16.18). */
export function field(instruction: string, properties: Xml | null, shown: string): Xml {
  const mark = (type: string): Xml => run(properties, el('w:fldChar', { 'w:fldCharType': type }));
  return all(
    mark('begin'),
    run(properties, el('w:instrText', { 'xml:space': 'preserve' }, words(` ${instruction} `))),
    mark('separate'),
    run(properties, textOf(shown)),
    mark('end'),
  );
}

/** The instruction of a field; null where its words stay as they are. */
function instructionOf(node: Inline & { type: 'field' }, c: WordContext): string | null {
  const target = node.target !== undefined && c.has('p', node.target) ? c.bookmarks.name('p', node.target) : null;
  switch (node.field) {
    case 'pageNumber':
      return 'PAGE';
    case 'pageCount':
      return 'NUMPAGES';
    case 'title':
      return 'TITLE';
    case 'reference':
      return target && `PAGEREF ${target} \\h`;
    case 'label':
      return target && `REF ${target} \\n \\h`;
    default:
      return null;
  }
}

function nodeXml(
  story: Story,
  paragraph: Paragraph,
  node: Exclude<Inline, Span>,
  page: string | null,
  onGround: boolean,
  c: WordContext,
): Xml {
  const properties = c.styles.run(paragraph, {}, inkOf(paragraph, {}, onGround, c));
  switch (node.type) {
    case 'softReturn':
      return run(properties, el('w:br'));
    case 'tab':
      return run(properties, el('w:tab'));
    case 'field': {
      const shown = fieldText(c.folio, node, { ...c.fields, page });
      const instruction = c.liveFields ? instructionOf(node, c) : null;
      return instruction ? field(instruction, properties, shown) : shown ? run(properties, textOf(shown)) : all();
    }
    case 'note': {
      const note = c.note(story, node);
      if (typeof note !== 'number') {
        const words = run(note.raised ? raised(paragraph, c) : properties, textOf(note.instead));
        return note.standsFor === undefined ? words : c.bookmarks.around('n', note.standsFor, words);
      }
      const name = node.kind === 'footnote' ? 'w:footnoteReference' : 'w:endnoteReference';
      return run(raised(paragraph, c), el(name, { 'w:id': note }));
    }
    case 'ruby':
      return rubyXml(paragraph, node, properties, c);
    case 'anchor': {
      const item = node.place === 'inline' ? story.items[node.item] : undefined;
      const made = item && c.pictures.of(item);
      const drawing = made && c.pictures.inline(item, c.part, Math.min(c.measure, made.width));
      // Pictures of pages lie over their lines.
      return drawing ? run(properties, drawing) : c.exactInk ? c.bookmarks.around('n', node.id, all()) : all();
    }
  }
}

/** How the number of a note is set. */
export const raised = (paragraph: Paragraph, c: WordContext): Xml | null =>
  runProperties({
    ...lookParts({ position: 'superscript', colour: c.styles.lookOf(resolveParagraph(c.folio.head, paragraph).character).colour }),
  });

/** A note inside a note stands in brackets: the format has none there (17.11). */
export const inBrackets = (story: Story, node: Inline & { type: 'note' }): { instead: string; raised: boolean } => ({
  instead: ` [${textOfNote(story, node)}]`,
  raised: false,
});

const textOfNote = (story: Story, node: Inline & { type: 'note' }): string =>
  node.order.flatMap((id) => (story.blocks[id]?.kind === 'paragraph' ? [readText(story.blocks[id])] : [])).join(' ');

/** How a base is read, above it (17.3.3.25): half as large, common practice. */
function rubyXml(paragraph: Paragraph, node: Inline & { type: 'ruby' }, properties: Xml | null, c: WordContext): Xml {
  const { character } = resolveParagraph(c.folio.head, paragraph);
  const small = runProperties({
    ...lookParts(c.styles.lookOf({ ...character, size: character.size / 2 })),
  });
  return run(
    properties,
    el(
      'w:ruby',
      {},
      el(
        'w:rubyPr',
        {},
        el('w:rubyAlign', { 'w:val': 'center' }),
        el('w:hps', { 'w:val': halfPoints(character.size / 2) }),
        el('w:hpsRaise', { 'w:val': halfPoints(leadingOf(character) - character.size * 0.6) }),
        el('w:hpsBaseText', { 'w:val': halfPoints(character.size) }),
        el('w:lid', { 'w:val': character.language }),
      ),
      el('w:rt', {}, run(small, textOf(node.reading))),
      el('w:rubyBase', {}, run(properties, textOf(node.base))),
    ),
  );
}
