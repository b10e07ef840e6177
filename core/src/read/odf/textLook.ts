import { integerOf, lengthOf } from './lengths.ts';
import { roomForText } from './roomForText.ts';
import type { TextRoom } from './roomForText.ts';
import type { StyleSheet } from './styleSheet.ts';
import type { TextContext, TextStyle } from './textReader.ts';
import { childOf, findInside } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;

const VERTICAL: Record<string, TextRoom['verticalAlign']> = { middle: 'centre', bottom: 'bottom', justify: 'justify' };

/**
 * How text stands in its frame, and the room it gets: `seen` is whether the frame itself shows, `chained` whether its text goes
 * on from or to another, which more room would move.
 */
export function textLook(
  context: Pick<TextContext, 'sheet' | 'notTaken'>,
  element: XmlElement,
  style: TextStyle,
  graphic: Attributes,
  place: Pick<TextRoom, 'size' | 'transform'>,
  { seen, chained }: { seen: boolean; chained: boolean },
) {
  const { insets, align, wraps, columns } = saidOf(graphic, context.sheet, style);
  const side = sideOf(context.sheet, element, style, graphic);
  const count = columns?.count ?? 1;
  const fit = graphic['draw:fit-to-size'];
  if (fit === 'true' || fit === 'all') context.notTaken.add('changed', 'Text stretched to its frame', 'it is set in its own size');
  return {
    ...(chained || count > 1
      ? { ...place, inset: insets, verticalAlign: align }
      : roomForText({ ...place, inset: insets, verticalAlign: align }, seen, wraps, side)),
    ...(count > 1 && count <= 40 && { columns: count, gutter: columns!.gutter }),
    ...((fit === 'shrink-to-fit' || graphic['style:shrink-to-fit'] === 'true') && { shrinkToFit: true }),
  };
}

interface Said {
  insets: TextRoom['inset'];
  align: TextRoom['verticalAlign'];
  wraps: boolean;
  columns: { count: number; gutter: number } | undefined;
}
/** Graphic properties are one object for all that hang on one style. */
const known = new WeakMap<Attributes, Said>();

/** What a shape's style alone says of the text in it. */
function saidOf(graphic: Attributes, sheet: StyleSheet, style: TextStyle): Said {
  let said = known.get(graphic);
  if (!said) {
    const inset = (side: string): number => Math.max(0, lengthOf(graphic[`fo:padding-${side}`] ?? graphic['fo:padding']) ?? 0);
    const columns = childOf(
      sheet
        .chain(style.family, style.name, style.scope)
        .map((s) => childOf(s.element, 'style:graphic-properties'))
        .find((g) => g && childOf(g, 'style:columns')),
      'style:columns',
    )?.attributes;
    said = {
      insets: [inset('top'), inset('right'), inset('bottom'), inset('left')],
      align: VERTICAL[graphic['draw:textarea-vertical-align'] ?? ''] ?? 'top',
      wraps: graphic['fo:wrap-option'] !== 'no-wrap' && graphic['draw:auto-grow-width'] !== 'true',
      columns: columns && { count: integerOf(columns['fo:column-count']) ?? 1, gutter: lengthOf(columns['fo:column-gap']) ?? 0 },
    };
    known.set(graphic, said);
  }
  return said;
}

/** The side that lines begin at: as the first paragraph says, or the shape. */
function sideOf(sheet: StyleSheet, element: XmlElement, style: TextStyle, graphic: Attributes): 'left' | 'centre' | 'right' {
  const first = findInside(element, 'text:p') ?? findInside(element, 'text:h');
  const own = first?.attributes['text:style-name'] ?? element.attributes['draw:text-style-name'];
  const align =
    sheet.resolve('paragraph', own, style.scope)['paragraph']?.['fo:text-align'] ??
    sheet.resolve(style.family, style.name, style.scope)['paragraph']?.['fo:text-align'] ??
    graphic['draw:textarea-horizontal-align'];
  return align === 'center' ? 'centre' : align === 'end' || align === 'right' ? 'right' : 'left';
}
