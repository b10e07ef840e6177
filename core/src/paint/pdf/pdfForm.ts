import type { Rect } from '../../folio/geometry.ts';
import type { PdfCanvas, StructElement } from './pdfCanvas.ts';

/** A field to be filled in (ISO 32000-1, 12.7). */
export interface PdfField {
  box: Rect;
  name: string;
  label: string;
  required: boolean;
  /** Whether several pages of the file show it: it is one field all the same (12.7.3.1). */
  often: boolean;
  control:
    | { type: 'checkBox' | 'radio'; value: string; on: boolean }
    | { type: 'text'; many: boolean; value: string }
    | { type: 'choice'; options: { value: string; label: string }[]; value: string }
    | { type: 'signature' }
    | { type: 'button'; caption: string };
}

/** Looks of a box that were drawn for it, where there are some. */
export interface FieldLooks {
  on?: unknown;
  off?: unknown;
}

/** Flags of fields (tables 221, 226, 228, 230): bit positions count from one. */
const flag = (bit: number): number => 1 << (bit - 1);
const REQUIRED = flag(2);
const MULTILINE = flag(13);
const RADIO = flag(16);
const NO_TOGGLE_TO_OFF = flag(15);
const PUSH = flag(17);
const COMBO = flag(18);

/** A tick and a dot in parts of the box, from its lower left. */
const TICK = [
  [0.18, 0.5],
  [0.28, 0.6],
  [0.42, 0.44],
  [0.72, 0.82],
  [0.84, 0.72],
  [0.43, 0.22],
] as const;

const text = (value: string): unknown => new String(value);
const n = (v: number): string => String(+v.toFixed(3));

/** The fields of a file, and the form that they make. Paper shows what is drawn below; each field draws only its answer. */
export class PdfForm {
  private readonly fields: unknown[] = [];
  private hasOtherLetters = false;
  private readonly groups = new Map<string, { ref: { data: Record<string, unknown>; end(): void }; kids: unknown[] }>();

  constructor(private readonly canvas: PdfCanvas) {}

  /** Adds a field to the page that is being painted; gives its element in the structure tree. */
  add({ box, name, label, required, often, control }: PdfField, drawn: FieldLooks = {}): StructElement {
    const element = this.canvas.element('Form', { alt: label });
    const common = { TU: text(label), F: 4 };
    const must = required ? REQUIRED : 0;
    // What the field is, and how it looks here; both are one object where it is in one place (12.5.6.19).
    const put = (field: Record<string, unknown>, here: Record<string, unknown>, isGroup = often): Record<string, unknown> => {
      if (!isGroup) {
        this.fields.push(this.canvas.widget(box, { ...common, T: text(name), ...field, ...here }, element));
        return {};
      }
      let group = this.groups.get(name);
      if (!group) {
        const ref = this.canvas.object({ ...field, T: text(name), TU: text(label) });
        this.groups.set(name, (group = { ref, kids: [] }));
        this.fields.push(ref);
      }
      group.kids.push(this.canvas.widget(box, { ...common, Parent: group.ref, ...here }, element));
      return group.ref.data;
    };
    switch (control.type) {
      case 'checkBox': {
        const state = control.on ? stateName(control.value) : 'Off';
        put({ FT: 'Btn', Ff: must, V: state }, { AS: state, ...this.looks(box, control.value, tick, drawn) });
        break;
      }
      case 'radio': {
        const state = control.on ? stateName(control.value) : 'Off';
        const look = { AS: state, ...this.looks(box, control.value, dot, drawn) };
        const group = put({ FT: 'Btn', Ff: RADIO | NO_TOGGLE_TO_OFF | must, V: 'Off' }, look, true);
        if (control.on) group['V'] = state;
        break;
      }
      case 'text':
        put({ FT: 'Tx', Ff: must | (control.many ? MULTILINE : 0), V: text(control.value) }, this.letters(box, control.value));
        break;
      case 'choice': {
        const shown = control.options.find((o) => o.value === control.value)?.label ?? '';
        const Opt = control.options.map((o) => [text(o.value), text(o.label)]);
        put({ FT: 'Ch', Ff: must | COMBO, Opt, V: text(control.value) }, this.letters(box, shown));
        break;
      }
      case 'signature':
        put({ FT: 'Sig', Ff: must }, {});
        break;
      case 'button':
        put({ FT: 'Btn', Ff: PUSH }, { MK: { CA: text(control.caption), BC: [0.1], BG: [1] }, ...this.letters(box, control.caption) });
    }
    return element;
  }

