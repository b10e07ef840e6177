import { transitionFrames } from './keyframes.ts';
import type { GoTo, Reading } from './program.ts';
import { isPlain } from './reading/plain.ts';
import { liftLeaf } from './reading/leaf.ts';
import { eventForKey, eventForSwipe, start, step } from './state.ts';
import type { Event as PlayerEvent, State } from './state.ts';
import { isCalm, pauseButton } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';

const EDITABLE = 'input,select,textarea,button,[contenteditable],video,audio';

export interface PagesOnScreen {
  go(to: GoTo): void;
  /** Goes to a page of this file, by its place in it. */
  jump(page: number): void;
  /** Calls with the page in view: now, and whenever it is another. */
  onShown(told: (page: number) => void): void;
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

  const listeners: ((page: number) => void)[] = [];
  const moved = (from: State): void => {
    if (state.page === from.page) return;
    for (const told of listeners) told(state.page);
    conductor.page(pages[from.page]!.id, false);
    conductor.page(pages[state.page]!.id, true);
    wait();
  };
  const reading = program.reading;
  const spread = (page: HTMLElement): Element => page.closest('.slot') ?? page;
  const jump = (page: number, remember = true): void => {
    const from = state;
    state = step(state, { type: 'seen', page });
    if (state === from) return;
    if (remember) before.push(from.page);
    const target = pages[state.page]!;
    const calm = isCalm();
    const leaf = !calm && reading?.form === 'spreads' && Math.abs(state.page - from.page) <= 2 && !isPlain(doc);
    const transition = leaf ? undefined : program.transitions[target.id];
    const old = pages[from.page]!;
    const turned = leaf && spread(old) !== spread(target) ? liftLeaf(spread(old), state.page > from.page) : null;
    clearTimeout(onItsWay);
    onItsWay = window.setTimeout(arrived, 1500);
    // Where one page is in sight at a time, all of its room comes with it.
    const seen = reading && ONE_AT_A_TIME.has(reading.form) && !isPlain(doc) ? spread(target) : target;
    bringIntoView(seen, calm || transition || leaf ? 'auto' : 'smooth');
    turned?.(spread(target));
    if (transition && !calm) target.animate(transitionFrames(transition), { duration: transition.seconds * 1000, easing: 'ease-in-out' });
    moved(from);
  };
  const arrived = (): void => {
    clearTimeout(onItsWay);
    onItsWay = 0;
  };
  doc.addEventListener('scrollend', arrived);
  const by = (event: PlayerEvent): void => {
    const to = step(state, event);
    if (to !== state) return jump(reading?.form === 'spreads' ? past(state.page, to.page) : to.page);
    // At the end of a file, the next one goes on; at its beginning, the one before.
    const file = event.type === 'next' ? reading?.next : event.type === 'previous' ? reading?.previous : undefined;
    if (file !== undefined) location.href = file;
  };
  /** Of spreads, a step leads to another spread, not to the page that is in sight already. */
  const past = (from: number, to: number): number => {
    const way = Math.sign(to - from);
    while (pages[to + way] && spread(pages[to]!) === spread(pages[from]!)) to += way;
    return to;
  };

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
  if (pages.length > 1 || reading) turn(doc, by, reading);

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
  // Where one page is in sight at a time, the one that the address asks for is come to at once, whatever has not been laid out yet.
  const asked = pages.findIndex((p) => `#${p.id}` === doc.location.hash);
  if (asked > 0 && reading && ONE_AT_A_TIME.has(reading.form) && !isPlain(doc)) {
    state = step(state, { type: 'seen', page: asked });
    bringIntoView(spread(pages[asked]!), 'auto');
  }
  if (pages.length) {
    conductor.page(pages[state.page]!.id, true);
    wait();
  }
  return {
    jump: (page) => jump(page),
    onShown(told) {
      listeners.push(told);
      told(state.page);
    },
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

/** Scrolls a page into sight. Inside a frame only what is in it moves: browsers would move the page around the frame as well. */
function bringIntoView(page: Element, behavior: ScrollBehavior): void {
  if (window.top === window) return page.scrollIntoView({ behavior, block: 'start', inline: 'start' });
  const root = document.documentElement;
  const main = page.closest('main');
  const holder = main && getComputedStyle(main).overflowX !== 'visible' ? main : root;
  const at = page.getBoundingClientRect();
  const room =
    holder === root ? { left: 0, top: Number.parseFloat(getComputedStyle(root).scrollPaddingTop) || 0 } : holder.getBoundingClientRect();
  // To a place, not by a way: what is still moving would add its own.
  holder.scrollTo({ left: holder.scrollLeft + at.left - room.left, top: holder.scrollTop + at.top - room.top, behavior });
}

/** Keys, swipes and the wheel, as far as they go from page to page. */
function turn(doc: Document, by: (event: PlayerEvent) => void, reading: Reading | undefined): void {
  const turnsBy = reading?.turnsBy ?? ['keys', 'swipe'];
  const isOne = reading !== undefined && ONE_AT_A_TIME.has(reading.form) && !isPlain(doc);
  if (turnsBy.includes('keys')) byKeys(doc, by, isOne);
  if (turnsBy.includes('swipe')) bySwipe(doc, by);
  if (turnsBy.includes('wheel') && isOne) byWheel(doc, by);
}

const ONE_AT_A_TIME = new Set<Reading['form']>(['slides', 'slidesDown', 'spreads']);

/** A page that is larger than its room is moved about in it, and not turned. */
const hasRest = (slot: Element | null | undefined, down: boolean): boolean => {
  if (!slot) return false;
  const rest = down ? slot.scrollHeight - slot.clientHeight - slot.scrollTop : slot.scrollTop;
  return rest > 1;
};

function byKeys(doc: Document, by: (event: PlayerEvent) => void, isOne: boolean): void {
  doc.addEventListener('keydown', (e) => {
    const target = e.target as Element | null;
    if (e.altKey || e.ctrlKey || e.metaKey || e.shiftKey || e.defaultPrevented || target?.closest(EDITABLE)) return;
    const event = eventForKey(e.key, isOne);
    const slot = doc.elementFromPoint(innerWidth / 2, innerHeight / 2)?.closest('.slot');
    if (!event || (eventForKey(e.key) === null && hasRest(slot, event.type === 'next'))) return;
    e.preventDefault();
    by(event);
  });
}

/** One turn of the wheel, or one stroke on a touch pad, is one page: what it sends within so many milliseconds belongs together. */
const STROKE_MS = 350;
function byWheel(doc: Document, by: (event: PlayerEvent) => void): void {
  let last = -Infinity;
  doc.addEventListener(
    'wheel',
    (e) => {
      const way = Math.abs(e.deltaY) >= Math.abs(e.deltaX) ? e.deltaY : 0;
      const target = e.target as Element | null;
      if (!way || e.ctrlKey || hasRest(target?.closest('.slot'), way > 0) || target?.closest('.bar')) return;
      e.preventDefault();
      if (e.timeStamp - last > STROKE_MS) by({ type: way > 0 ? 'next' : 'previous' });
      last = e.timeStamp;
    },
    { passive: false },
  );
}

function bySwipe(doc: Document, by: (event: PlayerEvent) => void): void {
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
