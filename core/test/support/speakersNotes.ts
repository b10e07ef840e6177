import { produce } from 'immer';
import type { Folio, Paragraph } from '../../src/index.ts';
import { tinyFolio } from './tinyFolio.ts';

/** A page with one text, and with speaker’s notes of one paragraph, `n1` of the text `n`. */
export const withSpeakersNotes = (words: string): Folio =>
  produce(tinyFolio(['x']), (d) => {
    const text = d.stories['t']!;
    const paragraph = { ...(text.blocks['p1'] as Paragraph), id: 'n1', content: [{ type: 'span' as const, text: words }] };
    d.stories['n'] = { ...text, id: 'n', frames: [], order: ['n1'], blocks: { n1: paragraph } };
    d.head.storyOrder.push('n');
    Object.values(d.spreads)[0]!.pages[0]!.notes = 'n';
  });
