import { cardFrames } from './keyframes.ts';
import type { Switcher } from './program.ts';
import { eventForSwipe } from './state.ts';
import { button, isCalm, pauseButton } from './surroundings.ts';
import type { Surroundings } from './surroundings.ts';

export interface SwitcherOnPage {
  show(index: number, forward: boolean): void;
}

/** Brings a switcher to life, by the carousel pattern of the ARIA Authoring Practices. */
export function playSwitcher(id: string, about: Switcher, s: Surroundings): SwitcherOnPage | null {
  // A switcher with a look of its own has an element for that as well.
  const box = s.elementsOf(id).find((e) => e.classList.contains('w'));
  const cards = about.cards.map((c) => s.doc.querySelector<HTMLElement>(`[data-card="${CSS.escape(c)}"]`));
  if (!box || cards.some((c) => !c)) return null;
  const { doc, conductor, program } = s;
  const { words } = program;
  box.classList.add('alive');
  box.scrollLeft = 0;
  box.tabIndex = about.controls.keys ? 0 : -1;
  const label = (i: number): string =>
    `${words.of.replace('{n}', String(i + 1)).replace('{all}', String(cards.length))}: ${about.names[i]}`;
  const status = doc.createElement('span');
  status.className = 'said';
  status.setAttribute('role', 'status');

  let now = conductor.cardOf(id);
  const mark = (): void => {
    cards.forEach((c, i) => c!.classList.toggle('off', i !== now));
    dots.forEach((d, i) => (i === now ? d.setAttribute('aria-current', 'true') : d.removeAttribute('aria-current')));
  };
  const go = (to: 'next' | 'previous' | number): void => {
    conductor.show(id, to);
    status.textContent = label(now);
  };

  // By itself: it rests while it is pointed at or focused, and where the reader has asked for little motion or for a pause.
  const timer = { id: 0, stopped: isCalm(), pointed: false, focused: false, ended: false };
  const wait = (): void => {
    clearTimeout(timer.id);
    const { advance } = about;
    if (!advance || timer.stopped || timer.ended || timer.pointed || timer.focused || doc.hidden) return;
    timer.id = window.setTimeout(() => {
      if (!advance.loop && now === cards.length - 1) timer.ended = true;
      else conductor.show(id, 'next');
      wait();
    }, advance.seconds[now]! * 1000);
  };
  const dots: HTMLElement[] = [];
  const controls: HTMLElement[] = [];
  if (about.advance) {
    const toggle = (): boolean => {
      timer.stopped = !timer.stopped && !timer.ended;
      if (timer.ended) {
        timer.ended = false;
        conductor.show(id, 0);
      }
      wait();
      return timer.stopped;
    };
    controls.push(pauseButton(doc, 'pause', words, timer.stopped, toggle));
    const over = (key: 'pointed' | 'focused', value: boolean) => (): void => {
      timer[key] = value;
      wait();
    };
    if (about.advance.pausesOnPointer) {
      box.addEventListener('pointerenter', over('pointed', true));
      box.addEventListener('pointerleave', over('pointed', false));
    }
    if (about.advance.pausesOnFocus) {
      box.addEventListener('focusin', over('focused', true));
      box.addEventListener('focusout', over('focused', false));
    }
    doc.addEventListener('visibilitychange', wait);
  }
  if (about.controls.arrows && cards.length > 1)
    controls.push(
      button(doc, 'previous', '‹', words.previous, () => go('previous')),
      button(doc, 'next', '›', words.next, () => go('next')),
    );
  if ((about.controls.dots || about.controls.thumbnails) && cards.length > 1) {
    const row = doc.createElement('div');
    row.className = about.controls.thumbnails ? 'dots thumbs' : 'dots';
    row.setAttribute('role', 'group');
    row.setAttribute('aria-label', box.getAttribute('aria-label') ?? '');
    cards.forEach((card, i) => {
      const dot = button(doc, 'dot', '', label(i), () => go(i));
      const picture = about.controls.thumbnails ? card!.querySelector('img') : null;
      if (picture) dot.style.backgroundImage = `url("${picture.getAttribute('src')}")`;
      dots.push(dot);
      row.append(dot);
    });
    controls.push(row);
  }
  if (controls.length) box.prepend(...controls);
  box.append(status);

  if (about.controls.keys)
    box.addEventListener('keydown', (e) => {
      const to = { ArrowRight: 'next', ArrowDown: 'next', ArrowLeft: 'previous', ArrowUp: 'previous', Home: 0, End: cards.length - 1 }[
        e.key
      ];
      if (to === undefined || (e.target as Element).closest('input,select,textarea')) return;
      e.preventDefault();
      e.stopPropagation();
      go(to as 'next');
    });
  if (about.controls.swipe) {
    box.dataset.swipe = '';
    let down: { x: number; y: number; at: number } | null = null;
    box.addEventListener('pointerdown', (e) => void (down = { x: e.clientX, y: e.clientY, at: e.timeStamp }));
    box.addEventListener('pointerup', (e) => {
      const swipe = down && eventForSwipe(e.clientX - down.x, e.clientY - down.y, e.timeStamp - down.at);
      down = null;
      if (swipe?.type === 'next' || swipe?.type === 'previous') go(swipe.type);
    });
  }
  mark();
  wait();
  return {
    show(index, forward) {
      const [old, young] = [cards[now]!, cards[index]!];
      now = index;
      mark();
      const frames = isCalm() ? null : cardFrames(about.change, forward);
      if (frames) {
        const how = { duration: about.change.seconds * 1000, easing: 'ease' };
        old.classList.replace('off', 'leaving');
        young.animate(frames.young, how);
        old.animate(frames.old, how).onfinish = () => {
          old.classList.remove('leaving');
          mark();
        };
      }
      wait();
    },
  };
}
