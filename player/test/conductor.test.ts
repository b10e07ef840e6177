import { describe, expect, test } from '@jest/globals';
import { Conductor, readProgram } from '../src/index.ts';
import type { Cue, Hands, Program, Step, When } from '../src/index.ts';

/** Hands that write down what they are asked to do; waiting steps are taken when the time is moved on. */
class Diary implements Hands {
  readonly done: string[] = [];
  private readonly waiting: { at: number; run: () => void }[] = [];
  private now = 0;
  go = (to: unknown): void => void this.done.push(`go ${JSON.stringify(to)}`);
  card = (switcher: string, index: number, forward: boolean): void => void this.done.push(`${switcher} ${index} ${forward ? '>' : '<'}`);
  seen = (item: string, isSeen: boolean): void => void this.done.push(`${isSeen ? '+' : '-'}${item}`);
  media = (media: string, what: string, seconds: number): void => void this.done.push(`${media} ${what} ${seconds}`);
  open = (href: string): void => void this.done.push(`open ${href}`);
  print = (): void => void this.done.push('print');
  reset = (): void => void this.done.push('reset');
  send = (href: string): void => void this.done.push(`send ${href}`);
  animate = (a: { kind: string; items: string[] }): void => void this.done.push(`${a.kind} ${a.items.join()}`);
  later = (seconds: number, run: () => void): void => void this.waiting.push({ at: this.now + seconds, run });
  pass(seconds: number): void {
    this.now += seconds;
    for (let next; (next = this.waiting.filter((w) => w.at <= this.now).sort((a, b) => a.at - b.at)[0]);) {
      this.waiting.splice(this.waiting.indexOf(next), 1);
      next.run();
    }
  }
}

type Loose = Omit<Step, 'after'> & { after?: number };
const cue = (id: string, on: string, when: When, ...steps: Loose[]): Cue => ({
  id,
  on,
  when,
  steps: steps.map((s) => ({ after: 0, ...s }) as Step),
});
const switcher = (n: number) => ({
  cards: Array.from({ length: n }, (_, i) => `c${i}`),
  names: Array.from({ length: n }, (_, i) => `Card ${i}`),
  change: { kind: 'cut' as const, direction: 'left' as const, seconds: 0 },
  controls: { arrows: false, dots: false, thumbnails: false, swipe: false, keys: false },
});

function started(more: Partial<Program>): { conductor: Conductor; hands: Diary } {
  const hands = new Diary();
  return { conductor: new Conductor({ ...readProgram('{"version":2,"pages":[]}')!, ...more }, hands), hands };
}

describe('steps', () => {
  test('are taken in order, those that wait when their time has come', () => {
    const { conductor, hands } = started({
      cues: [
        cue('q', 'b', 'press', { do: 'show', items: ['x'], after: 2 } as Loose, { do: 'print' }, {
          do: 'hide',
          items: ['y'],
          after: 1,
        } as Loose),
      ],
      hidden: ['x'],
    });
    conductor.raise('b', 'press');
    expect(hands.done).toEqual(['print']);
    hands.pass(1);
    expect(hands.done).toEqual(['print', '-y']);
    hands.pass(1);
    expect(hands.done).toEqual(['print', '-y', '+x']);
  });

  test('show and hide say nothing of what is so already; toggle turns it round', () => {
    const { conductor, hands } = started({
      cues: [
        cue('q', 'b', 'press', { do: 'show', items: ['x', 'y'] } as Loose),
        cue('t', 't', 'press', { do: 'toggle', items: ['x'] } as Loose),
      ],
      hidden: ['x'],
    });
    conductor.raise('b', 'press');
    conductor.raise('t', 'press');
    conductor.raise('t', 'press');
    expect(hands.done).toEqual(['+x', '-x', '+x']);
  });

  test('every other step is handed on as it is', () => {
    const steps: Loose[] = [
      { do: 'go', to: 'back' } as Loose,
      { do: 'play', media: 'film' } as Loose,
      { do: 'seek', media: 'film', seconds: 12 } as Loose,
      { do: 'open', href: 'media/map.pdf' } as Loose,
      { do: 'reset' },
      { do: 'send', href: 'mailto:keeper@marrowby.example' } as Loose,
      { do: 'animate', items: ['x'], kind: 'fade', from: 'left', seconds: 1, easing: 'ease', again: false } as Loose,
    ];
    const { conductor, hands } = started({ cues: [cue('q', 'b', 'press', ...steps)] });
    conductor.raise('b', 'press');
    expect(hands.done).toEqual([
      'go "back"',
      'film play 0',
      'film seek 12',
      'open media/map.pdf',
      'reset',
      'send mailto:keeper@marrowby.example',
      'fade x',
    ]);
  });

  test('what is animated into sight is seen from then on', () => {
    const { conductor, hands } = started({
      cues: [
        cue('q', 'b', 'press', {
          do: 'animate',
          items: ['x'],
          kind: 'moveIn',
          from: 'left',
          seconds: 1,
          easing: 'ease',
          again: false,
        } as Loose),
      ],
      hidden: ['x'],
    });
    conductor.raise('b', 'press');
    expect(hands.done).toEqual(['+x', 'moveIn x']);
    expect(conductor.isHidden('x')).toBe(false);
  });
});

