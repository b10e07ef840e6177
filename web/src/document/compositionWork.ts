/// <reference lib="webworker" />
import { applyLogged, paragraphPlaces, shownSpread, suggestPins } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import type { FontEntry } from '@elastic-folio/core/api';
import { composedSpread, Composer, lacksHyphenation, loadFonts, spokenLanguages, wantedFamilies } from '@elastic-folio/core/compose';
import { composedFill } from './composedFill.ts';
import { inEdition, inForecast } from '@elastic-folio/core/language';
import type { Composition, FontOrigin, FontSet, FontSource } from '@elastic-folio/core/compose';
import { paintPaper } from '@elastic-folio/core/paint';
import type { SvgOptions } from '@elastic-folio/core/paint';
import { findingsOf, fontReport } from '@elastic-folio/core/check';
import type { FromWorker, PaintedNews, ToWorker } from './compositionMessages.ts';
import { PaintedItems } from './paintedItems.ts';
import { RecentSpreads } from './recentSpreads.ts';

let folio: Folio | null = null;
/** The edition that is shown; null: the document in its own language. */
let language: string | null = null;
/** The document as it is shown. An edition that has gone meanwhile is none. */
const shown = (): Folio | null => {
  if (!folio || language === null || !folio.editions[language]) return folio;
  return inEdition(forecast === null ? folio : expected(folio, language, forecast), language);
};
/** How long open texts are taken to become; null: as they are. */
let forecast: number | null = null;
let lastExpected: { of: Folio; language: string; ratio: number; folio: Folio } | null = null;
function expected(of: Folio, language: string, ratio: number): Folio {
  if (lastExpected?.of !== of || lastExpected.language !== language || lastExpected.ratio !== ratio)
    lastExpected = { of, language, ratio, folio: inForecast(of, language, ratio) };
  return lastExpected.folio;
}
let id = '';
let root = '';
let fonts: FontSet | null = null;
let composer: Composer | null = null;
let visible: string[] = [];
let stamp = 0;
/** Parts of the document are still on their way. */
let incomplete = true;
let lastState = '';
const sent = new Map<string, PaintedItems>();
let recent = new RecentSpreads();
let turn: Promise<void> = Promise.resolve();

const post = (message: FromWorker): void => self.postMessage(message);

/** Takes messages one after another: each sees the document as the one before left it. */
export function handle(message: ToWorker): Promise<void> {
  turn = turn
    .then(() => take(message))
    .catch((error: unknown) => post({ type: 'failed', message: error instanceof Error ? error.message : String(error) }));
  return turn;
}

async function take(message: ToWorker): Promise<void> {
  if (message.type === 'open') {
    id = message.id;
    root = message.root;
    folio = { head: message.head, spreads: {}, stories: {}, editions: message.editions, recipes: {} };
    language = null;
    forecast = null;
    await takeFonts(message.fonts);
    sent.clear();
    recent = new RecentSpreads();
    lastState = '';
    incomplete = true;
    return;
  }
  if (!folio) return;
  if (message.type === 'parts') {
    folio = { ...folio, spreads: { ...folio.spreads, ...message.spreads }, stories: { ...folio.stories, ...message.stories } };
    incomplete = message.more;
  } else if (message.type === 'patches' || message.type === 'whole') {
    folio = message.type === 'whole' ? message.folio : applyLogged(folio, message.patches);
    stamp = message.stamp;
  } else if (message.type === 'language') {
    language = message.language;
    forecast = message.forecast;
    sent.clear();
    lastState = '';
  } else if (message.type === 'fonts') {
    await takeFonts(message.fonts);
  } else {
    visible = message.spreads;
    for (const gone of recent.show(visible)) sent.delete(gone);
  }
  if (fontsAsked(shown()!) !== asked || lacksHyphenation(spoken())) await takeFonts(there);
  await composed();
}

/** What a document's choice of fonts depends on. */
const fontsAsked = ({ head }: Folio): string => JSON.stringify([[...wantedFamilies(head)], head.standIns]);
/** What the shown edition and the document's own texts are in: both are set, to compare how full frames are. */
const spoken = (): Set<string> => new Set([...spokenLanguages(folio!), ...spokenLanguages(shown()!)]);
let asked = '';
let there: FontEntry[] = [];
const loadedFiles = new Map<string, Promise<Uint8Array>>();
/** Shipped faces that text has asked for by now. */
const wantedFaces = new Set<string>();

/**
 * Loads the fonts that the document can need of those that are there; files come once. One that did not come, because the server was
 * away, is asked for again with the next change.
 */
async function takeFonts(list: FontEntry[]): Promise<void> {
  if (!folio) return;
  there = list;
  asked = fontsAsked(shown()!);
  const fetched = async (key: string): Promise<Uint8Array> => {
    const answer = await fetch(`${root}/folios/${encodeURIComponent(id)}/fonts/${encodeURIComponent(key)}`);
    if (!answer.ok) throw new Error('it did not arrive');
    return new Uint8Array(await answer.arrayBuffer());
  };
  const again = (key: string): void => {
    loadedFiles.delete(key);
    asked = '';
  };
  const bytes = (key: string): Promise<Uint8Array> => {
    let file = loadedFiles.get(key);
    if (!file) {
      loadedFiles.set(key, (file = fetched(key)));
      file.catch(() => again(key));
    }
    return file;
  };
  const from = (origin: FontOrigin): FontSource => ({ origin, list: () => list.filter((f) => f.origin === origin), bytes });
  fonts = await loadFonts(shown()!.head, [from('document'), from('library'), from('shipped')], {
    faces: wantedFaces,
    languages: spoken(),
  });
  composer = new Composer(fonts);
}

