import type { ComposedFrame, ComposedStory, SetLine } from '../compose/marks.ts';
import type { Finding } from './finding.ts';

/** What is wrong with single lines of a story, with their places: characters no font has, words wider than their line. */
export function lineFindings(set: ComposedStory, pageOf: (spread: string, item: string) => number | undefined): Finding[] {
  const found: Finding[] = [];
  for (const { paragraph, offset, character } of set.missingGlyphs) {
    const frame = frameAt(set, paragraph, offset);
    found.push({
      code: 'glyph.missing',
      says: frame ? `No font has “${character}”.` : `No font has “${character}”, in text that does not fit.`,
      page: frame && pageOf(frame.spread, frame.item),
      subject: paragraph,
      item: frame?.item,
    });
  }
  for (const frame of set.frames)
    for (const line of frame.lines)
      if (line.cut)
        found.push({
          code: 'word.cut',
          says: `A word is wider than its line and is cut after “${ending(line)}”.`,
          page: pageOf(frame.spread, frame.item),
          subject: line.paragraph,
          item: frame.item,
        });
  return found;
}

/** The frame that shows a character of a paragraph; undefined where it is left over. */
const frameAt = (set: ComposedStory, paragraph: string, offset: number): ComposedFrame | undefined =>
  set.frames.find((f) => f.lines.some((l) => l.paragraph === paragraph && l.start <= offset && offset < l.end));

/** The last letters of a line, enough to find it by. */
const ending = (line: SetLine): string =>
  line.runs
    .map((r) => r.text)
    .join('')
    .trimEnd()
    .split(/\s/)
    .at(-1)!
    .slice(-16);
