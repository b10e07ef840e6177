import { PDFArray, PDFDict } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { factKey, transitionFact } from '../motionFacts.ts';
import type { MotionFacts } from '../motionFacts.ts';
import { at, dictAt, nameOf, numberAt, textOf } from './pdfFile.ts';

/** What begins the actions of an annotation or a page (ISO 32000-1, tables 194 and 195). */
const EVENTS = { E: 'pointerOver', X: 'pointerOut', Fo: 'focus', O: 'pageShown', C: 'pageLeft' };

/** Longer chains of actions bite their tails. */
const LONGEST = 1000;

/** Kinds of actions along a chain (ISO 32000-1, 12.6.2), each before those that follow it. */
function kindsOf(first: PDFDict): string[] {
  const kinds: string[] = [];
  const visit = (action: PDFObject | undefined): void => {
    if (!(action instanceof PDFDict) || kinds.length > LONGEST) return;
    kinds.push(nameOf(at(action, 'S')) ?? '');
    const next = at(action, 'Next');
    if (next instanceof PDFArray) for (let i = 0; i < next.size(); i++) visit(next.lookup(i));
    else visit(next);
  };
  visit(first);
  return kinds;
}

/** Transitions and times of a page, and what it does when it is opened and closed (ISO 32000-1, 7.7.3.3), by what they are. */
function motionOfPage(page: PDFDict): Record<string, string> {
  const facts: Record<string, string> = {};
  const transition = dictAt(page, 'Trans');
  if (transition)
    facts['transition'] = transitionFact({
      style: (nameOf(at(transition, 'S')) ?? '').toLowerCase(),
      seconds: numberAt(transition, 'D') ?? 1,
    });
  const shown = numberAt(page, 'Dur');
  if (shown !== undefined) facts['advance'] = `after ${shown} s`;
  const additional = dictAt(page, 'AA');
  for (const key of ['O', 'C'] as const) {
    const action = dictAt(additional, key);
    if (action) facts[EVENTS[key]] = kindsOf(action).join(', ');
  }
  return facts;
}

/** What pages and the annotations with a name of ours do: pdf.js keeps most of it to itself. */
export function motionOfFile(file: PDFDocument): MotionFacts {
  const motion: MotionFacts = new Map();
  file.getPages().forEach((page, i) => {
    for (const [aspect, fact] of Object.entries(motionOfPage(page.node))) motion.set(`page ${i + 1} ${aspect}`, fact);
  });
  for (const [, object] of file.context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFDict)) continue;
    const [, kind, id] = /^(cue|item) (.*)$/s.exec(textOf(at(object, 'NM')) ?? '') ?? [];
    if (kind === 'cue') motion.set(factKey('cue', id!, 'motion'), cueOf(object));
    else if (kind === 'item') motion.set(factKey('item', id!, 'media'), `${playedBy(object)} bytes`);
  }
  return motion;
}

/** What begins a cue, and the kinds of its actions in their order. */
function cueOf(annotation: PDFDict): string {
  const additional = dictAt(annotation, 'AA');
  const [key, event] = Object.entries(EVENTS).find(([k]) => dictAt(additional, k)) ?? ['A', 'press'];
  const action = dictAt(additional ?? annotation, key);
  return `${action ? event : 'nothing'}: ${action ? kindsOf(action).join(', ') : ''}`;
}

/** How many bytes the film or sound of an annotation has: its file's own length (ISO 32000-1, table 46, Size). */
function playedBy(annotation: PDFDict): number {
  const specification = dictAt(dictAt(dictAt(dictAt(annotation, 'A'), 'R'), 'C'), 'D');
  const params = dictAt(dictAt(dictAt(specification, 'EF'), 'F'), 'Params');
  return numberAt(params, 'Size') ?? 0;
}
