import { Conductor } from './conductor.ts';
import type { Hands } from './conductor.ts';
import { playFields } from './fields.ts';
import { animationFrames } from './keyframes.ts';
import { playPages } from './pages.ts';
import type { PagesOnScreen } from './pages.ts';
import type { Program, When } from './program.ts';
import { isPlain } from './reading/plain.ts';
import { playReading } from './reading/playReading.ts';
import { isCalm } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';
import { playSwitcher } from './switchers.ts';
import { playVeil } from './veils.ts';

/** Brings a document to life by its program. What has no element is passed over: nothing here can fail the page. */
export function play(program: Program, doc: Document): void {
  const elements = new Map<string, HTMLElement[]>();
  for (const e of doc.querySelectorAll<HTMLElement>('[data-item]')) {
    const list = elements.get(e.dataset.item!);
    if (list) list.push(e);
    else elements.set(e.dataset.item!, [e]);
  }
  const elementsOf = (item: string): HTMLElement[] => elements.get(item) ?? [];
  const mediaOf = (item: string): HTMLMediaElement | undefined =>
    elementsOf(item)
      .map((e) => e.querySelector<HTMLMediaElement>('video,audio'))
      .find((m) => m !== null) ?? undefined;
  const found: { pages?: PagesOnScreen } = {};
  const switchers = new Map<string, ReturnType<typeof playSwitcher>>();
  const hands: Hands = {
    go: (to) => found.pages?.go(to),
    card: (switcher, index, forward) => switchers.get(switcher)?.show(index, forward),
    seen: (item, isSeen) => elementsOf(item).forEach((e) => e.classList.toggle('unseen', !isSeen)),
    media(item, what, seconds) {
      const media = mediaOf(item);
      if (!media) return;
      if (what === 'seek') media.currentTime = seconds;
      // A browser that does not let it sound without a press leaves it still.
      else if (what === 'play') void media.play().catch(() => undefined);
      else media.pause();
      if (what === 'stop') media.currentTime = 0;
    },
    open: (href) => void window.open(href, '_blank', 'noopener'),
    print: () => print(),
    reset: () => fields.reset(),
    send: (href) => fields.send(href),
    animate({ items, seconds, easing, again, ...how }) {
      if (isCalm()) return;
      for (const item of items)
        for (const e of elementsOf(item))
          e.animate(animationFrames(how), { duration: seconds * 1000, easing, iterations: again ? Infinity : 1 });
    },
    later: (seconds, run) => void setTimeout(run, seconds * 1000),
  };
  const conductor = new Conductor(program, hands);
  const s: Surroundings = { program, doc, conductor, elementsOf };
  doc.documentElement.classList.add('played');
  if (isPlain(doc)) doc.documentElement.classList.add('plain');
  for (const item of program.hidden) hands.seen(item, false);
  for (const [id, about] of Object.entries(program.switchers)) switchers.set(id, playSwitcher(id, about, s));
  for (const [id, about] of Object.entries(program.veils)) playVeil(id, about, s);
  const fields = playFields(s);
  bind(s);
  found.pages = playPages(s);
  if (program.reading) playReading(s, program.reading, found.pages);
}

/** Lets what happens to elements begin the cues that wait for it. */
function bind({ program, doc, conductor, elementsOf }: Surroundings): void {
  const events: Partial<Record<When, string[]>> = { pointerOver: ['pointerenter'], pointerOut: ['pointerleave'], focus: ['focusin'] };
  for (const area of doc.querySelectorAll<HTMLElement>('[data-press]')) {
    const on = area.dataset.press!;
    // What would do nothing is no button.
    if (conductor.waitsFor(on, 'press')) area.hidden = false;
    area.addEventListener('click', () => conductor.raise(on, 'press'));
  }
  for (const { on, when } of program.cues)
    for (const e of new Set([...elementsOf(on), ...doc.querySelectorAll<HTMLElement>(`[data-press="${CSS.escape(on)}"]`)])) {
      const once = `on${when}`;
      if (once in e.dataset) continue;
      e.dataset[once] = '';
      for (const name of events[when] ?? []) e.addEventListener(name, () => conductor.raise(on, when));
      // What is pointed at can be stepped to as well.
      if (when === 'pointerOver') e.addEventListener('focusin', () => conductor.raise(on, when));
      if (when === 'pointerOut') e.addEventListener('focusout', () => conductor.raise(on, when));
      if (when === 'mediaEnded') e.querySelector('video,audio')?.addEventListener('ended', () => conductor.raise(on, when));
    }
}
