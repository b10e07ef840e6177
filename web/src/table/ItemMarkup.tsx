import { memo, useLayoutEffect, useRef } from 'react';
import type { PaintedItem } from '@elastic-folio/core/paint';

/**
 * Markup of an item as the typesetter painted it. A keystroke changes a few lines of a text that may have
 * hundreds: only those are put in anew, so that the browser draws only them again.
 */
export const ItemMarkup = memo(function ItemMarkup({ svg, lines }: Omit<PaintedItem, 'item'>) {
  const host = useRef<SVGGElement>(null);
  const shown = useRef<{ svg: string; lines: string[] | undefined; holder: Element | null }>({ svg: '', lines: undefined, holder: null });
  useLayoutEffect(() => {
    const { current } = shown;
    if (current.svg !== svg) {
      host.current!.innerHTML = svg;
      shown.current = { svg, lines: [], holder: host.current!.querySelector('.lines') };
    }
    const { holder, lines: before = [] } = shown.current;
    if (holder && lines) takeLines(holder, before, lines);
    shown.current.lines = lines;
  }, [svg, lines]);
  return <g ref={host} />;
});

/** Makes the lines of a text others, leaving alone what is equal. */
function takeLines(holder: Element, before: readonly string[], lines: readonly string[]): void {
  lines.forEach((line, i) => {
    if (before[i] === line) return;
    const g = holder.ownerDocument.createElementNS('http://www.w3.org/2000/svg', 'g');
    g.innerHTML = line;
    const old = holder.children[i];
    if (old) old.replaceWith(g);
    else holder.append(g);
  });
  while (holder.children.length > lines.length) holder.lastElementChild!.remove();
}
