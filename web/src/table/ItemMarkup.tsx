import { memo, useLayoutEffect, useRef } from 'react';

/**
 * Markup of an item as the typesetter painted it. A keystroke changes a few lines of a text that may have
 * hundreds: only what differs is put in anew, so that the browser draws only that again.
 */
export const ItemMarkup = memo(function ItemMarkup({ svg }: { svg: string }) {
  const host = useRef<SVGGElement>(null);
  useLayoutEffect(() => {
    const g = host.current!;
    if (!g.firstChild) {
      g.innerHTML = svg;
      return;
    }
    const fresh = g.cloneNode(false) as SVGGElement;
    fresh.innerHTML = svg;
    takeOver(g, fresh);
  }, [svg]);
  return <g ref={host} />;
});

/** Makes the children of one element those of another, leaving alone what is equal. */
function takeOver(old: Element, fresh: Element): void {
  const wanted = [...fresh.childNodes];
  wanted.forEach((next, i) => {
    const now = old.childNodes[i];
    if (!now) old.append(next);
    else if (now.isEqualNode(next)) return;
    else if (isItem(now) && isItem(next) && now.cloneNode(false).isEqualNode(next.cloneNode(false))) takeOver(now, next);
    else now.replaceWith(next);
  });
  while (old.childNodes.length > wanted.length) old.lastChild!.remove();
}

const isItem = (node: Node): node is Element => node instanceof Element && node.hasAttribute('data-item');
