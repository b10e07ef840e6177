import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { motionFindings } from '../../src/check/motionFindings.ts';
import { Folio, Item } from '../../src/index.ts';
import { motionFolio } from '../support/motionFolio.ts';

type Loose = Record<string, unknown>;
/** What is found after a change to the items of the page. */
const found = (change: (items: Record<string, Loose>, draft: Folio) => unknown): [string, string | undefined][] =>
  motionFindings(
    Folio.parse(produce(motionFolio(), (d) => void change(d.spreads['s']!.items as unknown as Record<string, Loose>, d))),
    () => 1,
  ).map((f) => [f.code, f.subject]);
const cue = (trigger: object, ...steps: object[]): Loose => ({ q: { id: 'q', trigger, steps } });

describe('what is wrong with motion', () => {
  test('nothing, where all is well', () => expect(found(() => undefined)).toEqual([]));

  test('a target that is gone, one on a hidden layer', () => {
    expect(found((i) => delete i['sw'])).toEqual([['cue.targetGone', 'later']]);
    const hidden = found((i, d) => {
      d.head.layers['h'] = { id: 'h', name: 'Later', visible: false, printing: true, locked: false };
      d.head.layerOrder.push('h');
      i['sw']!['layer'] = 'h';
    });
    expect(hidden).toEqual([['cue.targetHidden', 'later']]);
  });

  test('what can be pressed and says nothing; what only a pointer can reach (WCAG 2.2, 2.1.1 and 4.1.2)', () => {
    expect(found((i) => delete i['later']!['alt'])).toEqual([['cue.noLabel', 'later']]);
    expect(found((i) => (i['first']!['cues'] = cue({ when: 'pointerOver' }, { do: 'show', items: ['hint'] })))).toEqual([
      ['cue.pointerOnly', 'first'],
    ]);
    // What lies on a text is called by the text.
    expect(found((i) => (i['f1']!['cues'] = cue({ when: 'press' }, { do: 'print' })))).toEqual([]);
  });

  test('what may flash: more than three times a second (WCAG 2.2, 2.3.1)', () => {
    expect(found((i) => (i['sw']!['advance'] = { interval: 0.2, end: 'loop' }))).toEqual([['cue.flashes', 'sw']]);
    expect(found((i) => (i['sw']!['advance'] = { interval: 0.34, end: 'loop' }))).toEqual([]);
    const blinking = { do: 'animate', items: ['dot'], kind: 'fade', seconds: 0.1, repeat: 'again' };
    expect(found((i) => (i['f1']!['cues'] = cue({ when: 'press' }, blinking)))).toEqual([['cue.flashes', 'f1']]);
  });

  test('film that begins by itself and cannot be stopped (WCAG 2.2, 2.2.2)', () => {
    const film = (controls: boolean) => (i: Record<string, Loose>) =>
      (i['film'] = {
        id: 'film',
        kind: 'media',
        layer: 'l',
        transform: [1, 0, 0, 1, 0, 0],
        size: { width: 9, height: 9 },
        media: null,
        autoplay: true,
        controls,
      });
    expect([found(film(false)), found(film(true))]).toEqual([[['motion.noPause', 'film']], []]);
  });

  // 2.2.2 asks of what moves for more than five seconds, 1.4.2 of what sounds for more than three.
  test.each([
    ['video/webm', 5, false, false],
    ['video/webm', 5.1, false, true],
    ['video/webm', 2, true, true],
    ['video/webm', undefined, false, true],
    ['audio/mpeg', 3, false, false],
    ['audio/mpeg', 3.5, false, true],
  ])('%s of %s seconds, again and again %s: told %s', (mediaType, seconds, loop, told) => {
    const folio = produce(motionFolio(), (d) => {
      d.head.media['m'] = { id: 'm', name: 'm', file: 'media/m', mediaType, sha256: 'a'.repeat(64), bytes: 1, seconds };
      d.spreads['s']!.items['film'] = Item.parse({
        ...{ id: 'film', kind: 'media', layer: 'l', transform: [1, 0, 0, 1, 0, 0], size: { width: 9, height: 9 } },
        ...{ media: 'm', autoplay: true, controls: false, loop },
      });
    });
    expect(motionFindings(folio, () => 1).some((f) => f.code === 'motion.noPause')).toBe(told);
  });

  test('fields without a label, names used twice, addresses that run a program', () => {
    expect(found((i) => (i['tick']!['label'] = ' '))).toEqual([['field.noLabel', 'tick']]);
    expect(found((i) => (i['words']!['fieldName'] = 'tick'))).toEqual([['field.nameTwice', 'words']]);
    const frame = { id: 'e', kind: 'embed', layer: 'l', transform: [1, 0, 0, 1, 0, 0], size: { width: 9, height: 9 } };
    expect(found((i) => (i['e'] = { ...frame, source: { from: 'address', href: 'javascript:alert(1)' } }))).toEqual([
      ['motion.address', 'e'],
    ]);
    expect(found((i) => (i['f1']!['cues'] = cue({ when: 'press' }, { do: 'sendForm', href: 'javascript:alert(1)' })))).toEqual([
      ['cue.address', 'f1'],
    ]);
  });
});
