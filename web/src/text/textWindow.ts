/** The paragraphs of a text that are shown for editing: those from index `from` to before `to`. */
export interface TextWindow {
  from: number;
  to: number;
}

/** A text of thousands of paragraphs is shown in part: what a key costs does not grow with the length of the text. */
const FIRST = 120;
const MORE = 120;
const MOST = 480;

/** The window around a paragraph: most of it is what follows. */
export function windowAround(count: number, index: number): TextWindow {
  const from = Math.max(0, Math.min(index - Math.floor(FIRST / 4), count - FIRST));
  return { from, to: Math.min(count, from + FIRST) };
}

/** A window with more of the text at one of its ends; where it grows too large, it lets go at the other. */
export function grown({ from, to }: TextWindow, count: number, towards: 'start' | 'end'): TextWindow {
  if (towards === 'start') {
    const first = Math.max(0, from - MORE);
    return { from: first, to: Math.min(to, first + MOST) };
  }
  const end = Math.min(count, to + MORE);
  return { from: Math.max(from, end - MOST), to: end };
}
