import { describe, expect, test } from '@jest/globals';
import { Cue, sentenceOf } from '../../src/index.ts';
import { motionFolio } from '../support/motionFolio.ts';

const folio = motionFolio();
const told = (trigger: object, ...steps: object[]): string => {
  const { when, then } = sentenceOf(folio, Cue.parse({ id: 'x', trigger, steps }), (id) => `“${id}”`);
  return `${when} → ${then.join('; ')}`;
};
const pressed = (...steps: object[]): string => told({ when: 'press' }, ...steps).replace('When the reader presses it → ', '');

describe('a cue in words', () => {
  test('begins with what begins it', () => {
    expect(told({ when: 'press' }, { do: 'print' })).toBe('When the reader presses it → print');
    expect(told({ when: 'delay', seconds: 1 }, { do: 'print' })).toBe('1 second after the page is shown → print');
    expect(told({ when: 'cardChanged' }, { do: 'print', after: 2.5 })).toBe('When its card changes → print, after 2.5 seconds');
  });
  test.each([
    [{ do: 'showCard', switcher: 'sw', card: 'next' }, 'show the next card of “sw”, begin again after the last'],
    [{ do: 'showCard', switcher: 'sw', card: 'next', afterLast: 'stop' }, 'show the next card of “sw”, stop at the last'],
    [{ do: 'showCard', switcher: 'sw', card: 'c2' }, 'show the card “Two” of “sw”'],
    [{ do: 'showCard', switcher: 'sw', card: 'c9' }, 'show a card that is gone of “sw”'],
    [{ do: 'toggle', items: ['dot', 'hint'] }, 'show “dot”, “hint”, or hide it again'],
    [{ do: 'hide', items: ['gone'] }, 'hide something that is gone'],
    [{ do: 'go', destination: { to: 'page', page: 'pg' } }, 'go to page 1'],
    [{ do: 'go', destination: { to: 'page', page: 'gone' } }, 'go to a page that is gone'],
    [{ do: 'go', destination: { to: 'back' } }, 'go back to where the reader was'],
    [
      { do: 'go', destination: { to: 'address', href: 'https://marrowby.example/', window: 'new' } },
      'open https://marrowby.example/ in a new window',
    ],
    [{ do: 'seek', media: 'gone', seconds: 4 }, 'go to second 4 of something that is gone'],
    [{ do: 'animate', items: ['dot'], kind: 'moveIn', seconds: 1, repeat: 'again' }, 'move in “dot” in 1 second, again and again'],
    [{ do: 'resetForm' }, 'empty the form'],
  ])('%j', (step, words) => expect(pressed(step)).toBe(words));
  test('tells its steps in order', () => expect(pressed({ do: 'print' }, { do: 'resetForm' })).toBe('print; empty the form'));
});
