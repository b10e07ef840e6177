import type { GlyphRun, SetLine } from '../../compose/marks.ts';
import type { Head } from '../../folio/head.ts';
import { styleChain } from '../../folio/resolve.ts';
import { hasGap } from '../../structure/reading.ts';
import { attrs, escape, num } from '../svg/markup.ts';
import { baselineInBox, px } from './metrics.ts';
import type { LookSheet } from './styleSheet.ts';

const INLINE_ELEMENTS = new Set(['em', 'strong', 'cite', 'code', 'q', 'small', 'abbr', 'dfn']);

export interface LineContext {
  head: Head;
  looks: LookSheet;
  /** The language in force around the line. */
  language: string;
  /** The address of a link of the paragraph's story, if it may be written. */
  href: (link: string) => { href: string; newWindow: boolean; title?: string | undefined } | undefined;
}

/** Runs that follow one another without a gap; a tab begins a new stretch. */
function stretches(line: SetLine): GlyphRun[][] {
  const out: GlyphRun[][] = [];
  line.runs.forEach((run, i) => {
    const before = line.runs[i - 1];
    if (before && !hasGap(before, run)) out[out.length - 1]!.push(run);
    else out.push([run]);
  });
  return out;
}

/**
 * A line of live text, placed: one box per stretch with its own word and letter spacing, so that every
 * glyph stands where the typesetter put it. A space that stood at the break follows as plain text.
 */
export function paintLine(line: SetLine, context: LineContext, more: boolean): string {
  const parts = stretches(line).map((runs) => paintStretch(line, runs, context));
  return parts.join(' ') + (more && line.spaceAtEnd ? ' ' : '');
}

function paintStretch(line: SetLine, runs: GlyphRun[], context: LineContext): string {
  const first = runs[0]!;
  const height = Math.ceil(px(line.ascent + line.descent) * 1.2);
  const top = px(line.baseline) - baselineInBox(first.font, px(first.size), height);
  const box = `left:${num(px(line.x + first.x), 4)}px;top:${num(top, 3)}px;line-height:${height}px`;
  // The first run's look is on the box itself, so that its font alone decides where the baseline is.
  const [only] = runs;
  const plain =
    runs.length === 1 && !only!.shift && !only!.link && !inlineElement(context.head, only!) && only!.language === context.language;
  const word = first.wordSpace ? `;word-spacing:${num(px(first.wordSpace), 5)}px` : '';
  if (plain)
    return `<span${attrs({ class: `l ${context.looks.classOf(first)}`, style: box + word, dir: first.direction === 'rtl' ? 'rtl' : undefined })}>${escape(first.text)}</span>`;
  const base = first.shift ? '' : ` ${context.looks.classOf(first)}`;
  return `<span${attrs({ class: `l${base}`, style: box + word })}>${runs.map((r) => paintRun(r, context)).join('')}</span>`;
}

const inlineElement = (head: Head, run: GlyphRun): string | undefined => {
  const role = [...styleChain(head.characterStyles, run.characterStyle)].reverse().find((s) => s.role)?.role;
  return role && INLINE_ELEMENTS.has(role.element) ? role.element : undefined;
};

function paintRun(run: GlyphRun, context: LineContext): string {
  const style = run.wordSpace ? `word-spacing:${num(px(run.wordSpace), 5)}px` : undefined;
  const element = inlineElement(context.head, run) ?? 'span';
  const inner = `<${element}${attrs({ class: context.looks.classOf(run), style, lang: run.language === context.language ? undefined : run.language })}>${escape(run.text)}</${element}>`;
  const link = run.link === undefined ? undefined : context.href(run.link);
  if (!link) return inner;
  return `<a${attrs({ href: link.href, title: link.title, target: link.newWindow ? '_blank' : undefined, rel: link.newWindow ? 'noopener' : undefined })}>${inner}</a>`;
}