describe('cards', () => {
  test('go on, back and to one; past the last they begin again, or stop', () => {
    const { conductor, hands } = started({ switchers: { s: switcher(3) } });
    conductor.show('s', 'next');
    conductor.show('s', 'c2');
    conductor.show('s', 'next');
    conductor.show('s', 'previous');
    conductor.show('s', 'next', false);
    expect(hands.done).toEqual(['s 1 >', 's 2 >', 's 0 >', 's 2 <']);
  });

  test('a card that is shown already, one that is not there and a switcher that is not there are nothing', () => {
    const { conductor, hands } = started({ switchers: { s: switcher(2), one: switcher(1) } });
    conductor.show('s', 'c0');
    conductor.show('s', 'gone');
    conductor.show('gone', 'next');
    conductor.show('one', 'next');
    expect(hands.done).toEqual([]);
  });

  test('two rounds of a carousel of five come by every card twice, in order', () => {
    const { conductor, hands } = started({ switchers: { s: switcher(5) } });
    for (let i = 0; i < 10; i++) conductor.show('s', 'next');
    expect(hands.done.map((d) => d.split(' ')[1])).toEqual(['1', '2', '3', '4', '0', '1', '2', '3', '4', '0']);
  });
});

describe('loops', () => {
  test('two switchers that turn one another on stop after one turn each', () => {
    const { conductor, hands } = started({
      switchers: { a: switcher(9), b: switcher(9) },
      cues: [
        cue('ab', 'a', 'cardChanged', { do: 'card', switcher: 'b', card: 'next', again: true } as Loose),
        cue('ba', 'b', 'cardChanged', { do: 'card', switcher: 'a', card: 'next', again: true } as Loose),
      ],
    });
    conductor.show('a', 'next');
    expect(hands.done).toEqual(['a 1 >', 'b 1 >', 'a 2 >']);
  });

  test('so do loops whose steps wait', () => {
    const { conductor, hands } = started({
      switchers: { a: switcher(9) },
      cues: [cue('aa', 'a', 'cardChanged', { do: 'card', switcher: 'a', card: 'next', again: true, after: 3 } as Loose)],
    });
    conductor.show('a', 'next');
    for (let i = 0; i < 20; i++) hands.pass(3);
    expect(hands.done).toEqual(['a 1 >', 'a 2 >']);
  });

  test('two pages that lead to one another do not go round for ever', () => {
    const hands = new Diary();
    const program: Program = {
      ...readProgram('{"version":2,"pages":["p1","p2"]}')!,
      cues: [
        cue('on', 'p1', 'pageShown', { do: 'go', to: { page: 'p2' } } as Loose),
        cue('back', 'p2', 'pageShown', { do: 'go', to: { page: 'p1' } } as Loose),
      ],
    };
    const conductor = new Conductor(program, hands);
    let at = 'p1';
    // As the browser does it: the page that is gone to comes into sight.
    hands.go = (to) => void (hands.done.push(JSON.stringify(to)), (at = (to as { page: string }).page));
    for (let i = 0; i < 10; i++) conductor.page(at, true);
    expect(hands.done).toHaveLength(2);
  });
});

test('a cue with a delay counts from the moment its page is shown', () => {
  const { conductor, hands } = started({
    cues: [{ ...cue('d', 'p', 'delay', { do: 'show', items: ['x'] } as Loose), seconds: 4 }],
    hidden: ['x'],
  });
  conductor.page('p', true);
  hands.pass(3.9);
  expect(hands.done).toEqual([]);
  hands.pass(0.1);
  expect(hands.done).toEqual(['+x']);
});
