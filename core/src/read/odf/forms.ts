import type { z } from 'zod';
import type { Field } from '../../folio/items.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type FieldPart = Pick<z.input<typeof Field>, 'control' | 'fieldName' | 'label' | 'required' | 'tabOrder'>;

/** A form control (OpenDocument 1.3 part 3, chapter 13) as a field; null for one that has none of ours. */
export function fieldOf(element: XmlElement): FieldPart | null {
  const a = element.attributes;
  const control = controlOf(element);
  if (!control) return null;
  const order = Number(a['form:tab-index']);
  return {
    control,
    fieldName: a['form:name'] ?? '',
    label: a['form:title'] ?? a['form:label'] ?? a['form:name'] ?? '',
    required: a['form:input-required'] === 'true',
    ...(Number.isInteger(order) && order > 0 && { tabOrder: order }),
  };
}

function controlOf(element: XmlElement): FieldPart['control'] | null {
  const a = element.attributes;
  const value = a['form:current-value'] ?? a['form:value'] ?? '';
  switch (element.name) {
    case 'form:checkbox':
      return { type: 'checkBox', on: (a['form:current-state'] ?? a['form:state']) === 'checked', value: a['form:value'] ?? 'yes' };
    case 'form:radio':
      return {
        type: 'radio',
        group: a['form:name'] ?? '',
        value: a['form:value'] ?? a['form:label'] ?? '',
        on: (a['form:current-selected'] ?? a['form:selected']) === 'true',
      };
    case 'form:text':
    case 'form:number':
    case 'form:formatted-text':
    case 'form:password':
      return { type: 'text', lines: 'one', value: element.name === 'form:password' ? '' : value };
    case 'form:textarea':
      return { type: 'text', lines: 'many', value };
    case 'form:date':
      return { type: 'date', value };
    case 'form:listbox':
    case 'form:combobox': {
      const options = childrenOf(element)
        .filter((o) => o.name === 'form:option' || o.name === 'form:item')
        .map(({ attributes: o }) => ({ value: o['form:value'] ?? o['form:label'] ?? '', label: o['form:label'] ?? o['form:value'] ?? '' }));
      const chosen = childrenOf(element).find((o) => o.attributes['form:current-selected'] === 'true')?.attributes;
      return { type: 'choice', options, value: chosen?.['form:value'] ?? chosen?.['form:label'] ?? value };
    }
    case 'form:button':
      return { type: 'button', caption: a['form:label'] ?? '' };
    default:
      return null;
  }
}

/** All controls of a page's forms, by their ids. */
export function controlsIn(forms: XmlElement | undefined, into = new Map<string, XmlElement>()): Map<string, XmlElement> {
  for (const child of forms ? childrenOf(forms) : []) {
    const id = child.attributes['xml:id'] ?? child.attributes['form:id'];
    if (id !== undefined && child.name !== 'form:form') into.set(id, child);
    if (child.name === 'form:form' || child.name === 'form:column') controlsIn(child, into);
  }
  return into;
}
