import { z } from 'zod';
import { Id } from './ids.ts';

/** When a cue begins. */
export const Trigger = z.discriminatedUnion('when', [
  z.object({
    when: z.enum(['press', 'pointerOver', 'pointerOut', 'focus', 'pageShown', 'pageLeft', 'fieldChanged', 'cardChanged', 'mediaEnded']),
  }),
  z.object({ when: z.literal('delay'), seconds: z.number().min(0) }),
]);

/** Where a link or a jump goes. */
export const Destination = z.discriminatedUnion('to', [
  z.object({ to: z.literal('address'), href: z.string(), window: z.enum(['same', 'new']).default('same') }),
  z.object({ to: z.literal('page'), page: Id }),
  z.object({ to: z.literal('paragraph'), paragraph: Id }),
  z.object({ to: z.enum(['next', 'previous', 'first', 'last', 'back']) }),
]);
export type Destination = z.infer<typeof Destination>;

/** One thing that a cue does. */
export const Step = z.discriminatedUnion('do', [
  z.object({ do: z.literal('go'), destination: Destination }),
  z.object({
    do: z.literal('showCard'),
    switcher: Id,
    card: z.union([Id, z.enum(['next', 'previous'])]),
    afterLast: z.enum(['stop', 'again']).default('again'),
  }),
  z.object({ do: z.enum(['show', 'hide', 'toggle']), items: z.array(Id) }),
  z.object({ do: z.enum(['play', 'pause', 'stop']), media: Id }),
  z.object({ do: z.literal('seek'), media: Id, seconds: z.number().min(0) }),
  z.object({ do: z.literal('openFile'), media: Id }),
  z.object({ do: z.enum(['print', 'resetForm']) }),
  z.object({ do: z.literal('sendForm'), href: z.string().describe('where the answers go: https: or mailto:') }),
  z.object({
    do: z.literal('animate'),
    items: z.array(Id),
    kind: z.enum(['appear', 'moveIn', 'fade', 'scale']),
    seconds: z.number().min(0),
    easing: z.enum(['linear', 'ease', 'easeIn', 'easeOut']).default('ease'),
    /** Where it comes from when it moves in. */
    from: z.enum(['left', 'right', 'above', 'below']).default('left'),
    repeat: z.enum(['once', 'again']).default('once'),
  }),
]);

export const TimedStep = Step.and(z.object({ after: z.number().min(0).default(0) }));
export type TimedStep = z.infer<typeof TimedStep>;
/** *When* something happens, *do* these steps in order, each `after` so many seconds from the cue's beginning. */
export const Cue = z.object({ id: Id, trigger: Trigger, steps: z.array(TimedStep) });
export type Cue = z.infer<typeof Cue>;
export type Trigger = z.infer<typeof Trigger>;
export type Step = z.infer<typeof Step>;

/** Page transitions: the styles of ISO 32000-1, table 162. */
export const Transition = z.object({
  style: z.enum(['split', 'blinds', 'box', 'wipe', 'dissolve', 'glitter', 'fly', 'push', 'cover', 'uncover', 'fade']),
  seconds: z.number().min(0).default(1),
  direction: z.number().default(0),
  axis: z.enum(['horizontal', 'vertical']).optional(),
  motion: z.enum(['inward', 'outward']).optional(),
});
export type Transition = z.infer<typeof Transition>;

/** How the document is when it is opened. */
export const Opening = z.object({
  fullScreen: z.boolean().default(false),
  view: z.enum(['page', 'spread']).default('page'),
  /** How large: the whole page, its width, or so many times its size; left to the reader where nothing is said. */
  zoom: z.union([z.enum(['page', 'width']), z.number().min(0.1).max(8)]).optional(),
  showBookmarks: z.boolean().default(false),
  loop: z.boolean().default(false),
});
export type Opening = z.infer<typeof Opening>;

/** How one card takes the place of another; `direction` is where the old one goes. */
export const Change = z.object({
  kind: z.enum(['cut', 'fade', 'slide']),
  direction: z.enum(['left', 'right', 'up', 'down']).default('left'),
  seconds: z.number().min(0).default(0.4),
});
/** A switcher that goes on by itself: `interval` seconds a card, where the card has no time of its own. */
export const Advance = z.object({
  interval: z.number().min(0.1),
  end: z.enum(['loop', 'stop']),
  pauseOnPointer: z.boolean().default(true),
  pauseOnFocus: z.boolean().default(true),
});
export type Change = z.infer<typeof Change>;
export type Advance = z.infer<typeof Advance>;
