import type { Rect } from '../../folio/geometry.ts';
import { actionsOfPage } from './observeActions.ts';
import type { ActionsOfPdf } from './observeActions.ts';
import { fieldFact, transitionFact } from '../motionFacts.ts';

/** An annotation of a field, as pdf.js gives it. */
export interface WidgetOfPdf {
  subtype: string;
  rect: number[];
  fieldType?: string;
  fieldName?: string;
  fieldValue?: unknown;
  alternativeText?: string;
  checkBox?: boolean;
  radioButton?: boolean;
  pushButton?: boolean;
  exportValue?: string;
  buttonValue?: string;
  required?: boolean;
}

/** What a field says of itself, with the box in which it can be filled in; by the name of the field, of radio buttons with their value. */
export function fieldOfWidget(w: WidgetOfPdf, onPage: (rect: readonly number[]) => Rect): { key: string; fact: string; box: Rect } | null {
  if (w.subtype !== 'Widget' || w.fieldName === undefined) return null;
  const value = w.checkBox
    ? w.exportValue
    : w.radioButton
      ? w.buttonValue
      : typeof w.fieldValue === 'string'
        ? w.fieldValue
        : Array.isArray(w.fieldValue)
          ? String(w.fieldValue[0] ?? '')
          : '';
  const type = w.checkBox ? 'checkBox' : w.radioButton ? 'radio' : w.pushButton ? 'button' : w.fieldType === 'Ch' ? 'choice' : 'text';
  return {
    key: type === 'radio' ? `${w.fieldName}=${value ?? ''}` : w.fieldName,
    fact: fieldFact({
      type,
      name: w.fieldName,
      label: w.alternativeText ?? '',
      value: type === 'button' ? '' : (value ?? ''),
      on: (w.checkBox || w.radioButton) === true && w.fieldValue === value,
      required: w.required === true,
    }),
    box: onPage(w.rect),
  };
}

/** The objects of a file without streams of objects, by their numbers, as they stand in it (ISO 32000-1, 7.3.10). */
export function objectsOf(bytes: Uint8Array): Map<string, string> {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1');
  return new Map(
    [...file.matchAll(/(?<=^|[\r\n])(\d+) 0 obj([\s\S]*?)endobj/g)].map((m) => [m[1]!, m[2]!.split(/\bstream[\r\n]/)[0]!.trim()]),
  );
}

/**
 * Transitions and times of pages, and what they do, by their place in the file. pdf.js does not tell them, so the dictionaries
 * of pages (7.7.3.3) are read as they stand in the file.
 */
export function pageMotionOf(objects: ReadonlyMap<string, string>): { transition?: string; advance?: string; actions: ActionsOfPdf[] }[] {
  const root = [...objects.values()].find((o) => /\/Type\s*\/Pages\b/.test(o));
  const kids = /\/Kids\s*\[([^\]]*)\]/.exec(root ?? '')?.[1] ?? '';
  return [...kids.matchAll(/(?<!\d)(\d+) 0 R/g)].map((m) => {
    const page = objects.get(m[1]!) ?? '';
    const trans = /\/Trans\s*<<([^>]*)>>/.exec(page)?.[1];
    const entry = (key: string): string | undefined => trans && new RegExp(`/${key}(?![A-Za-z])\\s*/?([A-Za-z0-9.]+)`).exec(trans)?.[1];
    const dur = /\/Dur\s+([\d.]+)/.exec(page)?.[1];
    return {
      ...(trans !== undefined && {
        transition: transitionFact({ style: (entry('S') ?? '').toLowerCase(), seconds: Number(entry('D') ?? 1) }),
      }),
      actions: actionsOfPage(page),
      ...(dur !== undefined && { advance: `after ${Number(dur)} s` }),
    };
  });
}
