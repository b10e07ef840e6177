import type { Conductor } from './conductor.ts';
import type { Program, Words } from './program.ts';

/** What the parts of the player share. */
export interface Surroundings {
  program: Program;
  doc: Document;
  conductor: Conductor;
  /** The elements that show an item. */
  elementsOf(item: string): HTMLElement[];
}

export const isCalm = (): boolean => matchMedia('(prefers-reduced-motion: reduce)').matches;

/** A button with a sign that is seen and words that are said. */
export function button(doc: Document, name: string, sign: string, label: string, press: () => void): HTMLButtonElement {
  const b = doc.createElement('button');
  b.type = 'button';
  b.className = `ctl ${name}`;
  b.textContent = sign;
  b.setAttribute('aria-label', label);
  b.addEventListener('click', (e) => {
    e.stopPropagation();
    press();
  });
  return b;
}

/** A button that stops what goes on by itself and lets it go on again; `toggle` says whether it is stopped then (WCAG 2.2, 2.2.2). */
export function pauseButton(doc: Document, name: string, words: Words, stopped: boolean, toggle: () => boolean): HTMLButtonElement {
  const pause = button(doc, name, '', '', () => tell(toggle()));
  const tell = (isStopped: boolean): void => {
    pause.textContent = isStopped ? '▶' : '❚❚';
    pause.setAttribute('aria-label', isStopped ? words.play : words.pause);
  };
  tell(stopped);
  return pause;
}
