import { composedSpread } from '../../compose/anchored.ts';
import type { Item } from '../../folio/items.ts';
import { itemBounds } from '../../folio/traverse.ts';
import { Cancelled } from '../../ports/ports.ts';
import { isCaptionFrame } from '../../structure/figureGroups.ts';
import type { FlowBlock, FlowSection } from '../../structure/flow.ts';
import { PictureEncoder } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { drawnIn, FlowPictures } from './flowPictures.ts';
import type { FlowImage } from './flowPictures.ts';

export interface FigureSettings extends PictureSettings {
  pages: string;
  hiddenLayers: 'in' | 'out';
}

/** Things of running text that are no text: figures, and what stands in lines. */
export function figuresIn(
  { folio, composition }: Pick<WriteJob<unknown>, 'folio' | 'composition'>,
  sections: readonly FlowSection[],
): { item: Item; among: Record<string, Item> }[] {
  const items: { item: Item; among: Record<string, Item> }[] = [];
  const spreads = new Map<string, Record<string, Item>>();
  const among = (spread: string): Record<string, Item> => {
    let known = spreads.get(spread);
    if (!known) spreads.set(spread, (known = composedSpread(folio, composition, folio.spreads[spread]!).items));
    return known;
  };
  const visit = (b: FlowBlock): void => {
    if (b.kind === 'figure') items.push({ item: b.item, among: among(b.spread) });
    else if (b.kind === 'paragraph') {
      for (const { figure } of b.inline) visit(figure);
      for (const node of b.paragraph.content)
        if (node.type === 'anchor' && node.place === 'inline' && b.story.items[node.item])
          items.push({ item: b.story.items[node.item]!, among: b.story.items });
    } else if (b.kind === 'box') b.blocks.forEach(visit);
  };
  for (const s of sections) s.blocks.forEach(visit);
  return items;
}

/** What each of them looks like, and how wide it is in the layout, in points; one after another. */
export async function* drawnFigures(
  job: WriteJob<FigureSettings>,
  items: readonly { item: Item; among: Record<string, Item> }[],
): AsyncGenerator<{ item: Item; image: FlowImage; width: number }> {
  const { folio, composition } = job;
  const encoder = new PictureEncoder(job);
  const { shown } = scopeOf(folio, composition, { ...job.settings, only: '' });
  const maker = new FlowPictures(job, encoder, (item) => shown(item) && !isCaptionFrame(folio, item));
  for (const { item, among } of items) for (const leaf of drawnIn(among, item)) encoder.want(leaf);
  let done = 0;
  for (const { item, among } of items) {
    if (job.signal.aborted) throw new Cancelled();
    const image = await maker.of(among, item);
    if (!image) continue;
    yield { item, image, width: itemBounds(among, item).width };
    job.progress(++done, items.length);
  }
}

/** How wide most lines of the text are set, in points: what pictures’ widths are told against. */
export function usualMeasure({ composition }: Pick<WriteJob<unknown>, 'composition'>): number {
  const counts = new Map<number, number>();
  for (const frame of composition.frames.values())
    for (const line of frame.lines) counts.set(Math.round(line.measure), (counts.get(Math.round(line.measure)) ?? 0) + 1);
  return Math.max(1, [...counts].reduce((a, b) => (b[1] > a[1] ? b : a), [400, 0])[0]);
}
