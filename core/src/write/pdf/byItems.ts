import type { Folio } from '../../folio/folio.ts';
import type { Field } from '../../folio/items.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { ObservedDocument } from '../../ledger/observed.ts';
import { factKey } from '../../ledger/motionFacts.ts';
import type { MotionFacts } from '../../ledger/motionFacts.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import { stateName } from '../../paint/pdf/pdfForm.ts';

/** A PDF knows fields by their names and pages by their places: what was observed of them, told of our items and pages. */
export function byItems(observed: ObservedDocument, folio: Folio, pages: readonly PagePlace[]): ObservedDocument {
  const names = fieldNames(folio);
  const fields = new Map<string, Field>();
  for (const { spread } of pages)
    for (const item of Object.values(spread.items))
      if (item.kind === 'field') {
        const name = names.get(item.id) ?? item.fieldName;
        fields.set(item.control.type === 'radio' ? `${name}=${stateName(item.control.value)}` : name, item);
      }
  const motion: MotionFacts = new Map();
  for (const [key, fact] of observed.motion ?? []) {
    const name = /^item (.*) field$/s.exec(key)?.[1];
    const field = name === undefined ? undefined : fields.get(name);
    const page = pages[Number(/^page (\d+) /.exec(key)?.[1]) - 1];
    if (field) {
      const { control } = field;
      const raw = control.type === 'checkBox' || control.type === 'radio' ? control.value : null;
      motion.set(factKey('item', field.id, 'field'), raw === null ? fact : fact.replace(`“${stateName(raw)}”`, `“${raw}”`));
    } else if (page) motion.set(key.replace(/^page \d+/, `page ${page.page.id}`), fact);
  }
  const named = observed.pages.map((p) => ({
    ...p,
    parts: p.parts.flatMap((x) => (fields.has(x.item) ? [{ ...x, item: fields.get(x.item)!.id }] : [])),
  }));
  return { ...observed, pages: named, motion };
}
