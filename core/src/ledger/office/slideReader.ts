import { pointsOfEmu } from '../../packages/emu.ts';
import { formatNumber } from '../../compose/listLabels.ts';
import type { SeenLine, SeenStyle } from '../flow/cascade.ts';
import type { ObservedFlow, ObservedFlowBlock, ObservedFlowCell } from '../flow/observedFlow.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { OpenDeck, OpenSlide } from './openSlides.ts';

type Format = Parameters<typeof formatNumber>[1];
const FORMATS: Record<string, Format> = {
  arabic: 'decimal',
  alphaLc: 'lowerAlpha',
  alphaUc: 'upperAlpha',
  romanLc: 'lowerRoman',
  romanUc: 'upperRoman',
};

const ALIGNED: Record<string, string> = { l: 'left', r: 'right', ctr: 'center', just: 'justify', dist: 'justify' };

/** Reads the text of slides: paragraphs of boxes, tables, in the order in which they stand. */
export class SlideReader {
  readonly out: Pick<ObservedFlow, 'blocks' | 'tables'> = { blocks: [], tables: [] };
  /** The language of most of the text. */
  private readonly languages = new Map<string, number>();

  constructor(private readonly deck: OpenDeck) {}

  get language(): string {
    return [...this.languages].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '';
  }

  /** The paragraphs of a box or a cell. */
  body(body: Node | undefined, slide: Pick<OpenSlide, 'path' | 'number'>, within: string[] = [], ground: string | null = null): void {
    const counts = new Map<string, number>();
    for (const p of childrenOf(body, 'a:p')) this.paragraph(p, slide, within, ground, counts);
  }

  private paragraph(
    p: Node,
    slide: Pick<OpenSlide, 'path' | 'number'>,
    within: string[],
    ground: string | null,
    counts: Map<string, number>,
  ): void {
    const pPr = child(p, 'a:pPr');
    const align = ALIGNED[pPr?.attributes['algn'] ?? 'l'] ?? 'left';
    const mark = lookOf(child(p, 'a:endParaRPr') ?? childrenOf(p, 'a:r').map((r) => child(r, 'a:rPr'))[0], align, ground, false);
    const label = labelOf(pPr, counts);
    const block: ObservedFlowBlock = {
      element: 'p',
      within,
      text: label ? `${label} ` : '',
      language: mark.language,
      links: [],
      readings: [],
      file: slide.path,
      look: mark.look,
      runs: [],
      initial: false,
    };
    for (const node of p.children) {
      if (node.name === 'a:br') {
        block.text += ' ';
        continue;
      }
      if (node.name !== 'a:r' && node.name !== 'a:fld') continue;
      const rPr = child(node, 'a:rPr');
      const text = node.attributes['type'] === 'slidenum' ? String(slide.number) : (child(node, 'a:t')?.text ?? '');
      const press = child(rPr, 'a:hlinkClick');
      const { look, language } = lookOf(rPr, align, ground, press !== undefined);
      block.text += text;
      if (language) this.languages.set(language, (this.languages.get(language) ?? 0) + text.length);
      const last = block.runs[block.runs.length - 1];
      if (last && last.language === language && JSON.stringify(last.look) === JSON.stringify(look)) last.text += text;
      else block.runs.push({ text, look, language });
      if (press) block.links.push({ text, href: this.leadsTo(press, slide.path) });
    }
    if (block.text.trim() && (block.runs.length || !label)) this.out.blocks.push(block);
  }

  /** Where a press leads: an address, or `#` and a slide (20.1.2.2.23). */
  leadsTo(press: Node, path: string): string {
    const { 'r:id': id = '', action = '' } = press.attributes;
    if (/jump=/.test(action)) return `#${action.slice(action.indexOf('=') + 1)}`;
    const relation = this.deck.relations(path).get(id);
    if (!relation) this.deck.problems.push({ file: path, says: 'a link leads to nothing' });
    if (!/hlinksldjump/.test(action)) return relation?.target ?? '';
    const at = this.deck.slides.findIndex((s) => s.path === relation?.target);
    if (at < 0) this.deck.problems.push({ file: path, says: 'a link leads to a slide that is not there' });
    return `#${at + 1}`;
  }

