import type { Child, Xml } from '../assets/xml.ts';
import { all, el } from '../assets/xml.ts';
import type { CueEffects, Effect } from './cueEffects.ts';

/** By which numbers programs know the effects that they offer (common practice). */
const EFFECTS = { appear: 1, moveIn: 2, fade: 10, scale: 23 } as const;
/** From which side, as they number it. */
const FROM = { above: 1, right: 2, below: 4, left: 8 } as const;
const ms = (seconds: number): number => Math.max(0, Math.round(seconds * 1000));

export interface SlideTiming {
  /** The shapes of items on this slide. */
  shapes: ReadonlyMap<string, readonly number[]>;
  cues: readonly CueEffects[];
  /** Films and sounds that begin at once. */
  atOnce: readonly Effect[];
  /** Shapes of films and sounds. */
  media: readonly { shape: number; kind: 'video' | 'audio'; loop: boolean }[];
}

/** What happens on a slide, and when (ISO/IEC 29500-1, 19.5); null where nothing does. */
export function timingXml(t: SlideTiming): Xml | null {
  return new Timing(t).xml();
}

class Timing {
  private ids = 0;

  constructor(private readonly t: SlideTiming) {}

  xml(): Xml | null {
    const { cues, atOnce, media } = this.t;
    const atBegin = [...atOnce, ...cues.filter((c) => c.press === null).flatMap((c) => c.effects)].filter(
      (e) => this.shapesOf(e.item).length,
    );
    const pressed = cues.filter((c) => c.press !== null && this.shapesOf(c.press).length);
    if (!atBegin.length && !pressed.length && !media.length) return null;
    const root = this.next();
    const inside = [
      atBegin.length > 0 && this.sequence(atBegin),
      pressed.map((c) =>
        this.shapesOf(c.press!)
          .slice(0, 1)
          .map((shape) => this.onPress(shape, c.effects)),
      ),
      media.map((m) => this.mediaNode(m)),
    ];
    return el(
      'p:timing',
      {},
      el(
        'p:tnLst',
        {},
        el('p:par', {}, el('p:cTn', { id: root, dur: 'indefinite', restart: 'never', nodeType: 'tmRoot' }, el('p:childTnLst', {}, inside))),
      ),
    );
  }

  private next(): number {
    return ++this.ids;
  }

  private shapesOf(item: string): readonly number[] {
    return this.t.shapes.get(item) ?? [];
  }

  /** What begins with the slide. */
  private sequence(effects: readonly Effect[]): Xml {
    const id = this.next();
    const slide = (event: string): Xml => el('p:cond', { evt: event, delay: 0 }, el('p:tgtEl', {}, el('p:sldTgt')));
    const begins = all(el('p:cond', { delay: 'indefinite' }), el('p:cond', { evt: 'onBegin', delay: 0 }, el('p:tn', { val: id })));
    return el(
      'p:seq',
      { concurrent: 1, nextAc: 'seek' },
      el('p:cTn', { id, dur: 'indefinite', nodeType: 'mainSeq' }, el('p:childTnLst', {}, this.step(effects, begins, 'afterEffect'))),
      el('p:prevCondLst', {}, slide('onPrev')),
      el('p:nextCondLst', {}, slide('onNext')),
    );
  }

  /** What begins by a press on a shape. */
  private onPress(shape: number, effects: readonly Effect[]): Xml {
    const pressed = el('p:cond', { evt: 'onClick', delay: 0 }, target(shape));
    const id = this.next();
    return el(
      'p:seq',
      { concurrent: 1, nextAc: 'seek' },
      el(
        'p:cTn',
        { id, restart: 'whenNotActive', fill: 'hold', evtFilter: 'cancelBubble', nodeType: 'interactiveSeq' },
        el('p:stCondLst', {}, pressed),
        el('p:endSync', { evt: 'end', delay: 0 }, el('p:rtn', { val: 'all' })),
        el('p:childTnLst', {}, this.step(effects, el('p:cond', { delay: 0 }), 'clickEffect')),
      ),
      el('p:nextCondLst', {}, pressed),
    );
  }

  private step(effects: readonly Effect[], begins: Xml, first: string): Xml {
    const outer = this.next();
    const inner = this.next();
    const inside = effects.flatMap((e, i) =>
      this.shapesOf(e.item).map((shape, n) => this.effect(e, shape, i + n === 0 ? first : 'withEffect')),
    );
    const par = (id: number, conditions: Xml, content: Child): Xml =>
      el('p:par', {}, el('p:cTn', { id, fill: 'hold' }, el('p:stCondLst', {}, conditions), el('p:childTnLst', {}, content)));
    return par(outer, begins, par(inner, el('p:cond', { delay: 0 }), inside));
  }

