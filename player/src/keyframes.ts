import type { Animation, Transition } from './program.ts';

type Frames = Record<string, string>[];
type Side = 'left' | 'right' | 'above' | 'below';

const CLOSED: Record<Side, string> = {
  left: 'inset(0 100% 0 0)',
  right: 'inset(0 0 0 100%)',
  above: 'inset(0 0 100% 0)',
  below: 'inset(100% 0 0 0)',
};
const AWAY: Record<Side, string> = {
  left: 'translate(-100%,0)',
  right: 'translate(100%,0)',
  above: 'translate(0,-100%)',
  below: 'translate(0,100%)',
};
const OPEN = 'inset(0)';

/** Where a movement of this direction comes from: 0 is from left to right, then counterclockwise (ISO 32000-1, table 162, Di). */
export const sideOf = (direction: number): Side =>
  (['left', 'below', 'right', 'above'] as const)[Math.round((((direction % 360) + 360) % 360) / 90) % 4]!;

/** A mask of small parts that come one after another. */
const parts = (mask: string, size: string, from: string, to: string): Frames => [
  { maskImage: mask, maskSize: size, '--p': from },
  { maskImage: mask, maskSize: size, '--p': to },
];

/**
 * How a page comes into sight, in the styles of ISO 32000-1, table 162. Stacked pages have nothing below them that an old
 * page could leave, so where the old page moves (uncover), the new one comes by the same movement.
 */
export function transitionFrames({ style, direction, axis, motion }: Transition): Frames {
  const side = sideOf(direction);
  switch (style) {
    case 'fade':
      return [{ opacity: '0' }, { opacity: '1' }];
    case 'wipe':
      return [{ clipPath: CLOSED[side] }, { clipPath: OPEN }];
    case 'push':
    case 'cover':
    case 'uncover':
      return [{ transform: AWAY[side] }, { transform: 'none' }];
    case 'fly':
      return [{ transform: `${AWAY[side]} scale(.6)` }, { transform: 'none' }];
    case 'box':
      return motion === 'outward'
        ? [{ clipPath: 'inset(50%)' }, { clipPath: OPEN }]
        : [
            { transform: 'scale(1.25)', opacity: '0' },
            { transform: 'none', opacity: '1' },
          ];
    case 'split': {
      // `horizontal`: the line along which the page parts lies across (the standard's /Dm /H).
      const shut = axis === 'horizontal' ? 'inset(50% 0)' : 'inset(0 50%)';
      return motion === 'outward'
        ? [{ clipPath: shut }, { clipPath: OPEN }]
        : [
            { clipPath: OPEN, opacity: '0' },
            { clipPath: OPEN, opacity: '1' },
          ];
    }
    case 'blinds':
      return parts(
        `repeating-linear-gradient(${axis === 'horizontal' ? '180deg' : '90deg'},#000 0 var(--p),#0000 var(--p) 12.5%)`,
        '100% 100%',
        '0%',
        '12.5%',
      );
    case 'dissolve':
      return parts('radial-gradient(circle at center,#000 var(--p),#0000 calc(var(--p) + 1px))', '12px 12px', '0px', '9px');
    case 'glitter':
      return parts(
        `linear-gradient(${{ left: 90, below: 0, right: 270, above: 180 }[side]}deg,#000 var(--p),#0000 calc(var(--p) + 20%))`,
        '100% 100%',
        '-20%',
        '100%',
      );
  }
}

/** How an item is animated. */
export function animationFrames({ kind, from }: Pick<Animation, 'kind' | 'from'>): Frames {
  switch (kind) {
    case 'appear':
    case 'fade':
      return [{ opacity: '0' }, {}];
    case 'scale':
      return [{ scale: '0' }, { scale: '1' }];
    case 'moveIn':
      return [{ translate: { left: '-100vw 0', right: '100vw 0', above: '0 -100vh', below: '0 100vh' }[from] }, { translate: '0 0' }];
  }
}

/** How a card leaves and the next one comes, when going on; going back is the other way round. */
export function cardFrames(change: { kind: string; direction: string }, forward: boolean): { old: Frames; young: Frames } | null {
  if (change.kind === 'fade') return { old: [{ opacity: '1' }, { opacity: '0' }], young: [{ opacity: '0' }, { opacity: '1' }] };
  if (change.kind !== 'slide') return null;
  const [x, y] = { left: [-1, 0], right: [1, 0], up: [0, -1], down: [0, 1] }[change.direction] ?? [-1, 0];
  const away = (sign: number): string => `translate(${x! * sign * 100}%,${y! * sign * 100}%)`;
  const by = forward ? 1 : -1;
  return { old: [{ transform: 'none' }, { transform: away(by) }], young: [{ transform: away(-by) }, { transform: 'none' }] };
}
