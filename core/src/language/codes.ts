import type { TextPart } from '../folio/edition.ts';
import type { Head } from '../folio/head.ts';
import { resolveParagraph, resolveSpan, spanRole, spanStays } from '../folio/resolve.ts';
import type { Inline, Paragraph, Span } from '../folio/story.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import { normalise } from '../folio/text.ts';
import { isWords, joined } from './parts.ts';

/** What a numbered code in a text stands for. */
export interface Code {
  n: number;
  kind: 'look' | 'link' | 'ruby' | 'kept' | Exclude<Inline['type'], 'span' | 'softReturn' | 'tab' | 'ruby'>;
  /** Stands around words; the others stand by themselves. */
  paired: boolean;
  /** The same for codes that stand for the same thing. */
  signature: string;
  /** What it is, in plain words: “bold”, “link to marrowby.example”. */
  says: string;
  /** What is read in its place, where it is a text. */
  shows: string;
  look?: Look;
  link?: string;
  node?: Inline;
}

/** How a span looks by its own: what it says beyond its paragraph. */
type Look = Pick<Span, 'style' | 'overrides'>;

/** A text with its codes. `ground` is the look that most of its words have; it needs no code. */
export interface Coded {
  parts: TextPart[];
  codes: Code[];
  ground: Look;
}

/** What a code is called to translators is worked out from what it does to the words. */
export interface CodeContext {
  head: Pick<Head, 'paragraphStyles' | 'characterStyles'>;
  /** Where a link leads, in words. */
  linkTo(link: string): string;
}

interface Piece {
  span: Span;
  /** Stays as it is in every language. */
  kept: boolean;
  /** Equal for spans that nobody can tell apart. */
  seen: string;
}

/** Properties that have no effect on white space, or by less than a hair. */
const UNSEEN_ON_SPACE = ['fill', 'stroke', 'fontWeight', 'fontStyle', 'capitals', 'features', 'kerning', 'language'] as const;

const told = new WeakMap<CharacterProperties, string>();

/** A look as a string that is equal only for equal looks; those of styles are the same objects again and again. */
function plainOf(look: CharacterProperties): string {
  let plain = told.get(look);
  if (plain === undefined) told.set(look, (plain = sortedJson(look)));
  return plain;
}

const sortedJson = (look: CharacterProperties, without: readonly (keyof CharacterProperties)[] = []): string =>
  JSON.stringify(
    Object.entries(look)
      .filter(([k]) => !without.includes(k as keyof CharacterProperties))
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );

/** A paragraph’s text with what is not words as numbered codes, as few of them as possible. */
export function codesOf(paragraph: Paragraph, context: CodeContext): Coded {
  const { head } = context;
  const [only] = paragraph.content;
  // Most paragraphs are words in one look and nothing else.
  if (paragraph.content.length === 1 && only?.type === 'span' && only.text && only.link === undefined && !spanStays(head, only))
    return { parts: [{ type: 'text', text: only.text }], codes: [], ground: lookOf(only) };
  const base = resolveParagraph(head, paragraph).character;
  const looks = new Map<string, { look: Look; props: CharacterProperties }>();
  const pieces: (Piece | Exclude<Inline, Span>)[] = [];
  for (const node of paragraph.content) {
    if (node.type !== 'span') {
      pieces.push(node);
      continue;
    }
    const props = resolveSpan(head, base, node);
    const role = spanRole(head, node);
    const kept = spanStays(head, node);
    const last = pieces[pieces.length - 1];
    let seen = `${plainOf(props)}|${role ? `${role.element}.${role.class ?? ''}` : ''}|${kept ? 'kept' : ''}`;
    // White space takes the look of the words before it, where nobody can see the difference.
    if (/^\s+$/.test(node.text) && last && 'seen' in last && last.span.link === node.link && last.kept === kept) {
      const before = looks.get(last.seen)!.props;
      if (sortedJson(before, UNSEEN_ON_SPACE) === sortedJson(props, UNSEEN_ON_SPACE)) seen = last.seen;
    }
    if (!looks.has(seen)) {
      looks.set(seen, { look: lookOf(node), props });
    }
    if (last && 'seen' in last && last.seen === seen && last.span.link === node.link)
      pieces[pieces.length - 1] = { seen, kept, span: { ...last.span, text: last.span.text + node.text } };
    else pieces.push({ seen, kept, span: node });
  }
  const ground = groundOf(pieces);
  const coded = new Coding(context, ground === undefined ? base : looks.get(ground)!.props, looks, ground);
  for (const piece of pieces) for (const part of spacesApart(piece, ground, looks)) coded.take(part);
  return { ...coded.end(), ground: ground === undefined ? {} : looks.get(ground)!.look };
}

const lookOf = ({ style, overrides }: Span): Look => ({ ...(style !== undefined && { style }), ...(overrides && { overrides }) });

