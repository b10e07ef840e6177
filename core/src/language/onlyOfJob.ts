import type { HeardRow } from '../edit/log.ts';
import type { Patch } from '../edit/apply.ts';
import type { Edition, TranslatedUnit } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Story } from '../folio/story.ts';
import { pagesOf, storyOfFrame } from '../folio/traverse.ts';
import { unitsOf } from './unitsOf.ts';

/** A job of which a document is shown: a language, and the names of its texts. */
export interface JobTexts {
  language: string;
  units: readonly string[];
}

/** Which spreads and texts belong to a job. */
interface Reach {
  spreads: ReadonlySet<string>;
  stories: ReadonlySet<string>;
  pages: number[];
}

/** Spreads that show a text of the job, with all that stands on them; what repeats on all pages is seen with each. */
export function reachOf(folio: Folio, { units }: JobTexts): Reach {
  const asked = new Set(units);
  const all = pagesOf(folio);
  const mine = unitsOf(folio).filter((u) => asked.has(u.id));
  const numbers = new Set(mine.flatMap((u) => (u.kind === 'master' ? [] : [...u.pages])));
  const stories = new Set(mine.flatMap((u) => (u.story === undefined ? [] : [u.story])));
  // A text goes on through its frames: all of them are needed to set it.
  for (const id of stories) for (const frame of folio.stories[id]?.frames ?? []) if (frame.spread) numbers.add(pageOf(all, frame.spread));
  const spreads = new Set(all.filter((p) => numbers.has(p.number)).map((p) => p.spread.id));
  if (!spreads.size && all[0]) spreads.add(all[0].spread.id);
  const frames = storyOfFrame(folio);
  for (const id of spreads)
    for (const item of Object.values(folio.spreads[id]!.items)) if (frames.has(item.id)) stories.add(frames.get(item.id)!);
  for (const master of Object.values(folio.head.masterPages))
    for (const item of Object.values(master.items)) if (frames.has(item.id)) stories.add(frames.get(item.id)!);
  return { spreads, stories, pages: all.filter((p) => spreads.has(p.spread.id)).map((p) => p.number) };
}

const pageOf = (pages: ReturnType<typeof pagesOf>, spread: string): number => pages.find((p) => p.spread.id === spread)?.number ?? 0;

/**
 * The document as a translator sees it: its own language and theirs, the spreads of the job, all other pages blank and all other texts
 * empty. Pages keep their numbers. Nothing of outputs, of other languages, or of files that are not seen is in it.
 */