/** Background work is cut into pieces this long, so that what a person does next never waits for it. */
const SLICE_MS = 30;
let background: ReturnType<typeof setTimeout> | null = null;

/** Whether text has asked for faces that are not there yet; they are wanted from now on. */
function asksForMore(): boolean {
  if (!fonts?.awaited.size) return false;
  for (const key of fonts.awaited) wantedFaces.add(key);
  return true;
}

/** Sets the document, with every face that its text asks for. */
async function composed(): Promise<void> {
  compose();
  while (asksForMore()) {
    await takeFonts(there);
    compose();
  }
}

/** Sets text anew once faces are there that it asked for behind the scenes. */
const composeAnew = (): void => void (turn = turn.then(composed));

/** Sets and paints what is seen at once; the rest of long texts follows in the background. */
function compose(): void {
  const folio = shown();
  if (!folio || !composer || !fonts) return;
  if (background !== null) clearTimeout(background);
  background = null;
  if (looking !== null) clearTimeout(looking);
  looking = null;
  const itemsOn = (id: string): string[] => (folio.spreads[id] ? Object.keys(shownSpread(folio, folio.spreads[id]).items) : []);
  const frames = new Set(visible.flatMap(itemsOn));
  const composition = composer.compose(folio, { frames, incomplete });
  if (incomplete) return paint(composition, false);
  if (composer.isWhole) return paint(composer.compose(folio), true);
  paint(composition, false);
  const follow = (): void => {
    background = null;
    if (!composer) return;
    const done = composer.goOn(SLICE_MS, () => performance.now());
    if (done) paint(composer.compose(folio), true);
    if (asksForMore()) composeAnew();
    else if (!done) background = setTimeout(follow);
  };
  background = setTimeout(follow);
}

/** Sends what has changed of the spreads that are seen; once all is set, what a person should know of the texts too. */
function paint(composition: Composition, whole: boolean): void {
  const source = folio;
  const shownNow = shown();
  if (!source || !shownNow || !fonts) return;
  // Nothing is shown in faces that only stand in for a moment.
  if (!fonts.awaited.size) paintOf(source, shownNow, composition, whole);
}

function paintOf(source: Folio, folio: Folio, composition: Composition, whole: boolean): void {
  if (!fonts) return;
  const painted: PaintedNews[] = [];
  const { head } = folio;
  const options: SvgOptions = {
    outlines: null,
    href: (media) =>
      head.media[media]?.mediaType.startsWith('image/') ? `${root}/folios/${encodeURIComponent(id)}/media/${media}?width=1600` : undefined,
    shown: (item) => head.layers[item.layer]?.visible !== false,
  };
  for (const spreadId of visible) {
    const bare = folio.spreads[spreadId];
    if (!bare) continue;
    const spread = composedSpread(folio, composition, bare);
    let items = sent.get(spreadId);
    if (!items) sent.set(spreadId, (items = new PaintedItems()));
    const news = items.paint(folio, composition, spread, options);
    if (!news) continue;
    const paper = spread.pages.map((p) => paintPaper(folio, p)).join('');
    const seen = (frame: string): boolean => head.layers[spread.items[frame]!.layer]?.visible !== false;
    const places = paragraphPlaces(composition, spread).filter((p) => seen(p.frame));
    painted.push({ spread: spreadId, paper, places, ...news });
  }
  post({ type: 'painted', spreads: painted, stamp });
  if (!whole) return;
  const state: FromWorker = {
    type: 'state',
    overflow: Object.fromEntries([...composition.stories].map(([k, set]) => [k, set.overflow])),
    fill: language === null ? {} : composedFill(source, fonts, folio, composition),
    missing: Object.fromEntries(
      [...composition.stories].flatMap(([k, set]) =>
        set.missingGlyphs.length ? [[k, [...new Set(set.missingGlyphs.map((g) => g.character))]] as const] : [],
      ),
    ),
  };
  // The other language may have asked for faces.
  if (asksForMore()) return composeAnew();
  // Most keystrokes change nothing here, and then nothing else needs to be shown anew.
  const text = JSON.stringify(state);
  if (text !== lastState) post(state);
  lastState = text;
  lookLater(composition);
}

/** After this long without a change the document is looked through: what a person does next never waits for it. */
const LOOK_AFTER_MS = 400;
let looking: ReturnType<typeof setTimeout> | null = null;

function lookLater(composition: Composition): void {
  if (looking !== null) clearTimeout(looking);
  looking = setTimeout(() => {
    looking = null;
    const folio = shown();
    if (!folio || !fonts) return;
    const findings = findingsOf(folio, composition, fonts);
    post({ type: 'findings', findings, fonts: fontReport(fonts), pins: suggestPins(folio, composition) });
  }, LOOK_AFTER_MS);
}