/** White space at the ends of words in another look belongs to what is around them, where nobody can see the difference. */
function spacesApart(
  piece: Piece | Exclude<Inline, Span>,
  ground: string | undefined,
  looks: ReadonlyMap<string, { props: CharacterProperties }>,
): (Piece | Exclude<Inline, Span>)[] {
  if (!('seen' in piece) || piece.kept || ground === undefined || piece.seen === ground || piece.span.link !== undefined) return [piece];
  const [own, around] = [looks.get(piece.seen)!.props, looks.get(ground)!.props];
  const { text } = piece.span;
  const words = text.trim();
  const lead = words ? text.slice(0, text.length - text.trimStart().length) : text;
  const trail = words ? text.slice(text.trimEnd().length) : '';
  if (!words || (!lead && !trail) || sortedJson(own, UNSEEN_ON_SPACE) !== sortedJson(around, UNSEEN_ON_SPACE)) return [piece];
  const space = (blank: string): Piece[] => (blank ? [{ span: { ...piece.span, text: blank }, kept: false, seen: ground }] : []);
  return [...space(lead), { ...piece, span: { ...piece.span, text: words } }, ...space(trail)];
}

/** The look that stands in most places; where several do, the one with most words. */
function groundOf(pieces: readonly (Piece | Exclude<Inline, Span>)[]): string | undefined {
  const counted = new Map<string, { places: number; letters: number }>();
  for (const piece of pieces) {
    if (!('seen' in piece) || piece.kept) continue;
    const count = counted.get(piece.seen) ?? { places: 0, letters: 0 };
    counted.set(piece.seen, { places: count.places + 1, letters: count.letters + piece.span.text.length });
  }
  const [best] = [...counted].sort(([, a], [, b]) => b.places - a.places || b.letters - a.letters);
  return best?.[0];
}

/** Turns pieces into parts, one after another. */
class Coding {
  private readonly parts: TextPart[] = [];
  private readonly codes: Code[] = [];
  private open: Code | null = null;

  constructor(
    private readonly context: CodeContext,
    private readonly base: CharacterProperties,
    private readonly looks: ReadonlyMap<string, { look: Look; props: CharacterProperties }>,
    private readonly ground: string | undefined,
  ) {}

  take(piece: Piece | Exclude<Inline, Span>): void {
    if ('seen' in piece) return this.words(piece);
    if (piece.type === 'softReturn') return void this.parts.push({ type: 'wrap' });
    // A tab parts segments; it is kept as the sign that it is.
    if (piece.type === 'tab') return void this.parts.push({ type: 'text', text: '\t' });
    if (piece.type === 'ruby') return this.ruby(piece);
    this.closeLink();
    const code = this.code(piece.type, false, `${piece.type}:${piece.id}`, nameOf(piece), '', { node: piece });
    this.parts.push({ type: 'code', code: code.n });
  }

  end(): { parts: TextPart[]; codes: Code[] } {
    this.closeLink();
    return { parts: joined(this.parts), codes: this.codes };
  }

  private words({ span, seen, kept }: Piece): void {
    const { look, props } = this.looks.get(seen)!;
    if (span.link !== this.open?.link) {
      this.closeLink();
      if (span.link !== undefined) this.openLink(span.link, seen);
    }
    if (kept) {
      const code = this.code('kept', false, `kept:${span.text}`, 'stays as it is', span.text, { node: span });
      return void this.parts.push({ type: 'code', code: code.n });
    }
    const around = this.open ? this.lookOfLink : this.ground;
    if (seen === around) return void this.parts.push({ type: 'text', text: span.text });
    const code = this.code('look', true, `look:${JSON.stringify(look)}`, lookName(this.base, props), '', { look });
    this.parts.push({ type: 'open', code: code.n }, { type: 'text', text: span.text }, { type: 'close', code: code.n });
  }

  private lookOfLink: string | undefined;
  private openLink(link: string, seen: string): void {
    const { look } = this.looks.get(seen)!;
    this.lookOfLink = seen;
    const named = `link to ${this.context.linkTo(link)}`;
    this.open = this.code('link', true, `link:${link}`, named, '', { link, look });
    this.parts.push({ type: 'open', code: this.open.n });
  }
  private closeLink(): void {
    if (this.open) this.parts.push({ type: 'close', code: this.open.n });
    this.open = null;
  }

  private ruby(node: Inline & { type: 'ruby' }): void {
    const code = this.code('ruby', true, `ruby:${node.id}`, `with the reading “${node.reading}” above it`, '', { node });
    this.parts.push({ type: 'open', code: code.n }, { type: 'text', text: node.base }, { type: 'close', code: code.n });
  }

  private code(kind: Code['kind'], paired: boolean, signature: string, says: string, shows: string, more: Partial<Code>): Code {
    const code: Code = { n: this.codes.length + 1, kind, paired, signature, says, shows, ...more };
    this.codes.push(code);
    return code;
  }
}

