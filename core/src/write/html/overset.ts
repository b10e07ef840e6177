import { Composer } from '../../compose/compose.ts';
import type { Composition } from '../../compose/marks.ts';
import type { Item, TextFrame } from '../../folio/items.ts';
import type { WriteJob } from '../writer.ts';
import type { HtmlSettings } from './settings.ts';

/** Points of room that a text gets to be set to its end: more than any text of a publication needs. */
const ROOM = 100_000;

interface SetToEnd {
  composition: Composition;
  /** Frames that hold more than they have room for. */
  frames: ReadonlySet<string>;
}

const known = new WeakMap<Composition, SetToEnd>();

/**
 * Texts that do not fit, set to their ends as if their last frames went on below; nothing else moves. Frames of several columns
 * are left alone, since a longer first column would take what is in the others.
 */
function setToEnd({ folio, composition, fonts }: WriteJob<HtmlSettings>): SetToEnd {
  const kept = known.get(composition);
  if (kept) return kept;
  const frames = new Set<string>();
  const spreads = { ...folio.spreads };
  for (const [id, story] of Object.entries(folio.stories)) {
    const last = story.frames.at(-1);
    const spread = last && spreads[last.spread];
    const frame = last && spread?.items[last.item];
    if (!composition.stories.get(id)?.overflow || !spread || frame?.kind !== 'textFrame' || frame.columns > 1) continue;
    const longer: TextFrame = {
      ...frame,
      size: { ...frame.size, height: ROOM },
      ...(frame.verticalAlign !== 'top' && { verticalAlign: 'top' }),
    };
    spreads[spread.id] = { ...spread, items: { ...spread.items, [frame.id]: longer as Item } };
    frames.add(frame.id);
  }
  const made: SetToEnd = frames.size
    ? { composition: new Composer(fonts).compose({ ...folio, spreads }), frames }
    : { composition, frames };
  known.set(composition, made);
  known.set(made.composition, made);
  return made;
}

/** The same job with all of each text in its frames, where the recipe shows what has no room. */
export function withOversetShown(job: WriteJob<HtmlSettings>): WriteJob<HtmlSettings> {
  return job.settings.overset === 'cut' ? job : { ...job, composition: setToEnd(job).composition };
}

/** Frames whose text is scrolled to its end. */
export const scrolledFrames = (job: WriteJob<HtmlSettings>): ReadonlySet<string> =>
  job.settings.overset === 'scroll' ? setToEnd(job).frames : new Set();
