import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { escape } from '../ooxml/redrawText.ts';
import { OdfLabels } from '../../ledger/odf/odfLabels.ts';
import { pointsOf } from '../../ledger/odf/odfStyles.ts';
import type { OdfStyles } from '../../ledger/odf/odfStyles.ts';
import { linkIn } from '../drawnPage.ts';

/** What drawing a text needs from outside it. */
export interface OdfOutside {
  /** A picture as an address that holds it. */
  picture(href: string): string | undefined;
  /** What the number of a page is, where it is asked for. */
  number?: () => string | null;
}

/** Text of OpenDocument as HTML: paragraphs in their styles, lists, tables, pictures in lines; notes at its end. */
export class OdfTextDrawing {
  private readonly labels: OdfLabels;
  private readonly noteTexts: string[] = [];

  constructor(
    private readonly styles: OdfStyles,
    private readonly outside: OdfOutside,
  ) {
    this.labels = new OdfLabels(styles);
  }

  blocks(around: Node): string {
    return around.children
      .map((node) => {
        if (node.name === 'text:p' || node.name === 'text:h') return this.paragraph(node, undefined, 0);
        if (node.name === 'text:list') return this.list(node, node.attributes['text:style-name'] ?? '', 0);
        if (node.name === 'table:table') return this.table(node);
        if (node.name === 'text:section') return this.section(node);
        return node.name === 'text:table-of-content'
          ? `<div class="contents">${this.blocks(child(node, 'text:index-body') ?? node)}</div>`
          : '';
      })
      .join('\n');
  }

  notes(): string {
    return this.noteTexts.map((text) => `<div class="note">${text}</div>`).join('\n');
  }

  /** A section, in columns where it has such (16.27). */
  private section(node: Node): string {
    const columns = this.styles.columns('section', node.attributes['text:style-name']);
    const inside = this.blocks(node);
    return columns ? `<div style="column-count:${columns.count};column-gap:${columns.gap}pt">${inside}</div>` : inside;
  }

  private list(node: Node, style: string, level: number): string {
    const own = node.attributes['text:style-name'] ?? style;
    if (level === 0) this.labels.begin(own, node.attributes['text:continue-numbering'] === 'true');
    const at = this.styles.list(own)?.children.find((l) => l.attributes['text:level'] === String(level + 1));
    const width = pointsOf(child(at, 'style:list-level-properties')?.attributes['text:min-label-width']);
    const sign = at?.attributes['text:style-name'];
    return node.children
      .filter((i) => i.name === 'text:list-item' || i.name === 'text:list-header')
      .flatMap((item) => {
        let label: string | undefined =
          item.name === 'text:list-item' ? this.labels.next(own, level, item.attributes['text:start-value']) : undefined;
        return item.children.map((held) => {
          if (held.name === 'text:list') return this.list(held, own, level + 1);
          const drawn = this.paragraph(held, label, width, sign);
          label = undefined;
          return drawn;
        });
      })
      .join('\n');
  }

  private paragraph(p: Node, label: string | undefined, room: number, sign?: string): string {
    const style = p.attributes['text:style-name'];
    const get = (property: string): string | undefined => this.styles.get('paragraph', style, 'style:paragraph-properties', property);
    const length = (property: string): number => pointsOf(get(property));
    const { look } = this.styles.words([], style, null, false);
    const said = get('fo:line-height');
    // Lines with pictures grow with them; the least that they have is what they have here.
    const pitch = said === 'normal' ? get('style:line-height-at-least') : said;
    const css = [
      `margin:${length('fo:margin-top')}pt ${length('fo:margin-right')}pt ${length('fo:margin-bottom')}pt ${length('fo:margin-left') + room}pt`,
      `text-indent:${length('fo:text-indent') - room}pt`,
      `text-align:${look.align}`,
      ...(pitch ? [`line-height:${pitch.endsWith('%') ? parseFloat(pitch) / 100 : `${pointsOf(pitch)}pt`}`] : []),
      ...(get('style:writing-mode') === 'rl-tb' ? ['direction:rtl'] : []),
      ...(get('fo:background-color')?.startsWith('#') ? [`background:${get('fo:background-color')}`] : []),
      ...(get('fo:border') ? [`border:${get('fo:border')}`] : []),
      this.words(style, []),
    ].join(';');
    const before =
      label === undefined
        ? ''
        : `<span style="display:inline-block;min-width:${room}pt;text-indent:0${sign === undefined ? '' : `;${escape(this.words(style, [sign]))}`}">${escape(label)}</span>`;
    const initial = this.styles.hasInitial(style) ? ' class="begins"' : '';
    return `${this.floats(p)}<p${initial} style="${escape(css)}">${before}${this.inline(p, style, []) || '&#8203;'}</p>`;
  }

  /** Frames that a paragraph runs around stand before it. */
  private floats(p: Node): string {
    return childrenOf(p, 'draw:frame')
      .flatMap((frame) => {
        const body = child(frame, 'draw:text-box');
        const width = pointsOf(frame.attributes['svg:width']);
        return body ? [`<div style="float:right;width:${width}pt;margin:0 0 6pt 12pt">${this.blocks(body)}</div>`] : [];
      })
      .join('');
  }

