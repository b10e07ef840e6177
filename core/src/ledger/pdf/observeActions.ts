/** What begins the actions of an annotation or a page (ISO 32000-1, tables 194 and 195). */
const EVENTS: Record<string, string> = {
  A: 'press',
  E: 'pointerOver',
  X: 'pointerOut',
  Fo: 'focus',
  O: 'pageShown',
  C: 'pageLeft',
};

/** A cue as the file says it: what begins it, and the kinds of its actions in their order. */
export interface ActionsOfPdf {
  event: string;
  actions: string[];
}

/** The bytes of an annotation's entry, up to the bracket that closes it. */
function entryOf(dictionary: string, key: string): string | null {
  const at = new RegExp(`/${key}\\s*(?=<<)`).exec(dictionary);
  if (!at) return null;
  const from = at.index + at[0].length;
  let depth = 0;
  for (let i = from; i < dictionary.length; i++) {
    // Strings may hold brackets of their own (7.3.4.2).
    if (dictionary[i] === '(') i = endOfString(dictionary, i);
    else if (dictionary.startsWith('<<', i)) {
      depth++;
      i++;
    } else if (dictionary.startsWith('>>', i)) {
      depth--;
      i++;
      if (depth === 0) return dictionary.slice(from, i + 1);
    }
  }
  return null;
}

function endOfString(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === '\\') i++;
    else if (text[i] === '(') depth++;
    else if (text[i] === ')' && --depth === 0) return i;
  }
  return text.length;
}

/** Kinds of actions along a chain (12.6.2): those of renditions and files inside them are none. */
const kindsIn = (chain: string): string[] =>
  [...chain.matchAll(/\/S\s*\/([A-Za-z]+)/g)].map((m) => m[1]!).filter((s) => s !== 'MR' && s !== 'MCD');

/** What each annotation with a name of ours does, as it stands in the file: pdf.js keeps most of it to itself. */
export function actionsInPdf(objects: ReadonlyMap<string, string>): Map<string, ActionsOfPdf> {
  const found = new Map<string, ActionsOfPdf>();
  for (const object of objects.values()) {
    const cue = /\/NM\s*\(cue ([^)]*)\)/.exec(object)?.[1];
    if (cue === undefined) continue;
    const additional = entryOf(object, 'AA');
    const event = additional ? Object.keys(EVENTS).find((e) => e !== 'A' && new RegExp(`/${e}\\s*<<`).test(additional)) : 'A';
    const chain = additional ?? entryOf(object, 'A') ?? '';
    found.set(cue, { event: EVENTS[event ?? ''] ?? 'nothing', actions: kindsIn(chain) });
  }
  return found;
}

/** What a page does when it is opened and closed, by its object. */
export const actionsOfPage = (page: string): ActionsOfPdf[] => {
  const additional = entryOf(page, 'AA');
  return ['O', 'C'].flatMap((e) => {
    const chain = additional && entryOf(additional, e);
    return chain ? [{ event: EVENTS[e]!, actions: kindsIn(chain) }] : [];
  });
};

/** How many bytes the film or sound of each annotation has, by the name of ours: its file's own length (table 46, Size). */
export function playedInPdf(objects: ReadonlyMap<string, string>): Map<string, number> {
  const found = new Map<string, number>();
  for (const object of objects.values()) {
    const item = /\/NM\s*\(item ([^)]*)\)/.exec(object)?.[1];
    if (item === undefined) continue;
    const rendition = objects.get(/\/R\s+(\d+) 0 R/.exec(object)?.[1] ?? '') ?? '';
    const specification = objects.get(/\/D\s+(\d+) 0 R/.exec(rendition)?.[1] ?? '') ?? '';
    const file = objects.get(/\/EF\s*<<\s*\/F\s+(\d+) 0 R/.exec(specification)?.[1] ?? '') ?? '';
    found.set(item, Number(/\/Size\s+(\d+)/.exec(file)?.[1] ?? 0));
  }
  return found;
}
