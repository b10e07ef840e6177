import { transitionFrames } from './keyframes.ts';
import type { GoTo } from './program.ts';
import { eventForKey, eventForSwipe, start, step } from './state.ts';
import type { Event as PlayerEvent, State } from './state.ts';
import { isCalm, pauseButton } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';

const EDITABLE = 'input,select,textarea,button,[contenteditable],video,audio';

export interface PagesOnScreen {
  go(to: GoTo): void;
}

/** Keys and swipes go from page to page, the page in view is followed; pages come by their transition and go on by themselves. */
export function playPages(s: Surroundings): PagesOnScreen {
  const { doc, program, conductor } = s;
  const pages = program.pages.map((id) => doc.getElementById(id)).filter((e): e is HTMLElement => e !== null);
  let state: State = start(pages.length);
  const before: number[] = [];
  let timer = 0;
  /** On the way to a page, those in between are passed, not shown. */
  let onItsWay = 0;
  let stopped = isCalm();

  const moved = (from: State): void => {
    if (state.page === from.page) return;
    conductor.page(pages[from.page]!.id, false);
    conductor.page(pages[state.page]!.id, true);
    wait();
  };
  const jump = (page: number, remember = true): void => {
    const from = state;
    state = step(state, { type: 'seen', page });
    if (state === from) return;
    if (remember) before.push(from.page);
    const target = pages[state.page]!;
    const transition = program.transitions[target.id];
    const calm = isCalm();
    clearTimeout(onItsWay);
    onItsWay = window.setTimeout(arrived, 1500);
    target.scrollIntoView({ behavior: calm || transition ? 'auto' : 'smooth', block: 'start', inline: 'start' });
    if (transition && !calm) target.animate(transitionFrames(transition), { duration: transition.seconds * 1000, easing: 'ease-in-out' });
    moved(from);
  };
  const arrived = (): void => {
    clearTimeout(onItsWay);
    onItsWay = 0;
  };
  doc.addEventListener('scrollend', arrived);
  const by = (event: PlayerEvent): void => jump(step(state, event).page);

  // Pages that go on by themselves can be stopped (WCAG 2.2, 2.2.2).
  const wait = (): void => {
    clearTimeout(timer);
    const seconds = program.advance[pages[state.page]!.id];
    if (seconds === undefined || stopped || doc.hidden) return;
    timer = window.setTimeout(() => {
      if (state.page < pages.length - 1) jump(state.page + 1);
      else if (program.loop) jump(0);
    }, seconds * 1000);
  };
  if (pages.length && Object.keys(program.advance).length) {
    const toggle = (): boolean => {
      stopped = !stopped;
      wait();
      return stopped;
    };
    doc.body.prepend(pauseButton(doc, 'hold', program.words, stopped, toggle));
    doc.addEventListener('visibilitychange', wait);
  }

  // Where this is one page of a book, the reading program turns the pages.
  if (pages.length > 1) turn(doc, by);

  const ratio = new Map<Element, number>();
  const watcher = new IntersectionObserver(
    (entries) => {
      // Pages may lie below one another or side by side.
      for (const e of entries) ratio.set(e.target, e.intersectionRect.height * e.intersectionRect.width);
      let best = state.page;
      pages.forEach((p, i) => {
        if ((ratio.get(p) ?? 0) > (ratio.get(pages[best]!) ?? 0)) best = i;
      });
      if (onItsWay) return;
      const from = state;
      state = step(state, { type: 'seen', page: best });
      moved(from);
    },
    { threshold: [0, 0.25, 0.5, 0.75, 1] },
  );
  for (const p of pages) watcher.observe(p);
  if (pages.length) {
    conductor.page(pages[0]!.id, true);
    wait();
  }
  return {
    go(to) {
      if (to === 'back') {
        const page = before.pop();
        if (page !== undefined) jump(page, false);
      } else if (typeof to === 'string') by({ type: to });
      else if ('page' in to) {
        const page = pages.findIndex((p) => p.id === to.page);
        if (page >= 0) jump(page);
        else location.href = to.page;
      } else if (to.newWindow) window.open(to.href, '_blank', 'noopener');
      else location.href = to.href;
    },
  };
}

/** Keys and swipes that go from page to page. */
function turn(doc: Document, by: (event: PlayerEvent) => void): void {
  doc.addEventListener('keydown', (e) => {
    const target = e.target as Element | null;
    if (e.altKey || e.ctrlKey || e.metaKey || e.shiftKey || e.defaultPrevented || target?.closest(EDITABLE)) return;
    const event = eventForKey(e.key);
    if (!event) return;
    e.preventDefault();
    by(event);
  });

  let touch: { x: number; y: number; at: number } | null = null;
  doc.addEventListener(
    'touchstart',
    (e) => {
      const t = e.touches[0]!;
      const own = (e.target as Element | null)?.closest('[data-swipe],.cloth');
      touch = e.touches.length === 1 && !own ? { x: t.clientX, y: t.clientY, at: e.timeStamp } : null;
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
      if (event) by(event);
    },
    { passive: true },
  );
}
