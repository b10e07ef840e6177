import type { Cue, Step } from '../../folio/motion.ts';
import type { Item, Media, Switcher } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { leavesOf, onCard } from '../../folio/traverse.ts';
import { isDead, itemsById, nearItem } from '../../motion/liveTargets.ts';
import type { LayerRef, PdfLayers } from '../../paint/pdf/pdfLayers.ts';
import type { PdfCanvas } from '../../paint/pdf/pdfCanvas.ts';
import { pageDestination } from '../../structure/pageDestination.ts';
import type { CardOf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { EVENTS, lackOf } from './cueActions.ts';
import type { PdfReach } from './cueActions.ts';
import type { PageState, PageStates } from './pageStates.ts';
import type { PdfSettings } from './settings.ts';

type Action = Record<string, unknown>;
const text = (value: string): unknown => new String(value);
/** Answers go as forms of the web send them (ISO 32000-1, table 237, bit 3: ExportFormat). */
const AS_HTML_FORM = 1 << 2;

/** A press that does one thing while one card is in sight, and another while another is. */
interface CardStep {
  switcher: Switcher;
  step: Extract<Step, { do: 'showCard' }>;
}

/** Turns cues into the actions of a PDF (ISO 32000-1, 12.6), and says which parts of pages they show and hide. */
export class PdfCues {
  /** Items that cues show or hide, with what they begin as. */
  private readonly switched = new Map<string, boolean>();
  private readonly screens = new Map<string, LayerRef>();
  private readonly renditions = new Map<string, LayerRef>();

  constructor(
    private readonly job: WriteJob<PdfSettings>,
    private readonly scope: Scope,
    private readonly canvas: PdfCanvas,
    private readonly layers: PdfLayers,
    private readonly states: PageStates,
  ) {
    for (const place of scope.pages)
      for (const { cue, holder } of cuesOn(place))
        for (const step of this.stepsOf(cue, place.page.id))
          if (step.do === 'show' || step.do === 'hide' || step.do === 'toggle')
            for (const id of this.parts(place, step.items, holder)) this.switched.set(id, this.startsOff(place, id));
  }

  private startsOff({ spread }: PagePlace, id: string): boolean {
    const held = Object.values(spread.items).find((i) => i.kind === 'group' && leavesOf(spread.items, i).has(id));
    return spread.items[id]?.startsHidden === true || held?.startsHidden === true;
  }

  /** The layers that an item is drawn in, from the outside in: its cards', and its own where cues show or hide it. */
  layersOf(item: Item, cards: readonly CardOf[]): LayerRef[] {
    const own = this.switched.get(item.id);
    return [
      ...cards.map((c) => this.card(c.switcher, c.index)),
      ...(own === undefined ? [] : [this.layers.of(item.id, item.name ?? item.alt ?? item.id, own)]),
    ];
  }

  private readonly turned = new Map<string, LayerRef[]>();
  private card(switcher: Switcher, index: number): LayerRef {
    let refs = this.turned.get(switcher.id);
    if (!refs) {
      refs = switcher.cards.map((c, i) => this.layers.of(`${switcher.id}/${c.id}`, c.name, i > 0));
      this.turned.set(switcher.id, refs);
      this.layers.oneAtATime(refs);
    }
    return refs[index]!;
  }

  /**
   * The annotation in which a film or sound is played, one on each page of the file that shows it: known before it is drawn,
   * since cues on other pages act on it.
   */
  screenOf(media: string, here: PageState): LayerRef {
    const key = `${media} ${this.states.home(media, here).name}`;
    let ref = this.screens.get(key);
    if (!ref) this.screens.set(key, (ref = this.canvas.object({})));
    return ref;
  }

  /** What is played there, an object of its own since actions name it too (table 214, R). */
  renditionOf(media: string): LayerRef {
    let ref = this.renditions.get(media);
    if (!ref) this.renditions.set(media, (ref = this.canvas.object({})));
    return ref;
  }

  /** Steps that the file has an action for, as far as what they act on is there. */
  private stepsOf(cue: Cue, page: string): Step[] {
    const reach = reachFrom(this.job, this.scope, page);
    return EVENTS[cue.trigger.when]
      ? cue.steps.filter((s) => !isDead(this.job.folio, s) && lackOf(s, cue.trigger.when, reach) === null)
      : [];
  }

  /**
   * What a cue does where a page is in this state, as actions that follow one another. A press that turns cards in layers is
   * several: one for each card in sight, in that card's layer, since the file does not count.
   */
  actions(place: PagePlace, state: PageState, cue: Cue, holder: string): { action: Action; layer?: LayerRef }[] {
    const steps = this.stepsOf(cue, place.page.id);
    const turning = steps.flatMap((s): CardStep[] => {
      if (s.do !== 'showCard' || (s.card !== 'next' && s.card !== 'previous')) return [];
      const switcher = this.switcher(place, s.switcher, holder);
      return switcher ? [{ switcher, step: s }] : [];
    })[0];
    const chain = (at: number): Action | null =>
      chained(
        steps.flatMap((s): Action[] => {
          const action = this.action(place, state, s, holder, s === turning?.step ? turnedFrom(turning, at) : null);
          return action ? [action] : [];
        }),
      );
    if (!turning || this.arePages) {
      const action = chain((turning && state.seen.get(turning.switcher.id)) ?? 0);
      return action ? [{ action }] : [];
    }
    return turning.switcher.cards.flatMap((_, i) => {
      const action = chain(i);
      return action ? [{ action, layer: this.card(turning.switcher, i) }] : [];
    });
  }

  private get arePages(): boolean {
    return this.job.settings.cards === 'pages';
  }

  private action(place: PagePlace, here: PageState, step: Step, holder: string, card: number | null): Action | null {
    const state = (name: string, ids: readonly string[]): Action | null => {
      const refs = ids.map((id) => this.layers.of(id, id, this.switched.get(id) ?? false));
      return refs.length ? { S: 'SetOCGState', State: [name, ...refs] } : null;
    };
    switch (step.do) {
      case 'go': {
        const target = this.scope.targets.of(step.destination, place.page.id);
        if (!target) return null;
        return 'href' in target ? { S: 'URI', URI: text(target.href) } : { S: 'GoTo', D: text(pageDestination(target.page)) };
      }
      case 'showCard': {
        const switcher = this.switcher(place, step.switcher, holder);
        if (!switcher) return null;
        const to = card ?? switcher.cards.findIndex((c) => c.id === step.card);
        if (this.arePages) {
          const state = this.states.showing(switcher.id, to);
          return state ? { S: 'GoTo', D: text(state.name) } : null;
        }
        const refs = switcher.cards.map((_, i) => this.card(switcher, i));
        if (!refs[to]) return null;
        return { S: 'SetOCGState', State: ['OFF', ...refs.filter((_, i) => i !== to), 'ON', refs[to]] };
      }
      case 'show':
        return state('ON', this.parts(place, step.items, holder));
      case 'hide':
        return state('OFF', this.parts(place, step.items, holder));
      case 'toggle':
        return state('Toggle', this.parts(place, step.items, holder));
      case 'play':
      case 'pause':
      case 'stop': {
        const [id] = this.parts(place, [step.media], holder);
        // Table 214: 1 stops, 2 pauses, 4 plays on or plays.
        if (id === undefined) return null;
        return { S: 'Rendition', OP: { play: 4, pause: 2, stop: 1 }[step.do], R: this.renditionOf(id), AN: this.screenOf(id, here) };
      }
      case 'resetForm':
        return { S: 'ResetForm' };
      case 'sendForm':
        return { S: 'SubmitForm', F: { FS: 'URL', F: text(step.href.trim()) }, Flags: AS_HTML_FORM };
      default:
        return null;
    }
  }

  /** For a switcher that nothing else turns: a press shows the next of its cards. */
  ownTurns(place: PagePlace, state: PageState, item: Item): { action: Action; layer?: LayerRef }[] {
    if (item.kind !== 'switcher' || this.job.settings.cards === 'first' || item.cards.length < 2 || this.isTurned(item.id)) return [];
    const step = { do: 'showCard' as const, switcher: item.id, card: 'next', afterLast: 'again' as const, after: 0 };
    return this.actions(place, state, { id: '', trigger: { when: 'press' }, steps: [step] }, item.id);
  }

  private isTurned(switcher: string): boolean {
    return this.scope.pages.some((place) =>
      cuesOn(place).some(({ cue }) => this.stepsOf(cue, place.page.id).some((s) => s.do === 'showCard' && s.switcher === switcher)),
    );
  }

  /** Films and sounds that cues act on, but that are not in the file: their annotations are left empty. */
  end(): void {
    for (const ref of [...this.screens.values(), ...this.renditions.values()]) if (!('Type' in ref.data)) ref.end();
  }

  private switcher({ spread }: PagePlace, id: string, holder: string): Switcher | null {
    const item = spread.items[nearItem(spread, id, holder)] ?? itemsById(this.job.folio).get(id);
    return item?.kind === 'switcher' ? item : null;
  }

  /** The parts of pages that items are drawn by; an item of a master page acts on those of its own page. */
  private parts({ spread }: PagePlace, ids: readonly string[], holder: string): string[] {
    return ids.flatMap((id) => {
      const here = nearItem(spread, id, holder);
      const home = spread.items[here] ? spread : Object.values(this.job.folio.spreads).find((s) => s.items[here]);
      const item = home?.items[here];
      if (!home || !item) return [];
      if (item.kind === 'group') return [...leavesOf(home.items, item)];
      return item.kind === 'switcher' ? [here, ...item.cards.flatMap((c) => onCard(home.items, c))] : [here];
    });
  }
}

/** What the file can do from a page. */
export const reachFrom = (
  { settings }: Pick<WriteJob<PdfSettings>, 'settings'>,
  { targets }: Pick<Scope, 'targets'>,
  page: string,
): PdfReach => ({
  cards: settings.cards,
  leads: (destination) => targets.of(destination, page) !== null,
});

/** Every cue on a page, with what it hangs on. */
export const cuesOn = ({ page, spread }: PagePlace): { cue: Cue; holder: string }[] => [
  ...Object.values(page.cues).map((cue) => ({ cue, holder: page.id })),
  ...Object.values(spread.items).flatMap((i) => Object.values(i.cues).map((cue) => ({ cue, holder: i.id }))),
];

/** The card that comes after the one in sight; where there is none, the one in sight. */
function turnedFrom({ switcher, step }: CardStep, at: number): number {
  const count = switcher.cards.length;
  const to = at + (step.card === 'next' ? 1 : -1);
  if (to >= 0 && to < count) return to;
  return step.afterLast === 'again' ? (to + count) % count : at;
}

/** Actions one after another (12.6.2, Next). */
const chained = (actions: readonly Action[]): Action | null =>
  actions.reduceRight<Action | null>((next, a) => ({ ...a, ...(next && { Next: next }) }), null);

/** How a film or sound is played (ISO 32000-1, 13.2: a media rendition with its clip and its play parameters). */
export const rendition = (item: Media, file: { name: string; mediaType: string }, embedded: unknown): Record<string, unknown> => ({
  Type: 'Rendition',
  S: 'MR',
  N: text(item.name ?? file.name),
  C: { Type: 'MediaClip', S: 'MCD', N: text(file.name), CT: text(file.mediaType), D: embedded, P: { TF: text('TEMPACCESS') } },
  P: { Type: 'MediaPlayParams', BE: { C: item.controls, A: true, RC: item.loop ? 0 : 1 } },
});
