import { SaxesParser } from 'saxes';
import { FolioError } from '../ports/ports.ts';
import { xmlFault } from '../folio/xmlFault.ts';

/** One rule of a language: whether a text is parted where `before` ends and `after` begins. */
interface SentenceRule {
  breaks: boolean;
  /** Matches the places between what stands before and what stands after. */
  at: RegExp;
}

/** Rules for finding sentences (Segmentation Rules eXchange, SRX 2.0). */
export interface SentenceRules {
  /** Whether the rules of all maps that fit a language hold, or those of the first only (SRX 2.0, `cascade`). */
  cascade: boolean;
  maps: { language: RegExp; rules: readonly SentenceRule[] }[];
}

const refuse = (why: string): FolioError =>
  new FolioError(
    'srx.unusable',
    `The rules for sentences cannot be used: ${why}.`,
    'Correct the file, or leave it out: rules for common languages are there.',
  );

const MOST_RULES = 5000;

/**
 * Reads a file of rules. Its expressions are those of ICU, as the standard says; what JavaScript has otherwise is turned into its
 * own, and an expression that is none is an error that names it.
 */
export function readSrx(text: string): SentenceRules {
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(text)) throw refuse('it defines entities of its own');
  const parser = new SaxesParser({ xmlns: true });
  const named = new Map<string, SentenceRule[]>();
  const maps: { pattern: string; name: string }[] = [];
  let cascade = false;
  let rules: SentenceRule[] | null = null;
  let rule: { breaks: boolean; before: string; after: string } | null = null;
  let within: 'before' | 'after' | null = null;
  let isSrx = false;
  parser.on('error', (error) => {
    throw refuse(xmlFault(error));
  });
  parser.on('opentag', ({ local, attributes }) => {
    const value = (name: string): string | undefined => attributes[name]?.value;
    if (local === 'srx') isSrx = true;
    if (local === 'header') cascade = value('cascade') === 'yes';
    if (local === 'languagerule') named.set(value('languagerulename') ?? '', (rules = []));
    if (local === 'languagemap') maps.push({ pattern: value('languagepattern') ?? '', name: value('languagerulename') ?? '' });
    if (local === 'rule') rule = { breaks: value('break') !== 'no', before: '', after: '' };
    if (local === 'beforebreak' || local === 'afterbreak') within = local === 'beforebreak' ? 'before' : 'after';
  });
  parser.on('text', (words) => {
    if (rule && within) rule[within] += words;
  });
  parser.on('closetag', ({ local }) => {
    if (local === 'beforebreak' || local === 'afterbreak') within = null;
    if (local !== 'rule' || !rule || !rules) return;
    rules.push({ breaks: rule.breaks, at: placeBetween(rule.before, rule.after) });
    if (rules.length > MOST_RULES) throw refuse(`one language has more than ${MOST_RULES} of them`);
    rule = null;
  });
  parser.write(text).close();
  if (!isSrx) throw refuse('the file is none of SRX');
  return {
    cascade,
    maps: maps.map(({ pattern, name }) => {
      const found = named.get(name);
      if (!found) throw refuse(`it names “${name}”, which is not in it`);
      return { language: expression(`^(?:${pattern})$`, 'i'), rules: found };
    }),
  };
}

/** What ICU writes otherwise: `\h` for blanks, `\Q…\E` for words as they are, flags at the beginning. */
const inScript = (icu: string): string =>
  icu
    .replace(/\\Q(.*?)\\E/gs, (_, words: string) => words.replace(/[\\^$.*+?()[\]{}|/-]/g, '\\$&'))
    .replace(/\\h/g, '[\\t\\p{Zs}]')
    .replace(/\(\?[imsux]+\)/g, '');

function expression(icu: string, flags: string): RegExp {
  try {
    return new RegExp(inScript(icu), `${flags}${/\(\?[a-z]*i/.test(icu) && !flags.includes('i') ? 'i' : ''}u`);
  } catch (error) {
    throw refuse(`“${icu}” is no expression (${(error as Error).message})`);
  }
}

const placeBetween = (before: string, after: string): RegExp => expression(`(?<=${before})(?=${after})`, 'g');

/** The rules that hold for a language, in their order. */
function rulesFor({ cascade, maps }: SentenceRules, language: string): SentenceRule[] {
  const fitting = maps.filter((m) => m.language.test(language));
  return (cascade ? fitting : fitting.slice(0, 1)).flatMap((m) => m.rules);
}

/** Where a text is parted into sentences: at each place the first rule that fits decides (SRX 2.0, section on processing). */
export function sentenceBreaks(text: string, language: string, rules: SentenceRules): number[] {
  const decided = new Map<number, boolean>();
  for (const { at, breaks } of rulesFor(rules, language)) {
    at.lastIndex = 0;
    for (const found of text.matchAll(at)) if (!decided.has(found.index)) decided.set(found.index, breaks);
  }
  return [...decided].flatMap(([place, breaks]) => (breaks && place > 0 && place < text.length ? [place] : [])).sort((a, b) => a - b);
}
