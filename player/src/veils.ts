import { flakeKey, flakesAlong } from './flakesAlong.ts';
import type { Veil } from './program.ts';
import { button, isCalm } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';

/** Covers a place with flakes, which lift off under pointer, finger or the arrow keys; a button lifts all. */
export function playVeil(id: string, about: Veil, s: Surroundings): void {
  const [box] = s.elementsOf(id);
  if (!box) return;
  const { doc } = s;
  const flakes = new Map<string, HTMLElement>();
  const cloth = doc.createElement('div');
  cloth.className = 'cloth';
  cloth.style.clipPath = `path('${about.clip}')`;
  cloth.style.setProperty('--fill', about.fill);
  about.rows.forEach((columns, row) => {
    for (const column of columns) {
      const flake = doc.createElement('i');
      flake.dataset.at = flakeKey(column, row);
      const [x, y] = [column * about.pitch, row * about.pitch];
      flake.style.cssText = `left:${x}px;top:${y}px`;
      if (about.cover) {
        const { src, each, width, height } = about.cover;
        flake.style.backgroundImage = `url("${src}")`;
        flake.style.backgroundSize = each ? '100% 100%' : `${width}px ${height}px`;
        if (!each) flake.style.backgroundPosition = `${-x}px ${-y}px`;
      }
      flakes.set(flake.dataset.at, flake);
      cloth.append(flake);
    }
  });
  // Flakes overlap by a whole pixel of the screen at least, however small the page is shown: then no seam lets light through.
  const fit = (): void => {
    const scale = (window.devicePixelRatio * box.getBoundingClientRect().width) / (box.offsetWidth || 1) || 1;
    cloth.style.setProperty('--size', `${Math.max(about.size, about.pitch + 1 / scale)}px`);
  };
  fit();
  addEventListener('resize', fit);

  const total = flakes.size;
  const lift = (key: string): void => {
    const flake = flakes.get(key);
    if (!flake) return;
    flakes.delete(key);
    if (about.lift === 'cut' || isCalm()) flake.remove();
    else {
      flake.className = 'up';
      flake.addEventListener('transitionend', () => flake.remove());
    }
  };
  const liftAll = (): void => {
    for (const key of [...flakes.keys()]) lift(key);
    removeEventListener('resize', fit);
    const had = box.contains(doc.activeElement);
    all.remove();
    if (had) box.focus();
    box.classList.add('lifted');
  };
  const lifted = (keys: readonly string[]): void => {
    keys.forEach(lift);
    if (flakes.size && total - flakes.size >= about.rest * total) liftAll();
    else if (!flakes.size && all.isConnected) liftAll();
  };

  let last: { x: number; y: number } | null = null;
  const pointed = (e: PointerEvent): void => {
    const flake = e.target as HTMLElement;
    if (!flake.dataset.at) return;
    const [column, row] = flake.dataset.at.split(',').map(Number) as [number, number];
    const here = { x: column * about.pitch + e.offsetX, y: row * about.pitch + e.offsetY };
    lifted([flake.dataset.at, ...flakesAlong(about, last ?? here, here)]);
    last = here;
  };
  cloth.addEventListener('pointerdown', (e) => {
    // A finger holds what it touched first; let go, it moves over the others.
    (e.target as Element).releasePointerCapture?.(e.pointerId);
    pointed(e);
  });
  cloth.addEventListener('pointerover', pointed);
  cloth.addEventListener('pointermove', pointed);
  cloth.addEventListener('pointerleave', () => (last = null));

  // By keys: a place that is stepped to is lifted, as under the pointer.
  let [column, row] = [
    about.rows.find((r) => r.length)?.[0] ?? 0,
    Math.max(
      0,
      about.rows.findIndex((r) => r.length),
    ),
  ];
  box.tabIndex = 0;
  box.addEventListener('keydown', (e) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!step || e.target !== box || !flakes.size) return;
    e.preventDefault();
    e.stopPropagation();
    const wide = Math.max(...about.rows.map((r) => (r.at(-1) ?? 0) + 1));
    column = Math.min(wide - 1, Math.max(0, column + step[0]!));
    row = Math.min(about.rows.length - 1, Math.max(0, row + step[1]!));
    lifted([flakeKey(column, row)]);
  });
  const all = button(doc, 'lift', about.action, about.action, liftAll);
  box.append(cloth, all);
  box.classList.add('alive');
}
