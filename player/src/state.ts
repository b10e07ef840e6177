/** Where the reader is: the index of the page most in view. */
export interface State {
  page: number;
  count: number;
}

export type Event = { type: 'next' } | { type: 'previous' } | { type: 'first' } | { type: 'last' } | { type: 'seen'; page: number };

export const start = (count: number): State => ({ page: 0, count });

/** The next state; pure, so that it can be tested without a browser. Never leaves the publication. */
export function step(state: State, event: Event): State {
  const target = {
    next: state.page + 1,
    previous: state.page - 1,
    first: 0,
    last: state.count - 1,
    seen: event.type === 'seen' ? event.page : 0,
  }[event.type];
  const page = Math.min(Math.max(0, target), Math.max(0, state.count - 1));
  return page === state.page ? state : { ...state, page };
}

/** What a key asks for. Keys that browsers scroll by are left to them, but where one page is in sight at a time. */
export function eventForKey(key: string, isOne = false): Event | null {
  const events: Record<string, Event> = {
    ArrowRight: { type: 'next' },
    ArrowLeft: { type: 'previous' },
    Home: { type: 'first' },
    End: { type: 'last' },
  };
  const scrolling: Record<string, Event> = {
    PageDown: { type: 'next' },
    PageUp: { type: 'previous' },
    ArrowDown: { type: 'next' },
    ArrowUp: { type: 'previous' },
    ' ': { type: 'next' },
  };
  return events[key] ?? (isOne ? (scrolling[key] ?? null) : null);
}

/** A sideways swipe: mostly horizontal, longer than 48 px and done within 0.6 s (common practice). */
export function eventForSwipe(dx: number, dy: number, ms: number): Event | null {
  if (ms > 600 || Math.abs(dx) < 48 || Math.abs(dx) < 2 * Math.abs(dy)) return null;
  return { type: dx < 0 ? 'next' : 'previous' };
}
