import type { Program } from './program.ts';
import { eventForKey, eventForSwipe, start, step } from './state.ts';
import type { Event as PlayerEvent, State } from './state.ts';

const EDITABLE = 'input,select,textarea,button,[contenteditable],video,audio';

/** Connects a program to the page: keys and swipes go from page to page, the page in view is followed. */
export function connect(program: Program, doc: Document): void {
  const pages = program.pages.map((id) => doc.getElementById(id)).filter((e): e is HTMLElement => e !== null);
  if (!pages.length) return;
  let state: State = start(pages.length);

  const go = (event: PlayerEvent): void => {
    const next = step(state, event);
    if (next === state) return;
    state = next;
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    pages[state.page]!.scrollIntoView({ behavior: calm ? 'auto' : 'smooth', block: 'start' });
  };

  doc.addEventListener('keydown', (e) => {
    const target = e.target as Element | null;
    if (e.altKey || e.ctrlKey || e.metaKey || e.shiftKey || e.defaultPrevented || target?.closest(EDITABLE)) return;
    const event = eventForKey(e.key);
    if (!event) return;
    e.preventDefault();
    go(event);
  });

  let touch: { x: number; y: number; at: number } | null = null;
  doc.addEventListener(
    'touchstart',
    (e) => {
      const t = e.touches[0]!;
      touch = e.touches.length === 1 ? { x: t.clientX, y: t.clientY, at: e.timeStamp } : null;
    },
    { passive: true },
  );
  doc.addEventListener(
    'touchend',
    (e) => {
      const t = e.changedTouches[0];
      // A page that has been enlarged by pinching is panned by the finger, not turned.
      const zoomed = (window.visualViewport?.scale ?? 1) > 1.05;
      const event = touch && t && !zoomed ? eventForSwipe(t.clientX - touch.x, t.clientY - touch.y, e.timeStamp - touch.at) : null;
      touch = null;
      if (event) go(event);
    },
    { passive: true },
  );

  const ratio = new Map<Element, number>();
  const watcher = new IntersectionObserver(
    (entries) => {
      for (const e of entries) ratio.set(e.target, e.intersectionRect.height);
      let best = state.page;
      pages.forEach((p, i) => {
        if ((ratio.get(p) ?? 0) > (ratio.get(pages[best]!) ?? 0)) best = i;
      });
      state = step(state, { type: 'seen', page: best });
    },
    { threshold: [0, 0.25, 0.5, 0.75, 1] },
  );
  for (const p of pages) watcher.observe(p);
}
