import { marked } from 'marked';
import type { Token, Tokens } from 'marked';
import type { Inline } from '@elastic-folio/core';
import { anchored, em, labelOf, note, pageOf, strong } from '../sampleAssembly.ts';
import type { BlockInput, ParagraphInput, Piece } from '../sampleAssembly.ts';

/** A heading, figure or table, for the contents. */
export interface Entry {
  kind: 'part' | 'chapter' | 'section' | 'figure' | 'table';
  id: string;
  text: string;
}
export interface Prose {
  blocks: BlockInput[];
  entries: Entry[];
  /** Drawings by key, with their alt text. */
  figures: { key: string; alt: string }[];
}

/** Notes and references stand apart while Markdown is read: signs of a private area with a number between them. */
const [OPEN, CLOSE] = ['\uE000', '\uE001'];
const HEADING = ['part', 'chapter', 'section'] as const;
/** Columns of tables by their number, as shares of the width. */
const SHARES: Record<number, number[]> = { 3: [3, 5, 4], 4: [4, 3, 4, 6] };

/** Turns a part of the handbook, written in Markdown with keys, notes and references, into blocks of text. */
export function parseProse(source: string, names: { id(prefix: string): string }): Prose {
  const out: Prose = { blocks: [], entries: [], figures: [] };
  const held: Piece[] = [];
  const hold = (piece: Piece): string => `${OPEN}${held.push(piece) - 1}${CLOSE}`;
  const prepared = source
    .replace(/\^\[([^\]]+)\]/g, (_, text: string) => hold(note(text)))
    .replace(/\{([np]):([\w-]+)\}/g, (_, kind: string, key: string) => hold((kind === 'n' ? labelOf : pageOf)(names.id('ref'), key)));
  const keyed = (text: string): [text: string, key: string | undefined] => {
    const key = /\s*\{#([\w-]+)\}\s*$/.exec(text);
    return [key ? text.slice(0, key.index) : text, key?.[1]];
  };
  const pieces = (text: string): Piece[] =>
    text
      .split(new RegExp(`(${OPEN}\\d+${CLOSE})`))
      .filter(Boolean)
      .map((part) => (part.startsWith(OPEN) ? held[Number(part.slice(1, -1))]! : part));
  const inline = (tokens: readonly Token[] | undefined): Piece[] =>
    (tokens ?? []).flatMap((t): Piece[] => {
      const text = (t as Tokens.Text).text ?? t.raw;
      if (t.type === 'strong') return [strong(text)];
      if (t.type === 'em') return [em(text)];
      return pieces(text.replace(/\n/g, ' '));
    });
  const add = (style: string, text: Piece[], more: Omit<ParagraphInput, 'style' | 'text'> = {}): void =>
    void out.blocks.push({ style, text, ...more });
  const enter = (kind: Entry['kind'], id: string, text: string): void => void out.entries.push({ kind, id, text });
  let opens = true;
  let caption: { text: string; key: string } | null = null;
  for (const token of marked.lexer(prepared)) {
    if (token.type === 'space') continue;
    if (token.type === 'heading') {
      const kind = HEADING[Math.min((token as Tokens.Heading).depth, 3) - 1]!;
      const [text, key = names.id('section')] = keyed((token as Tokens.Heading).text);
      add(kind, [text], { id: key });
      enter(kind, key, text);
      opens = true;
      continue;
    }
    if (token.type === 'list') {
      const list = token as Tokens.List;
      list.items.forEach((item, i) => {
        const style = list.ordered ? 'step' : 'bullet';
        const restart = list.ordered && i === 0 ? { overrides: { list: { style: 'steps', level: 0, restart: 1 } } } : {};
        add(style, inline((item.tokens[0] as Tokens.Text).tokens), restart);
      });
      opens = true;
      continue;
    }
    if (token.type === 'blockquote') {
      add('extract', inline(((token as Tokens.Blockquote).tokens[0] as Tokens.Paragraph).tokens));
      opens = true;
      continue;
    }
    if (token.type === 'table') {
      out.blocks.push(...tableBlocks(token as Tokens.Table, caption!, inline));
      enter('table', caption!.key, caption!.text);
      opens = true;
      continue;
    }
    const paragraph = token as Tokens.Paragraph;
    const image = paragraph.tokens?.length === 1 && paragraph.tokens[0]!.type === 'image' ? (paragraph.tokens[0] as Tokens.Image) : null;
    if (image) {
      const key = image.href;
      out.figures.push({ key, alt: image.text });
      add('figure', [anchored(`picture-${key}`, 'inline')]);
      add('figureCaption', pieces(image.title ?? ''), { id: `fig-${key}` });
      enter('figure', `fig-${key}`, image.title ?? '');
      opens = true;
    } else if (paragraph.text.startsWith('Table: ')) {
      const [text, key = names.id('table')] = keyed(paragraph.text.slice('Table: '.length));
      caption = { text, key };
    } else {
      add(opens ? 'opening' : 'running', inline(paragraph.tokens));
      opens = false;
    }
  }
  return out;
}

/** A table under its caption. */
function tableBlocks(
  table: Tokens.Table,
  caption: { text: string; key: string },
  inline: (tokens: readonly Token[] | undefined) => Piece[],
): BlockInput[] {
  const shares = SHARES[table.header.length] ?? table.header.map(() => 1);
  const rows = [table.header, ...table.rows].map((row) => ({ cells: row.map((cell) => inline(cell.tokens)) }));
  return [
    { id: caption.key, style: 'tableCaption', text: [caption.text] },
    {
      table: {
        id: `${caption.key}-cells`,
        style: 'ruled',
        columns: shares.map((width) => ({ width, unit: 'share' as const })),
        rows,
        paragraphStyles: { header: 'tableHead', body: 'tableText', first: 'tableText' },
      },
    },
    { style: 'afterTable', text: [] },
  ];
}

/** Words of a piece of text, without notes and references. */
export const wordsOf = (text: Piece | Piece[]): string =>
  (Array.isArray(text) ? text : [text]).map((p) => (typeof p === 'string' ? p : isSpan(p) ? p.text : '')).join('');
const isSpan = (p: Exclude<Piece, string>): p is Inline & { type: 'span' } => 'type' in p && p.type === 'span';