  private effect(e: Effect, shape: number, nodeType: string): Xml {
    const id = this.next();
    const node = (attributes: Record<string, string | number | undefined>, content: Child): Xml =>
      el(
        'p:par',
        {},
        el(
          'p:cTn',
          { id, ...attributes, nodeType },
          el('p:stCondLst', {}, el('p:cond', { delay: ms(e.after) })),
          el('p:childTnLst', {}, content),
        ),
      );
    if (e.do === 'enter') {
      const presetSubtype = e.how === 'moveIn' ? FROM[e.from] : e.how === 'scale' ? 16 : 0;
      const attributes = {
        presetID: EFFECTS[e.how],
        presetClass: 'entr',
        presetSubtype,
        fill: 'hold',
        repeatCount: e.again ? 'indefinite' : undefined,
        accel: e.easing === 'ease' || e.easing === 'easeIn' ? 50_000 : undefined,
        decel: e.easing === 'ease' || e.easing === 'easeOut' ? 50_000 : undefined,
      };
      return node(attributes, [this.visible(shape, true), this.motion(e, shape)]);
    }
    if (e.do === 'leave') return node({ presetID: 1, presetClass: 'exit', presetSubtype: 0, fill: 'hold' }, this.visible(shape, false));
    const command = { play: 'playFrom(0.0)', pause: 'togglePause', stop: 'stop' }[e.do];
    const run = el(
      'p:cmd',
      { type: 'call', cmd: command },
      el('p:cBhvr', {}, el('p:cTn', { id: this.next(), dur: 1, fill: 'hold' }), target(shape)),
    );
    return node({ presetID: { play: 1, pause: 2, stop: 3 }[e.do], presetClass: 'mediacall', presetSubtype: 0, fill: 'hold' }, run);
  }

  private visible(shape: number, isVisible: boolean): Xml {
    const begins = el('p:stCondLst', {}, el('p:cond', { delay: 0 }));
    const behaviour = el(
      'p:cBhvr',
      {},
      el('p:cTn', { id: this.next(), dur: 1, fill: 'hold' }, begins),
      target(shape),
      el('p:attrNameLst', {}, el('p:attrName', {}, 'style.visibility' as Xml)),
    );
    return el('p:set', {}, behaviour, el('p:to', {}, el('p:strVal', { val: isVisible ? 'visible' : 'hidden' })));
  }

  private motion(e: Extract<Effect, { do: 'enter' }>, shape: number): Child {
    const dur = Math.max(1, ms(e.seconds));
    switch (e.how) {
      case 'appear':
        return null;
      case 'fade':
        return el(
          'p:animEffect',
          { transition: 'in', filter: 'fade' },
          el('p:cBhvr', {}, el('p:cTn', { id: this.next(), dur }), target(shape)),
        );
      case 'moveIn': {
        const x = { left: '0-#ppt_w/2', right: '1+#ppt_w/2', above: '#ppt_x', below: '#ppt_x' }[e.from];
        const y = { left: '#ppt_y', right: '#ppt_y', above: '0-#ppt_h/2', below: '1+#ppt_h/2' }[e.from];
        return [this.change(shape, 'ppt_x', x, '#ppt_x', dur), this.change(shape, 'ppt_y', y, '#ppt_y', dur)];
      }
      case 'scale':
        return [this.change(shape, 'ppt_w', '0', '#ppt_w', dur), this.change(shape, 'ppt_h', '0', '#ppt_h', dur)];
    }
  }

  /** A measure that changes from one value to another. */
  private change(shape: number, what: string, from: string, to: string, dur: number): Xml {
    const at = (tm: number, val: string): Xml => el('p:tav', { tm }, el('p:val', {}, el('p:strVal', { val })));
    return el(
      'p:anim',
      { calcmode: 'lin', valueType: 'num' },
      el(
        'p:cBhvr',
        { additive: 'base' },
        el('p:cTn', { id: this.next(), dur, fill: 'hold' }),
        target(shape),
        el('p:attrNameLst', {}, el('p:attrName', {}, what as Xml)),
      ),
      el('p:tavLst', {}, at(0, from), at(100_000, to)),
    );
  }

  /** A film or sound that can be played on the slide. */
  private mediaNode({ shape, kind, loop }: SlideTiming['media'][number]): Xml {
    const node = el(
      'p:cMediaNode',
      { vol: 80_000 },
      el(
        'p:cTn',
        { id: this.next(), fill: 'hold', display: 0, repeatCount: loop ? 'indefinite' : undefined },
        el('p:stCondLst', {}, el('p:cond', { delay: 'indefinite' })),
      ),
      target(shape),
    );
    return el(kind === 'video' ? 'p:video' : 'p:audio', {}, node);
  }
}

const target = (shape: number): Xml => el('p:tgtEl', {}, el('p:spTgt', { spid: shape }));
