import type { Rect } from '../../folio/geometry.ts';
import { fieldFact } from '../motionFacts.ts';

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
