import type { Page } from '../../folio/spread.ts';

/** Transitions as SMIL types (SMIL 3.0, 12.4; OpenDocument 1.3 part 3, 19.397): those of a style that both have. */
export function transitionOf({ transition: t, advanceAfter }: Page): Record<string, string> {
  const out: Record<string, string> = {};
  if (advanceAfter !== undefined)
    Object.assign(out, { 'presentation:transition-type': 'automatic', 'presentation:duration': `PT${advanceAfter}S` });
  if (!t) return out;
  const side = { 0: 'fromLeft', 90: 'fromBottom', 180: 'fromRight', 270: 'fromTop' }[t.direction] ?? 'fromLeft';
  const types: Record<typeof t.style, [type: string, subtype?: string, direction?: string]> = {
    wipe: [
      'barWipe',
      t.direction === 90 || t.direction === 270 ? 'topToBottom' : 'leftToRight',
      t.direction === 180 || t.direction === 90 ? 'reverse' : 'forward',
    ],
    split: ['barnDoorWipe', t.axis === 'horizontal' ? 'horizontal' : 'vertical', t.motion === 'inward' ? 'reverse' : 'forward'],
    box: ['irisWipe', 'rectangle', t.motion === 'inward' ? 'reverse' : 'forward'],
    blinds: ['blindsWipe', t.axis === 'horizontal' ? 'horizontal' : 'vertical'],
    push: ['pushWipe', side],
    cover: ['slideWipe', side, 'forward'],
    uncover: ['slideWipe', side, 'reverse'],
    fly: ['slideWipe', side, 'forward'],
    fade: ['fade', 'crossfade'],
    dissolve: ['dissolve'],
    glitter: ['dissolve'],
  };
  const [type, subtype, direction] = types[t.style];
  return {
    ...out,
    'smil:type': type,
    ...(subtype !== undefined && { 'smil:subtype': subtype }),
    ...(direction !== undefined && { 'smil:direction': direction }),
    'presentation:transition-speed': t.seconds > 1.5 ? 'slow' : t.seconds < 0.75 ? 'fast' : 'medium',
  };
}