const FIELD_NAMES: Record<(Inline & { type: 'field' })['field'], string> = {
  pageNumber: 'page number',
  pageCount: 'number of pages',
  sectionName: 'name of the section',
  reference: 'page that is referred to',
  label: 'number that is referred to',
  date: 'date',
  title: 'title of the document',
};

function nameOf(node: Inline): string {
  switch (node.type) {
    case 'field':
      return FIELD_NAMES[node.field];
    case 'note':
      return node.kind === 'footnote' ? 'footnote' : 'endnote';
    case 'anchor':
      return 'picture or box in the text';
    default:
      return '';
  }
}

/** What a look does to the words, in plain words. */
function lookName(base: CharacterProperties, look: CharacterProperties): string {
  const says: string[] = [];
  if (look.fontWeight !== base.fontWeight) says.push(look.fontWeight > base.fontWeight ? 'bold' : 'lighter');
  if (look.fontStyle !== base.fontStyle) says.push(look.fontStyle === 'italic' ? 'italic' : 'upright');
  if (look.underline && !base.underline) says.push('underlined');
  if (look.strike && !base.strike) says.push('struck through');
  if (look.position !== base.position) says.push(look.position === 'normal' ? 'on the line' : look.position);
  if (look.capitals !== base.capitals) says.push(look.capitals === 'normal' ? 'no capitals' : `${look.capitals} capitals`);
  if (look.fontFamily !== base.fontFamily) says.push(`set in ${look.fontFamily}`);
  if (look.size !== base.size) says.push(look.size > base.size ? 'larger' : 'smaller');
  if (JSON.stringify(look.fill) !== JSON.stringify(base.fill)) says.push('in another colour');
  if (look.language !== base.language) says.push(`in another language (${look.language})`);
  return says.join(', ') || 'other look';
}

/** The text of a paragraph from parts: codes become what they stand for; those that nothing is known of are left out. */
export function contentOf(parts: readonly TextPart[], codes: readonly Code[], ground: Look): Inline[] {
  // Most texts are words in one look.
  if (isWords(parts) && parts[0].text && !parts[0].text.includes('\t')) return [{ type: 'span', text: parts[0].text, ...ground }];
  const byNumber = new Map(codes.map((c) => [c.n, c]));
  const out: Inline[] = [];
  const open: Code[] = [];
  const used = new Set<string>();
  const say = (text: string): void => {
    const look = [...open].reverse().find((c) => c.look)?.look ?? ground;
    const link = [...open].reverse().find((c) => c.link !== undefined)?.link;
    const ruby = [...open].reverse().find((c) => c.kind === 'ruby')?.node;
    if (ruby?.type === 'ruby' && !used.has(ruby.id)) {
      used.add(ruby.id);
      out.push({ ...ruby, base: text });
    } else
      text.split('\t').forEach((words, i) => {
        if (i) out.push({ type: 'tab' });
        if (words) out.push({ type: 'span', text: words, ...look, ...(link !== undefined && { link }) });
      });
  };
  for (const part of joined(parts)) {
    if (part.type === 'text') say(part.text);
    else if (part.type === 'wrap') out.push({ type: 'softReturn' });
    else {
      const code = byNumber.get(part.code);
      if (!code) continue;
      if (part.type === 'open') open.push(code);
      else if (part.type === 'close') {
        const at = open.lastIndexOf(code);
        if (at >= 0) open.splice(at, 1);
      } else if (code.node && !used.has(code.signature)) {
        // What has an identity of its own can be there once only.
        if (code.kind !== 'kept') used.add(code.signature);
        const within = [...open].reverse().find((c) => c.link !== undefined)?.link;
        out.push(code.node.type === 'span' && within !== undefined ? { ...code.node, link: within } : code.node);
      }
    }
  }
  return normalise(out);
}

/**
 * Which code now is which of those before: the same thing first, then the same kind in order. Numbers before → numbers now.
 */
export function pairCodes(before: Readonly<Record<string, string>>, now: readonly Code[]): Map<number, number> {
  const pairs = new Map<number, number>();
  if (!now.length) return pairs;
  const free = [...now];
  const numbers = Object.keys(before)
    .map(Number)
    .sort((a, b) => a - b);
  const take = (fits: (code: Code, signature: string) => boolean): void => {
    for (const n of numbers) {
      if (pairs.has(n)) continue;
      const at = free.findIndex((c) => fits(c, before[n]!));
      if (at >= 0) pairs.set(n, free.splice(at, 1)[0]!.n);
    }
  };
  take((c, signature) => c.signature === signature);
  // A pair that was cut in two has two numbers for one thing.
  for (const n of numbers) {
    const same = pairs.has(n) ? undefined : now.find((c) => c.signature === before[n]);
    if (same) pairs.set(n, same.n);
  }
  take((c, signature) => c.kind === signature.slice(0, signature.indexOf(':')));
  return pairs;
}

export const signaturesOf = (codes: readonly Code[]): Record<string, string> => Object.fromEntries(codes.map((c) => [c.n, c.signature]));
