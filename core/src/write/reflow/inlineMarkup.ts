import { fieldText } from '../../compose/fieldText.ts';
import { isSafeAddress } from '../../folio/address.ts';
import { resolveParagraph, resolveSpan, spanRole, spanStays } from '../../folio/resolve.ts';
import type { Inline, Paragraph, Span, Story } from '../../folio/story.ts';
import { contentLength, lengthOf } from '../../folio/text.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';
import type { FlowFigure } from '../../structure/flow.ts';
import { anchor, hrefOf } from './flowContext.ts';
import type { FlowContext } from './flowContext.ts';

/** Something that stands at a place in a paragraph beside its own content: a page that begins there, a pinned picture. */
interface Insertion {
  offset: number;
  markup: string;
}

/** The content of a paragraph as elements of HTML that is XML as well. */
export function inlineMarkup(
  story: Story,
  paragraph: Paragraph,
  page: string | null,
  insertions: readonly Insertion[],
  c: FlowContext,
): string {
  const waiting = [...insertions].sort((a, b) => a.offset - b.offset);
  const end = contentLength(paragraph.content);
  let out = '';
  let at = 0;
  const insertUpTo = (offset: number): void => {
    while (waiting.length && Math.min(waiting[0]!.offset, end) <= offset) out += waiting.shift()!.markup;
  };
  for (const node of paragraph.content) {
    insertUpTo(at);
    const next = at + lengthOf(node);
    if (node.type === 'span') {
      let from = 0;
      for (const stop of waiting.filter((w) => w.offset > at && w.offset < next)) {
        out += spanMarkup(story, paragraph, { ...node, text: node.text.slice(from, stop.offset - at) }, c);
        from = stop.offset - at;
        insertUpTo(stop.offset);
      }
      out += spanMarkup(story, paragraph, { ...node, text: node.text.slice(from) }, c);
    } else out += nodeMarkup(story, node, page, c);
    at = next;
  }
  insertUpTo(Infinity);
  return out;
}

const ELEMENTS = new Set(['em', 'strong', 'cite', 'code', 'q', 'small', 'sub', 'sup', 'abbr', 'dfn']);

function spanMarkup(story: Story, paragraph: Paragraph, span: Span, c: FlowContext): string {
  if (!span.text) return '';
  const text = escape(span.text);
  const classes = c.styles.span(paragraph, span);
  const role = spanRole(c.folio.head, span);
  const { character } = resolveParagraph(c.folio.head, paragraph);
  const { language } = resolveSpan(c.folio.head, character, span);
  const more = {
    class: classes.join(' ') || undefined,
    ...(language !== character.language && { lang: language, 'xml:lang': language }),
    // WHATWG HTML 3.2.6.5: programs that translate pages leave it as it is.
    ...(spanStays(c.folio.head, span) && { translate: 'no' }),
  };
  const tag = role && ELEMENTS.has(role.element) ? role.element : 'span';
  const plain = tag === 'span' && Object.values(more).every((v) => v === undefined);
  const body = plain ? text : `<${tag}${attrs(more)}>${text}</${tag}>`;
  const link = span.link === undefined ? undefined : story.links[span.link];
  const href = link && hrefOf(link.destination, c, isSafeAddress);
  if (!href) return body;
  return `<a${attrs({ href, title: link?.title })}>${body}</a>`;
}

function nodeMarkup(story: Story, node: Exclude<Inline, Span>, page: string | null, c: FlowContext): string {
  switch (node.type) {
    case 'softReturn':
      return '<br/>';
    case 'tab':
      // Running text has no stops: what a tab keeps apart is kept apart by a wide space.
      return '\u2003';
    case 'field': {
      const text = escape(fieldText(c.folio, node, { ...c.fields, page }));
      const href = node.target !== undefined && (node.field === 'reference' || node.field === 'label') ? c.paragraphAt(node.target) : null;
      return href && text ? `<a href="${escape(href)}">${text}</a>` : text;
    }
    case 'note': {
      c.note(story, node);
      const number = escape(c.noteNumber(story, node.id));
      const more = c.book ? { 'epub:type': 'noteref' } : {};
      return `<a${attrs({ ...more, role: 'doc-noteref', class: 'note-reference', id: anchor.reference(node.id), href: `#${anchor.note(node.id)}` })}>${number}</a>`;
    }
    case 'ruby':
      return `<ruby>${escape(node.base)}<rp>(</rp><rt>${escape(node.reading)}</rt><rp>)</rp></ruby>`;
    case 'anchor': {
      const item = node.place === 'inline' ? story.items[node.item] : undefined;
      const picture = item && c.picture(item);
      return picture
        ? `<img${attrs({ class: 'in-line', src: picture.source, alt: item.alt ?? '', width: picture.width, height: picture.height })}/>`
        : '';
    }
  }
}

/** A figure that is pinned into a line. */
export function inlineFigure({ item }: FlowFigure, c: FlowContext): string {
  const picture = c.picture(item);
  if (!picture) return '';
  return `<img${attrs({ class: 'in-line', id: anchor.item(item.id), src: picture.source, alt: item.alt ?? '', width: picture.width, height: picture.height })}/>`;
}

/** Where a page of the layout begins (EPUB 3.3 page list; DPUB-ARIA doc-pagebreak). */
export function pageMark(page: string, c: FlowContext): string {
  if (!c.pageMarks) return '';
  const more = c.book ? { 'epub:type': 'pagebreak' } : {};
  return `<span${attrs({ ...more, role: 'doc-pagebreak', id: anchor.page(page), title: c.printed(page) })}></span>`;
}
