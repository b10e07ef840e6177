/**
 * The order in which a whole file is read: content by its page's object and its mark (ISO 32000-1, 14.7.2 and 14.7.4), numbered
 * along the structure tree. pdf.js tells the tree of one page at a time.
 */
export function orderInTree(objects: ReadonlyMap<string, string>): Map<string, number> {
  const order = new Map<string, number>();
  const root = [...objects.values()].find((o) => /\/Type\s*\/StructTreeRoot\b/.test(o));
  const seen = new Set<string>();
  const visit = (number: string): void => {
    const element = objects.get(number);
    if (element === undefined || seen.has(number)) return;
    seen.add(number);
    const page = /\/Pg\s+(\d+) 0 R/.exec(element)?.[1] ?? '';
    for (const [, dictionary, number, isRef] of kidsOf(element).matchAll(/<<([^<>]*)>>|(?<!\d)(\d+)( 0 R)?/g)) {
      if (isRef !== undefined) visit(number!);
      else if (number !== undefined) order.set(`${page} ${number}`, order.size);
      else if (dictionary?.includes('/MCR')) {
        const its = /\/Pg\s+(\d+) 0 R/.exec(dictionary)?.[1] ?? page;
        order.set(`${its} ${/\/MCID\s+(\d+)/.exec(dictionary)?.[1] ?? ''}`, order.size);
      }
    }
  };
  for (const [, ref] of kidsOf(root ?? '').matchAll(/(?<!\d)(\d+) 0 R/g)) visit(ref!);
  return order;
}

/** What stands in an element's K: a list, or one thing alone. */
function kidsOf(element: string): string {
  return (
    /\/K\s*(?:\[([^\]]*)\]|(\d+ 0 R|\d+|<<[\s\S]*?>>))/
      .exec(element)
      ?.slice(1)
      .find((k) => k !== undefined) ?? ''
  );
}
