import { fieldsAsSet } from '../../compose/fields.ts';
import { fieldText } from '../../compose/fieldText.ts';
import { rectPath, translation } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import { pagesAt, spreadInLayout } from '../../folio/joinedSpreads.ts';
import { playedFile } from '../../folio/playedFile.ts';
import { paintOrder, pageOfItem, printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { flowOf } from '../../structure/flow.ts';
import { isUnread } from '../../structure/readingOrder.ts';
import { textPieces } from '../../structure/textPieces.ts';
import { flowFields } from '../reflow/flowFields.ts';
import { drawingOf } from '../opendocument/drawing.ts';
import { packOdf } from '../opendocument/odfPackage.ts';
import type { OdfSources } from '../opendocument/odfSources.ts';
import { OdfFiles, PlacedFiles } from '../opendocument/placedFiles.ts';
import { divide, isOfPage } from '../office/dividePage.ts';
import { widenedBy } from '../office/gapInLine.ts';
import { leadingOfParagraphs } from '../office/leading.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { repeatedLook } from '../office/repeatedLook.ts';
import { outputFile, streamedFile } from '../assets/outputFile.ts';
import { itemsOfPage } from '../pages/paintedPage.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import { slideScope } from '../office/slideScope.ts';
import type { Scope } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { OriginalPages } from './originalPages.ts';
import type { OdpSettings } from './settings.ts';
import { SlideSigns } from './slideSigns.ts';

const MEDIA_TYPE = 'application/vnd.oasis.opendocument.presentation';

export const fileName = ({ template }: Pick<OdpSettings, 'template'>): string => (template ? 'document.otp' : 'document.odp');

/** Writes a presentation of OpenDocument (OASIS OpenDocument 1.3; ISO/IEC 26300): every page a slide, everything on it in its place. */
export async function* writeOdp(job: WriteJob<OdpSettings>): AsyncGenerator<OutputFile> {
  const { settings, folio } = job;
  const files = new OdfFiles(settings.pictures);
  // What is filled in elsewhere does not come back.
  const signs = promptsIn(job) ? null : new SlideSigns();
  const original = await OriginalPages.of(job, slideScope(job), signs);
  const sources = { ...(await sourcesOf(job, files)), original, ...(signs && { takes: signs }) };
  const { content, styles, meta } = drawingOf(folio, 'presentation', sources);
  const mediaType = settings.template ? `${MEDIA_TYPE}-template` : MEDIA_TYPE;
  const zip = packOdf(mediaType, { 'content.xml': content, 'styles.xml': styles, 'meta.xml': meta }, [
    ...(signs?.files(folio) ?? []),
    ...files.inside.values(),
    ...(original?.graft.files ?? []),
  ]);
  yield streamedFile(fileName(settings), mediaType, zip);
  for (const { path, mediaType: type, content: bytes } of files.beside.values()) yield outputFile(path, type, bytes as Uint8Array);
}

/** Whether programs that count slides from one show the number that is printed on a page. */
export const countsPage = ({ pages }: Pick<Scope, 'pages'>, place: PagePlace): boolean =>
  !place.joins && printedNumber(place) === String(pages.findIndex((p) => p.page.id === place.page.id) + 1);

async function sourcesOf(job: WriteJob<OdpSettings>, files: OdfFiles): Promise<OdfSources> {
  const { folio, composition, settings } = job;
  const scope = slideScope(job);
  const placed = await PlacedFiles.of(job, scope, files);
  const fields = { ...flowFields(folio, flowOf(folio, composition, scope)).sources, ...fieldsAsSet(folio, composition) };
  const places = new Map(scope.pages.flatMap((p) => pagesAt(p).map(({ id }) => [id, p] as const)));
  const live = (page: string): boolean => settings.fields === 'live' && !!places.get(page) && countsPage(scope, places.get(page)!);
  const divided = new Map(
    scope.pages.map((place) => {
      const items = itemsOfPage(folio, place, scope, () => true).filter((i) => !i.unseen);
      return [
        place.page.id,
        divide(items, place, (id) => placed.looks.isOfPage(id) || isOfPage(folio, composition, id, live(place.page.id))),
      ];
    }),
  );
  const byItem = new Map<string, { at: PageItem; place: PagePlace }>();
  for (const place of scope.pages) {
    const { onLayout, onSlide } = divided.get(place.page.id)!;
    for (const at of [...onLayout, ...onSlide]) if (at.own || !byItem.has(at.item.id)) byItem.set(at.item.id, { at, place });
  }
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  const played = await playedFiles(job, scope, files);
  return {
    pages: scope.pages,
    title: settings.title || folio.head.metadata.title,
    language: settings.language || folio.head.metadata.language,
    transitions: settings.transitions,
    notes: settings.notes,
    master: (place) => {
      const { onLayout } = divided.get(place.page.id)!;
      const { page, spread } = place;
      return {
        key: repeatedLook(folio, composition, place, onLayout, live(page.id)),
        name: page.master === undefined ? undefined : folio.head.masterPages[page.master]?.name,
        shows: onLayout.length > 0,
        items: spread.items,
        order: onLayout.map(({ item }) => item),
        origin: translation(-page.box.x, -page.box.y),
      };
    },
    own: (place) => {
      const repeated = new Set(divided.get(place.page.id)!.onLayout.map(({ item }) => item.id));
      return [...groundsOf(place), ...paintOrder(folio, place.spread).filter((item) => !repeated.has(item.id) && isOn(place, item))];
    },
    drawn: (item) => placed.drawn(item),
    shown: (item) => scope.shown(item),
    unread: (item) => isUnread(folio, item.id) || isGround(item),
    picture: (item) => {
      const known = byItem.get(item.id);
      return known ? placed.picture(known.at, known.place) : null;
    },
    played: (item) => played.get(item.id) ?? null,
    pageOf: (item, page) => {
      const place = places.get(page);
      return place ? pageOfItem(spreadInLayout(place), item).id : page;
    },
    instead: replacementsOf(settings),
    pieces: textPieces(folio, composition, scope),
    pitch: (paragraph) => leading(paragraph).points,
    gap: (width, look) => widenedBy(width, look, job.fonts),
    field: (node, page) => {
      const shows = fieldText(folio, node, { ...fields, page });
      const isLive = settings.fields === 'live' && (node.field === 'title' || (node.field === 'pageNumber' && live(page)));
      return { shows, live: isLive };
    },
    target: (destination, page) => scope.targets.of(destination, page),
  };
}

const GROUND = 'ground/';
const isGround = ({ id }: Item): boolean => id.startsWith(GROUND);
/** Pages that are one slide keep their own grounds, as sheets below all else. */
const groundsOf = (place: PagePlace): Item[] =>
  (place.joins ?? []).flatMap(({ id, box, background }): Item[] =>
    background.type === 'none'
      ? []
      : [
          {
            kind: 'shape',
            id: `${GROUND}${id}`,
            name: 'Page',
            layer: '',
            transform: [1, 0, 0, 1, box.x, box.y],
            path: rectPath({ x: 0, y: 0, width: box.width, height: box.height }),
            fillRule: 'nonzero',
            fill: background,
            stroke: null,
            opacity: 1,
            blend: 'normal',
            effects: {},
            wrap: { kind: 'none', side: 'both', offset: 0 },
            locked: false,
            cues: {},
          },
        ],
  );

/** What only reaches over from a neighbouring page stands there. */
const isOn = ({ spread, page }: PagePlace, item: Item): boolean => pageOfItem(spread, item).id === page.id;

async function playedFiles(
  { folio, media, settings }: WriteJob<OdpSettings>,
  scope: Scope,
  { inside: files }: OdfFiles,
): Promise<Map<string, { href: string; mediaType: string }>> {
  const out = new Map<string, { href: string; mediaType: string }>();
  if (settings.media !== 'inside') return out;
  for (const { spread } of scope.pages)
    for (const item of Object.values(spread.items)) {
      const file = scope.shown(item) ? playedFile(folio, item) : null;
      if (!file || out.has(item.id)) continue;
      const path = `Media/${file.file.replace(/^.*\//, '')}`;
      if (!files.has(path)) files.set(path, { path, mediaType: file.mediaType, content: await media(file.id) });
      out.set(item.id, { href: path, mediaType: file.mediaType });
    }
  return out;
}
