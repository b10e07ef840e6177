import type { Animation, GoTo, Program, Step, When } from './program.ts';

/** What the conductor has done for it: the page in a browser, or a test. */
export interface Hands {
  go(to: GoTo): void;
  card(switcher: string, index: number, forward: boolean): void;
  seen(item: string, isSeen: boolean): void;
  media(media: string, what: 'play' | 'pause' | 'stop' | 'seek', seconds: number): void;
  open(href: string): void;
  print(): void;
  reset(): void;
  send(href: string): void;
  animate(animation: Animation): void;
  later(seconds: number, run: () => void): void;
}

type Chain = ReadonlySet<string>;
const NONE: Chain = new Set();

/**
 * Runs cues: says what happens, and leaves the doing to its hands. A cue that leads to itself stops there: each cue runs
 * once in a chain of cues, however long its steps wait.
 */
export class Conductor {
  private readonly cards = new Map<string, number>();
  private readonly hidden: Set<string>;
  /** The cues that led to the page that comes into sight next. */
  private travelling: Chain = NONE;

  constructor(
    private readonly program: Program,
    private readonly hands: Hands,
  ) {
    this.hidden = new Set(program.hidden);
  }

  /** The card that a switcher shows. */
  cardOf = (switcher: string): number => this.cards.get(switcher) ?? 0;
  isHidden = (item: string): boolean => this.hidden.has(item);
  waitsFor = (on: string, when: When): boolean => this.program.cues.some((c) => c.on === on && c.when === when);

  /** Something happened to an item or a page: whatever waits for it begins. */
  raise(on: string, when: When, chain: Chain = NONE): void {
    if (chain === NONE && when === 'press') this.travelling = NONE;
    for (const cue of this.program.cues) {
      if (cue.on !== on || cue.when !== when || chain.has(cue.id)) continue;
      const longer = new Set([...chain, cue.id]);
      for (const step of cue.steps) this.after(step.after + (when === 'delay' ? (cue.seconds ?? 0) : 0), () => this.take(step, longer));
    }
  }

  /** A page came into sight, or went out of it. */
  page(id: string, isShown: boolean): void {
    const chain = this.travelling;
    this.raise(id, isShown ? 'pageShown' : 'pageLeft', chain);
    if (!isShown) return;
    this.raise(id, 'delay', chain);
  }

  /** Shows another card; nothing happens beyond the last where it does not begin again. */
  show(switcher: string, card: string | number, again = true, chain: Chain = NONE): void {
    const about = this.program.switchers[switcher];
    if (!about) return;
    const count = about.cards.length;
    const now = this.cardOf(switcher);
    const forward = card !== 'previous' && (typeof card !== 'number' || card >= now);
    const wanted = card === 'next' ? now + 1 : card === 'previous' ? now - 1 : typeof card === 'number' ? card : about.cards.indexOf(card);
    if (wanted < 0 && card !== 'previous') return;
    if (!again && (wanted < 0 || wanted >= count)) return;
    const index = (wanted + count) % count;
    if (index === now) return;
    this.cards.set(switcher, index);
    this.hands.card(switcher, index, card === 'next' || card === 'previous' ? forward : index > now);
    this.raise(switcher, 'cardChanged', chain);
  }

  private after(seconds: number, run: () => void): void {
    if (seconds > 0) this.hands.later(seconds, run);
    else run();
  }

  private take(step: Step, chain: Chain): void {
    const { hands } = this;
    switch (step.do) {
      case 'go':
        this.travelling = chain;
        return hands.go(step.to);
      case 'card':
        return this.show(step.switcher, step.card, step.again, chain);
      case 'show':
      case 'hide':
      case 'toggle':
        for (const item of step.items) this.see(item, step.do === 'show' || (step.do === 'toggle' && this.hidden.has(item)));
        return;
      case 'play':
      case 'pause':
      case 'stop':
        return hands.media(step.media, step.do, 0);
      case 'seek':
        return hands.media(step.media, 'seek', step.seconds);
      case 'open':
        return hands.open(step.href);
      case 'print':
        return hands.print();
      case 'reset':
        return hands.reset();
      case 'send':
        return hands.send(step.href);
      case 'animate':
        for (const item of step.items) if (step.kind === 'appear' || this.hidden.has(item)) this.see(item, true);
        return hands.animate(step);
    }
  }

  private see(item: string, isSeen: boolean): void {
    if (isSeen !== this.hidden.has(item)) return;
    if (isSeen) this.hidden.delete(item);
    else this.hidden.add(item);
    this.hands.seen(item, isSeen);
  }
}
