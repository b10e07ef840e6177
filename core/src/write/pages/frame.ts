import type { Embed } from '../../folio/items.ts';
import { px } from '../../paint/html/metrics.ts';
import { attrs, num } from '../../paint/svg/markup.ts';

/** Web content that can be shown inside a page: its address, and its own size in px where it has one. */
export interface Frame {
  src: string;
  size?: { width: number; height: number };
}

/** A frame of its own, which can reach neither the page around it nor anything that other pages keep. */
export function frameMarkup(item: Embed, frame: Frame): string {
  return `<iframe${attrs({
    src: frame.src,
    title: item.alt || item.name || frame.src,
    sandbox: 'allow-scripts allow-forms allow-popups',
    loading: 'lazy',
    // What can be read only with a program, others must be able to push: our own editions hide their bars themselves.
    scrolling: item.scrolling || frame.size ? undefined : 'no',
    referrerpolicy: 'no-referrer',
    style: item.scale === 'fit' && frame.size ? fitted(item, frame.size) : undefined,
  })}></iframe>`;
}

/** Content of a size of its own, made as large as the box lets it be, in the middle. */
function fitted({ size }: Embed, own: { width: number; height: number }): string {
  const [width, height] = [px(size.width), px(size.height)];
  const scale = Math.min(width / own.width, height / own.height);
  const [left, top] = [(width - own.width * scale) / 2, (height - own.height * scale) / 2];
  return `left:${num(left)}px;top:${num(top)}px;bottom:auto;width:${num(own.width)}px;height:${num(own.height)}px;transform:scale(${num(scale, 5)});transform-origin:0 0`;
}