  /** How words look; `spans`: the styles of single words, innermost first. */
  private words(style: string | undefined, spans: readonly string[]): string {
    const { look } = this.styles.words(spans, style, null, false);
    const own = (property: string): string | undefined =>
      spans.map((s) => this.styles.get('text', s, 'style:text-properties', property)).find((v) => v !== undefined) ??
      this.styles.get('paragraph', style, 'style:text-properties', property);
    const raised = look.position !== 'normal';
    const lines = [look.underline && 'underline', look.strike && 'line-through'].filter(Boolean).join(' ');
    return [
      `font-family:'${look.family.replace(/'/g, '')}',sans-serif`,
      `font-size:${look.size * (raised ? 0.58 : 1)}pt`,
      `font-weight:${look.weight}`,
      `font-style:${look.style}`,
      `letter-spacing:${pointsOf(own('fo:letter-spacing'))}pt`,
      ...(raised ? [`vertical-align:${look.position === 'superscript' ? 'super' : 'sub'}`, 'line-height:0'] : []),
      ...(look.capitals === 'all' ? ['text-transform:uppercase'] : look.capitals === 'small' ? ['font-variant:small-caps'] : []),
      ...(lines ? [`text-decoration:${lines}`] : []),
      ...(look.colour ? [`color:${look.colour}`] : []),
    ].join(';');
  }

  private inline(around: Node, style: string | undefined, spans: readonly string[]): string {
    return (around.content ?? [])
      .map((n) => {
        if (typeof n === 'string') return escape(n.replace(/\s+/g, ' '));
        switch (n.name) {
          case 'text:span': {
            const name = n.attributes['text:style-name'];
            const inside = name === undefined ? spans : [name, ...spans];
            return `<span style="${escape(this.words(style, inside))}">${this.inline(n, style, inside)}</span>`;
          }
          case 'text:a':
            return `<a href="${escape(linkIn(n.attributes['xlink:href'] ?? ''))}" rel="noreferrer">${this.inline(n, style, spans)}</a>`;
          case 'text:s':
            return ' '.repeat(Number(n.attributes['text:c'] ?? 1));
          case 'text:tab':
            return '\t';
          case 'text:line-break':
            return '<br>';
          case 'text:page-number':
            return escape(this.outside.number?.() ?? n.text);
          case 'text:ruby':
            return `<ruby>${this.inline(child(n, 'text:ruby-base') ?? n, style, spans)}<rt>${escape(child(n, 'text:ruby-text')?.text ?? '')}</rt></ruby>`;
          case 'text:note': {
            const number = this.noteTexts.length + 1;
            this.noteTexts.push(`<sup>${number}</sup> ${this.blocks(child(n, 'text:note-body') ?? n)}`);
            return `<sup style="line-height:0">${number}</sup>`;
          }
          case 'text:bookmark':
            // Where pages of the layout begin.
            return `<a id="${escape((n.attributes['text:name'] ?? '').replace(/^pg_/, 'page-'))}"></a>`;
          case 'draw:frame':
            return this.picture(n);
          default:
            return n.name.startsWith('text:') ? this.inline(n, style, spans) : '';
        }
      })
      .join('');
  }

  private picture(frame: Node): string {
    const src = childrenOf(frame, 'draw:image')
      .map((i) => this.outside.picture(i.attributes['xlink:href'] ?? ''))
      .find((s) => s !== undefined);
    const { 'svg:width': width, 'svg:height': height } = frame.attributes;
    const alt = child(frame, 'svg:desc')?.text ?? '';
    return src
      ? `<img src="${src}" alt="${escape(alt)}" style="width:${pointsOf(width)}pt;height:${pointsOf(height)}pt;max-width:100%">`
      : '';
  }

  private table(node: Node): string {
    const widths = childrenOf(node, 'table:table-column').map((c) =>
      pointsOf(this.styles.get('table-column', c.attributes['table:style-name'], 'style:table-column-properties', 'style:column-width')),
    );
    const row = (tr: Node): string => {
      const height = this.styles.get('table-row', tr.attributes['table:style-name'], 'style:table-row-properties', 'style:min-row-height');
      const cells = childrenOf(tr, 'table:table-cell').map((tc) => {
        const get = (property: string): string | undefined =>
          this.styles.get('table-cell', tc.attributes['table:style-name'], 'style:table-cell-properties', property);
        const css = ['top', 'right', 'bottom', 'left'].flatMap((side) => [
          `padding-${side}:${pointsOf(get(`fo:padding-${side}`) ?? get('fo:padding'))}pt`,
          ...((get(`fo:border-${side}`) ?? get('fo:border')) ? [`border-${side}:${get(`fo:border-${side}`) ?? get('fo:border')}`] : []),
        ]);
        const fill = get('fo:background-color');
        if (fill && fill !== 'transparent') css.push(`background:${fill}`);
        if (get('style:vertical-align')) css.push(`vertical-align:${get('style:vertical-align')}`);
        const [rows, columns] = [tc.attributes['table:number-rows-spanned'] ?? 1, tc.attributes['table:number-columns-spanned'] ?? 1];
        return `<td rowspan="${Number(rows)}" colspan="${Number(columns)}" style="${escape(css.join(';'))}">${this.blocks(tc)}</td>`;
      });
      return `<tr style="height:${pointsOf(height)}pt">${cells.join('')}</tr>`;
    };
    const rows = node.children.flatMap((part) => {
      if (part.name === 'table:table-row') return [row(part)];
      return part.name === 'table:table-header-rows' ? childrenOf(part, 'table:table-row').map(row) : [];
    });
    return `<table><colgroup>${widths.map((w) => (w ? `<col style="width:${w}pt">` : '<col>')).join('')}</colgroup>${rows.join('')}</table>`;
  }
}