  /** A place that notices the pointer or the focus (12.6.3): a button without a look of its own. */
  notice(box: Rect, name: string, label: string, data: Record<string, unknown>, element: StructElement): void {
    const T = text(`notice-${name.replaceAll('.', '-')}`);
    const ref = this.canvas.object({});
    this.canvas.annotation(box, { ...data, Subtype: 'Widget', FT: 'Btn', Ff: PUSH, H: 'N', T, TU: text(label) }, element, ref);
    this.fields.push(ref);
  }

  /** Closes the form; to be called once the last page is painted. */
  end(): void {
    for (const { ref, kids } of this.groups.values()) {
      ref.data['Kids'] = kids;
      ref.end();
    }
    if (!this.fields.length) return;
    // Letters that the form's font has not are drawn by the program that shows it (table 218).
    const asks = this.hasOtherLetters ? { NeedAppearances: true } : {};
    this.canvas.catalog({ AcroForm: { ...asks, Fields: this.fields, DA: text(LETTERS), DR: { Font: { Helv: this.font() } } } });
  }

  private looks(box: Rect, value: string, draw: (box: Rect) => string, { on, off }: FieldLooks): Record<string, unknown> {
    return { AP: { N: { [stateName(value)]: on ?? this.appearance(box, draw(box)), Off: off ?? this.appearance(box, '') } } };
  }

  private letters(box: Rect, value: string): Record<string, unknown> {
    this.hasOtherLetters ||= /[^\x20-\x7e\r\n]/.test(value);
    const lines = value ? `/Tx BMC q BT ${LETTERS} 3 ${n(box.height / 2 - 3)} Td (${escaped(value)}) Tj ET Q EMC` : '';
    return { DA: text(LETTERS), AP: { N: this.appearance(box, lines) } };
  }

  private appearance(box: Rect, operators: string): unknown {
    const ref = this.canvas.object({
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, box.width, box.height],
      Resources: { Font: { Helv: this.font() } },
    });
    ref.end(operators);
    return ref;
  }

  private helvetica: unknown;
  /** One of the fonts that every program for forms has (9.6.2.2). */
  private font(): unknown {
    if (!this.helvetica) {
      const ref = this.canvas.object({ Type: 'Font', Subtype: 'Type1', BaseFont: 'Helvetica', Encoding: 'WinAnsiEncoding' });
      ref.end();
      this.helvetica = ref;
    }
    return this.helvetica;
  }
}

const LETTERS = '/Helv 9 Tf 0 g';
/** What a box is called while it is on: a name of the file format, so without anything that ends one. */
export const stateName = (value: string): string => value.replace(/[^A-Za-z0-9_-]/g, '_') || 'yes';
const escaped = (s: string): string => s.replace(/[^\x20-\x7e]/g, '?').replace(/[\\()]/g, '\\$&');

const tick = ({ width, height }: Rect): string =>
  `0 g ${TICK.map(([x, y], i) => `${n(x * width)} ${n(y * height)} ${i ? 'l' : 'm'}`).join(' ')} f`;

/** A circle by four curves; the length of their handles as everybody has it. */
function dot({ width, height }: Rect): string {
  const [cx, cy, r] = [width / 2, height / 2, Math.min(width, height) * 0.3];
  const k = r * 0.5523;
  const p = (...v: number[]): string => v.map(n).join(' ');
  return `0 g ${p(cx + r, cy)} m ${p(cx + r, cy + k, cx + k, cy + r, cx, cy + r)} c ${p(cx - k, cy + r, cx - r, cy + k, cx - r, cy)} c ${p(cx - r, cy - k, cx - k, cy - r, cx, cy - r)} c ${p(cx + k, cy - r, cx + r, cy - k, cx + r, cy)} c f`;
}