  /** A table of a slide (21.1.3). */
  table(tbl: Node, slide: Pick<OpenSlide, 'path' | 'number'>): void {
    const { firstRow, firstCol } = child(tbl, 'a:tblPr')?.attributes ?? {};
    const rows: ObservedFlowCell[][] = [];
    this.out.tables.push(rows);
    childrenOf(tbl, 'a:tr').forEach((tr, r) => {
      const row: ObservedFlowCell[] = [];
      rows.push(row);
      childrenOf(tr, 'a:tc').forEach((tc, column) => {
        const { rowSpan, gridSpan, hMerge, vMerge } = tc.attributes;
        if (hMerge === '1' || vMerge === '1') return;
        const tcPr = child(tc, 'a:tcPr');
        const heading = (firstRow === '1' && r === 0) || (firstCol === '1' && column === 0);
        const ground = colourIn(tcPr);
        const from = this.out.blocks.length;
        this.body(child(tc, 'a:txBody'), slide, ['table', heading ? 'th' : 'td'], ground);
        const text = this.out.blocks
          .slice(from)
          .map((b) => b.text)
          .join(' ');
        const lines = ['a:lnT', 'a:lnR', 'a:lnB', 'a:lnL'].map((side) => lineOf(child(tcPr, side)));
        row.push({ text, heading, rows: Number(rowSpan ?? 1), columns: Number(gridSpan ?? 1), ground, lines });
      });
    });
  }
}

/** What stands before an entry of a list; numbers count on from where the entries before it are (21.1.2.4.1). */
function labelOf(pPr: Node | undefined, counts: Map<string, number>): string | null {
  const sign = child(pPr, 'a:buChar')?.attributes['char'];
  if (sign !== undefined) return sign;
  const counted = child(pPr, 'a:buAutoNum')?.attributes;
  if (!counted) {
    counts.clear();
    return null;
  }
  const { type = '', startAt = '1' } = counted;
  const level = Number(pPr?.attributes['lvl'] ?? 0);
  // What stands deeper begins anew.
  for (const key of counts.keys()) if (Number(key.split(' ')[0]) > level) counts.delete(key);
  const key = `${level} ${type} ${startAt}`;
  const number = counts.has(key) ? counts.get(key)! + 1 : Number(startAt);
  counts.set(key, number);
  const [, scheme = '', around = ''] = /^([a-z]+(?:Lc|Uc)?)(Period|ParenR|ParenBoth|Plain)$/.exec(type) ?? [];
  const shown = formatNumber(number, FORMATS[scheme] ?? 'decimal');
  return { Period: `${shown}.`, ParenR: `${shown})`, ParenBoth: `(${shown})`, Plain: shown }[around] ?? shown;
}

/** `#rrggbb` of a plain fill. */
function colourIn(around: Node | undefined): string | null {
  const colour = child(child(around, 'a:solidFill'), 'a:srgbClr')?.attributes['val'];
  return colour === undefined ? null : `#${colour.toLowerCase()}`;
}

function lineOf(line: Node | undefined): SeenLine | null {
  const colour = colourIn(line);
  return colour === null ? null : { em: pointsOfEmu(line?.attributes['w']), colour };
}

/** Look and language of words; all that the file says of them stands with them. */
function lookOf(rPr: Node | undefined, align: string, ground: string | null, link: boolean): { look: SeenStyle; language: string } {
  const a = rPr?.attributes ?? {};
  const raised = Number(a['baseline'] ?? 0);
  return {
    language: a['lang'] ?? '',
    look: {
      family: child(rPr, 'a:latin')?.attributes['typeface'] ?? '',
      weight: a['b'] === '1' ? '700' : '400',
      style: a['i'] === '1' ? 'italic' : 'normal',
      align,
      size: Number(a['sz'] ?? 1800) / 100,
      colour: colourIn(rPr),
      ground,
      capitals: a['cap'] === 'all' ? 'all' : a['cap'] === 'small' ? 'small' : 'normal',
      position: raised > 0 ? 'superscript' : raised < 0 ? 'subscript' : 'normal',
      underline: (a['u'] ?? 'none') !== 'none',
      strike: (a['strike'] ?? 'noStrike') !== 'noStrike',
      link,
    },
  };
}