export function onlyOfJob(folio: Folio, job: JobTexts): Folio {
  const { spreads, stories } = reachOf(folio, job);
  const shown = {
    spreads: Object.fromEntries(
      Object.entries(folio.spreads).map(([id, s]) => [
        id,
        spreads.has(id) ? s : { ...s, items: {}, order: [], pages: s.pages.map((p) => ({ ...p, notes: undefined, cues: {} })) },
      ]),
    ),
    stories: Object.fromEntries(Object.entries(folio.stories).map(([id, s]) => [id, stories.has(id) ? s : emptied(s)])),
  };
  const { head } = folio;
  const pictures = picturesOf([
    ...Object.values(shown.spreads).flatMap((s) => Object.values(s.items)),
    ...Object.values(head.masterPages).flatMap((m) => Object.values(m.items)),
  ]);
  const items = new Set(
    [...Object.values(shown.spreads), ...Object.values(shown.stories), ...Object.values(head.masterPages)].flatMap((s) =>
      Object.keys(s.items),
    ),
  );
  // What stands in for a picture in the language of the job is seen as well.
  for (const [item, { media }] of Object.entries(folio.editions[job.language]?.overrides.pictures ?? {}))
    if (items.has(item)) pictures.add(media);
  const paragraphs = new Set(Object.values(shown.stories).flatMap((s) => Object.keys(s.blocks)));
  const { structure } = head;
  const of = <T>(record: Record<string, T>, keep: (id: string, value: T) => boolean): Record<string, T> =>
    Object.fromEntries(Object.entries(record).filter(([id, value]) => keep(id, value)));
  const asked = new Set(job.units);
  const about = [...asked].some((u) => u.startsWith('meta:'));
  const document = {
    ...shown,
    head: {
      ...head,
      media: of(head.media, (id) => pictures.has(id)),
      metadata: about ? head.metadata : { ...head.metadata, description: undefined, subjects: [], creators: [], identifier: undefined },
      structure: {
        ...structure,
        strands: structure.strands.map((s) => ({ ...s, entries: s.entries.filter((e) => spreads.has(e.spread)) })),
        pins: of(structure.pins, (_, pin) => paragraphs.has(pin.paragraph)),
        outline: of(structure.outline, (id) => paragraphs.has(id)),
        sectionStarts: structure.sectionStarts.filter((id) => paragraphs.has(id)),
      },
      opening: undefined,
    },
    editions: {},
    recipes: {},
  } as Folio;
  const seen = new Set(unitsOf(document).map((u) => u.id));
  const editions = of(folio.editions, (id) => id === job.language || id === folio.editions[job.language]?.basedOn);
  return {
    ...document,
    editions: Object.fromEntries(
      Object.entries(editions).map(([id, edition]): [string, Edition] => [
        id,
        {
          ...edition,
          units: Object.fromEntries(
            Object.entries(edition.units).flatMap(([unit, said]) => (seen.has(unit) ? [[unit, asked.has(unit) ? said : bare(said)]] : [])),
          ),
          overrides: {
            ...edition.overrides,
            pictures: of(edition.overrides.pictures, (item) => items.has(item)),
            links: of(edition.overrides.links, (link) => stories.has(link.slice(0, link.indexOf('/')))),
            tightened: of(edition.overrides.tightened, (story) => stories.has(story)),
          },
        },
      ]),
    ),
  };
}

/** What stands beside a job is seen as it is said now: not who said it, what it was before, or what was remarked on it. */
const bare = ({ segments, ...unit }: TranslatedUnit): TranslatedUnit => ({
  ...unit,
  segments: segments.map(({ source, glue, target, state }) => ({ source, ...(glue && { glue }), target, state })),
});

/** A text with nothing in it but one paragraph that says nothing. */
function emptied(story: Story): Story {
  const paragraph = Object.values(story.blocks).find((b) => b.kind === 'paragraph');
  if (!paragraph) return { ...story, frames: [], order: [], blocks: {}, links: {} };
  return { ...story, frames: [], order: [paragraph.id], blocks: { [paragraph.id]: { ...paragraph, content: [] } }, links: {} };
}

function picturesOf(items: readonly Item[]): Set<string> {
  return new Set(
    items.flatMap((i) => [
      ...('media' in i && typeof i.media === 'string' ? [i.media] : []),
      ...(i.kind === 'media' && i.poster ? [i.poster] : []),
    ]),
  );
}

/** What of changes by others a translator may hear: what belongs to the job, and nothing of the rest. */
export function rowsOfJob(folio: Folio, job: JobTexts, rows: readonly HeardRow[]): HeardRow[] {
  const { spreads, stories } = reachOf(folio, job);
  const asked = new Set(job.units);
  const heard = ({ path }: Patch): boolean => {
    const [part, id] = path;
    // Whole parts at once are fetched anew instead.
    if (path.length < 2) return false;
    if (part === 'spreads') return spreads.has(String(id));
    if (part === 'stories') return stories.has(String(id)) && path.length > 2;
    if (part === 'editions') return id === job.language && (path[2] === 'locks' || (path[2] === 'units' && asked.has(String(path[3]))));
    return part === 'head' && /Styles$/.test(String(id));
  };
  return rows.map(({ seq, base, at, group, uid, patches }) => ({
    seq,
    base,
    at,
    group,
    ...(uid !== undefined && { uid }),
    actor: '',
    edit: { kind: 'undo', args: { rows: [] } },
    patches: patches.filter(heard),
    touched: [],
  }));
}
