import { FlakeCloth } from './flakeCloth.ts';
import { flakeKey, flakesAlong } from './flakesAlong.ts';
import type { Veil } from './program.ts';
import { button, isCalm } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';

/** Covers a place with flakes, which lift off under pointer, finger or the arrow keys; a button lifts all. */
export function playVeil(id: string, about: Veil, s: Surroundings): void {
  const [box] = s.elementsOf(id);
  if (!box) return;
  const { doc } = s;
  const cloth = new FlakeCloth(doc, about, box);
  const fit = (): void => cloth.fit();
  addEventListener('resize', fit);

  const total = cloth.left;
  const atOnce = (): boolean => about.lift === 'cut' || isCalm();
  const liftAll = (): void => {
    cloth.lift(cloth.keys(), atOnce());
    cloth.canvas.style.pointerEvents = 'none';
    removeEventListener('resize', fit);
    const had = box.contains(doc.activeElement);
    all.remove();
    if (had) box.focus();
    box.classList.add('lifted');
  };
  const lifted = (keys: readonly string[]): void => {
    cloth.lift(keys, atOnce());
    if (all.isConnected && (!cloth.left || total - cloth.left >= about.rest * total)) liftAll();
  };

  let last: { x: number; y: number } | null = null;
  const pointed = (e: PointerEvent): void => {
    const here = { x: e.offsetX, y: e.offsetY };
    lifted(flakesAlong(about, last ?? here, here));
    last = here;
  };
  const { canvas } = cloth;
  canvas.addEventListener('pointerdown', (e) => {
    // A finger holds what it touched first; let go, it moves over the others.
    canvas.releasePointerCapture?.(e.pointerId);
    pointed(e);
  });
  canvas.addEventListener('pointermove', pointed);
  canvas.addEventListener('pointerleave', () => (last = null));
  canvas.addEventListener('click', (e) => cloth.passPress(e));

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
    if (!step || e.target !== box || !cloth.left) return;
    e.preventDefault();
    e.stopPropagation();
    const wide = Math.max(...about.rows.map((r) => (r.at(-1) ?? 0) + 1));
    column = Math.min(wide - 1, Math.max(0, column + step[0]!));
    row = Math.min(about.rows.length - 1, Math.max(0, row + step[1]!));
    lifted([flakeKey(column, row)]);
  });
  const all = button(doc, 'lift', about.action, about.action, liftAll);
  box.append(canvas, all);
  box.classList.add('alive');
  fit();
}
