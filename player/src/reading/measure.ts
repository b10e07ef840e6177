import type { Measuring } from '../program.ts';
import type { PagesOnScreen } from '../pages.ts';
import type { Surroundings } from '../surroundings.ts';

type Kind = Measuring['kinds'][number];
interface Happened {
  kind: Kind;
  at: number;
  page: number;
  what?: string;
}

/** What has happened within so many milliseconds is sent together. */
const WITHIN_MS = 8000;
/** More of one visit is not of use to anybody. */
const MOST = 2000;

/** Asks the reader once whether the publisher may know what is read; sends nothing before a yes, and stops with a no. */
export function playMeasuring({ doc, program }: Surroundings, m: Measuring, before: number, screen: PagesOnScreen): void {
  const place = `measuring of ${program.name}`;
  let answer: 'yes' | 'no' | null = null;
  try {
    const kept = localStorage.getItem(place);
    answer = kept === 'yes' || kept === 'no' ? kept : null;
  } catch {
    // Where nothing is kept, it is asked again.
  }
  // A reader whose browser says so for all sites has answered (Global Privacy Control).
  if ((navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl) answer = 'no';

  const visit = Array.from(crypto.getRandomValues(new Uint8Array(8)), (n) => n.toString(36).padStart(2, '0'))
    .join('')
    .slice(0, 16);
  const began = performance.now();
  let queue: Happened[] = [];
  let count = 0;
  let page = before + 1;
  const note = (kind: Kind, what?: string): void => {
    if (answer !== 'yes' || !m.kinds.includes(kind) || ++count > MOST) return;
    const text = what?.trim().slice(0, 300);
    if (!queue.length) setTimeout(send, WITHIN_MS);
    queue.push({ kind, at: Math.round(performance.now() - began), page, ...(text && { what: text }) });
  };
  const send = (): void => {
    if (!queue.length) return;
    const body = JSON.stringify({
      id: m.id,
      visit,
      title: doc.title.slice(0, 500),
      language: doc.documentElement.lang,
      events: queue.splice(0, 200),
    });
    // Nothing waits for the answer: a collector that hangs hangs alone. As plain text it is sent without asking first.
    try {
      navigator.sendBeacon(m.at, new Blob([body], { type: 'text/plain' }));
    } catch {
      queue = [];
    }
    if (queue.length) setTimeout(send, WITHIN_MS);
  };
  doc.addEventListener('visibilitychange', () => doc.hidden && send());
  addEventListener('pagehide', send);

  screen.onShown((shown) => {
    // Of a spread, all pages are seen.
    const slot = doc.getElementById(program.pages[shown]!)?.closest('.slot');
    const seen = program.pages.flatMap((id, i) => (i === shown || (slot && doc.getElementById(id)?.closest('.slot') === slot) ? [i] : []));
    for (const i of seen) {
      page = before + i + 1;
      note('page');
    }
    page = before + shown + 1;
  });
  doc.addEventListener('click', (e) => {
    const link = (e.target as Element).closest<HTMLAnchorElement>('a[href]');
    if (link && link.origin !== location.origin) note('link', link.href);
  });
  doc.addEventListener('play', (e) => note('media', nameOf(e.target as Element)), true);
  doc.addEventListener('change', (e) => {
    const control = e.target as HTMLInputElement;
    if (control.dataset['field'] !== undefined) note('form', control.name);
    else if (control.dataset['do'] === 'search' && control.value.trim()) note('search', control.value);
  });

  const settle = (to: 'yes' | 'no'): void => {
    answer = to;
    if (to === 'no') queue = [];
    try {
      localStorage.setItem(place, to);
    } catch {
      // Then it holds until the page is left.
    }
    show();
    if (to === 'yes') note('page');
  };
  const button = (text: string, to: 'yes' | 'no'): HTMLButtonElement => {
    const b = doc.createElement('button');
    b.type = 'button';
    b.textContent = text;
    b.addEventListener('click', () => settle(to));
    return b;
  };
  const box = doc.createElement('aside');
  doc.body.append(box);
  const show = (): void => {
    // What was agreed to is as easily taken back (GDPR, 7 (3)).
    box.className = answer === null ? 'measuring asks' : 'measuring';
    const text = doc.createElement('p');
    text.textContent = answer === null ? m.words.ask : answer === 'yes' ? m.words.sent : m.words.notSent;
    box.setAttribute('aria-label', m.words.name);
    const { yes, no, stop, start } = m.words;
    box.replaceChildren(
      text,
      ...(answer === null ? [button(yes, 'yes'), button(no, 'no')] : [answer === 'yes' ? button(stop, 'no') : button(start, 'yes')]),
    );
  };
  show();
}

/** A film or sound by what it is called, else by its file. */
const nameOf = (e: Element): string =>
  e.getAttribute('aria-label') || ((e as HTMLMediaElement).currentSrc || e.getAttribute('src') || '').split('/').pop()!;
