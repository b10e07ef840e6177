import { cueFact, factKey, fieldFact, switcherFact, transitionFact, veilFact } from '../motionFacts.ts';
import type { MotionFacts } from '../motionFacts.ts';
import { resolve } from './address.ts';
import { attribute, elementsOf, textOf } from './dom.ts';
import type { Element } from './dom.ts';

const PT = 0.75;
type Json = Record<string, unknown>;

/**
 * What a page of HTML says of its motion: its controls, its cards, its films, and the program beside it. A part of which only
 * the program knows is none: it must have its element too.
 */
export async function observeMotion(
  path: string,
  all: readonly Element[],
  file: (path: string) => Promise<Uint8Array | undefined>,
  facts: MotionFacts,
): Promise<void> {
  const byItem = new Map<string, Element[]>();
  for (const e of all) {
    const id = attribute(e, 'data-item');
    if (id !== undefined) byItem.set(id, [...(byItem.get(id) ?? []), e]);
  }
  for (const e of all) {
    const field = attribute(e, 'data-field');
    if (field !== undefined) facts.set(factKey('item', field, 'field'), fieldFact(controlOf(e)));
  }
  for (const [item, elements] of byItem)
    for (const e of elements.flatMap((x) => [...elementsOf(x)])) {
      const src = resolve(path, attribute(e, 'src') ?? '');
      if ((e.tagName === 'video' || e.tagName === 'audio') && src)
        facts.set(factKey('item', item, 'media'), `${(await file(src.file))?.byteLength ?? 0} bytes`);
      if (e.tagName === 'iframe')
        facts.set(
          factKey('item', item, 'embed'),
          attribute(e, 'sandbox') === undefined ? 'a frame without a sandbox' : await shownIn(path, attribute(e, 'src') ?? '', file),
        );
    }
  const program = programOf(all);
  if (!program) return;
  for (const [id, s] of entries(program['switchers'])) {
    const box = byItem.get(id)?.find((e) => [...elementsOf(e)].some((x) => attribute(x, 'data-card') !== undefined));
    const shown = box ? [...elementsOf(box)].flatMap((e) => attribute(e, 'data-card') ?? []) : [];
    const names = s['names'] as string[];
    const advance = s['advance'] as { seconds: number[]; loop: boolean } | undefined;
    const known = s['cards'] as string[];
    const cards = shown.filter((c) => known.includes(c)).map((c) => ({ id: c, name: names[known.indexOf(c)] ?? '' }));
    facts.set(factKey('item', id, 'motion'), switcherFact({ cards, change: s['change'] as never, advance }));
  }
  for (const [id, v] of entries(program['veils'])) {
    const { rows, size, pitch, lift, rest, action } = v as {
      rows: number[][];
      size: number;
      pitch: number;
      lift: string;
      rest: number;
      action: string;
    };
    const flakes = byItem.has(id) ? rows.flat().length : 0;
    facts.set(factKey('item', id, 'motion'), veilFact({ flakes, size: size * PT, pitch: pitch * PT, lift, rest, action }));
  }
  const pressed = new Set(all.flatMap((e) => attribute(e, 'data-press') ?? []));
  for (const cue of program['cues'] as { id: string; on: string; when: string; steps: { do: string }[] }[]) {
    const reaches = cue.when !== 'press' || pressed.has(cue.on);
    facts.set(
      factKey('cue', cue.id, 'motion'),
      reaches
        ? cueFact(
            cue.when,
            cue.steps.map((s) => s.do),
          )
        : 'there is nothing to press',
    );
  }
  const pageOf = (element: string): string | undefined => {
    const e = all.find((x) => attribute(x, 'id') === element);
    return e && attribute(e, 'data-page');
  };
  for (const [element, t] of entries(program['transitions'])) {
    const page = pageOf(element);
    if (page !== undefined) facts.set(factKey('page', page, 'transition'), transitionFact(t as { style: string; seconds: number }));
  }
  for (const [element, seconds] of Object.entries((program['advance'] ?? {}) as Record<string, number>)) {
    const page = pageOf(element);
    if (page !== undefined) facts.set(factKey('page', page, 'advance'), `after ${seconds} s`);
  }
}

/** What a frame shows: an address, or files of the result, by the name of the folder that they came in. */
async function shownIn(from: string, src: string, file: (path: string) => Promise<Uint8Array | undefined>): Promise<string> {
  if (/^https?:/i.test(src)) return src;
  const at = resolve(from, src);
  const isThere = at && (await file(decodeURIComponent(at.file)))?.byteLength;
  return isThere ? `files of ${/^embeds\/(.+?)(-[0-9a-f]{8,})?\.html$/.exec(at.file)?.[1] ?? src}` : `nothing at ${src}`;
}

const entries = (value: unknown): [string, Json][] => Object.entries((value ?? {}) as Record<string, Json>);

function programOf(all: readonly Element[]): Json | null {
  const script = all.find((e) => e.tagName === 'script' && attribute(e, 'id') === 'program');
  try {
    return script ? (JSON.parse(textOf(script)) as Json) : null;
  } catch {
    return null;
  }
}

/** A control by its element (HTML, section 4.10). */
function controlOf(e: Element): Parameters<typeof fieldFact>[0] {
  const has = (name: string): boolean => attribute(e, name) !== undefined;
  const types: Record<string, string> = { checkbox: 'checkBox', radio: 'radio', date: 'date', text: 'text' };
  const type = { textarea: 'text', select: 'choice', button: 'button' }[e.tagName] ?? types[attribute(e, 'type') ?? 'text'] ?? e.tagName;
  const chosen = e.tagName === 'select' ? [...elementsOf(e)].find((o) => attribute(o, 'selected') !== undefined) : undefined;
  return {
    type,
    name: attribute(e, 'name') ?? '',
    label: attribute(e, 'aria-label') ?? attribute(e, 'title') ?? '',
    value: chosen ? (attribute(chosen, 'value') ?? '') : e.tagName === 'textarea' ? textOf(e) : (attribute(e, 'value') ?? ''),
    on: has('checked'),
    required: has('required'),
  };
}
