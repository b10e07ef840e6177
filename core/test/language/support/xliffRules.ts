import { SaxesParser } from 'saxes';

/** An element with its namespace, for rules that a grammar cannot say. */
interface El {
  name: string;
  ns: string;
  attributes: Record<string, string>;
  children: El[];
  text: string;
  parent: El | null;
}

function parse(xml: string): El {
  const parser = new SaxesParser({ xmlns: true });
  let root: El | null = null;
  let at: El | null = null;
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag) => {
    const attributes = Object.fromEntries(Object.values(tag.attributes).map((a) => [a.name, a.value]));
    const el: El = { name: tag.local, ns: tag.uri, attributes, children: [], text: '', parent: at };
    if (at) at.children.push(el);
    else root = el;
    at = el;
  });
  parser.on('text', (text) => void (at && (at.text += text)));
  parser.on('closetag', () => void (at = at!.parent));
  parser.write(xml).close();
  return root!;
}

const all = (el: El, name?: string): El[] =>
  el.children.flatMap((c) => [...(name === undefined || c.name === name ? [c] : []), ...all(c, name)]);
const kids = (el: El, name: string): El[] => el.children.filter((c) => c.name === name);

export interface Rule {
  /** Where the standard says so. */
  section: string;
  says: string;
  holds(root: El): boolean;
}

const CORE = 'urn:oasis:names:tc:xliff:document:2.0';
const NMTOKEN = /^[\w.:\-\u00B7-\uFFFF]+$/;
const unique = (ids: (string | undefined)[]): boolean => ids.every((id, i) => id === undefined || ids.indexOf(id) === i);
const codesOf = (el: El): El[] => all(el).filter((e) => ['ph', 'pc', 'sc', 'ec', 'mrk', 'sm', 'em'].includes(e.name));
const inSources = (unit: El): El[] => all(unit, 'source').flatMap(codesOf);
const inTargets = (unit: El): El[] => all(unit, 'target').flatMap(codesOf);

/** Constraints of the core of XLIFF 2.1 (OASIS, 13 February 2018), and of two of its modules; numbers of sections from memory. */
export const XLIFF_21: Rule[] = [
  {
    section: '4.2.2.1',
    says: 'the root is <xliff> of the core, with version and srcLang',
    holds: (r) => r.name === 'xliff' && r.ns === CORE && r.attributes['version'] === '2.1' && !!r.attributes['srcLang'],
  },
  {
    section: '4.2.2.1',
    says: 'trgLang is there where there are targets',
    holds: (r) => !all(r, 'target').length || !!r.attributes['trgLang'],
  },
  {
    section: '4.2.2.2',
    says: 'a file has an id, and at least one unit or group',
    holds: (r) =>
      kids(r, 'file').length > 0 &&
      kids(r, 'file').every((f) => !!f.attributes['id'] && f.children.some((c) => c.name === 'unit' || c.name === 'group')),
  },
  {
    section: '4.2.2.3',
    says: 'a skeleton that refers elsewhere is empty',
    holds: (r) => all(r, 'skeleton').every((s) => !s.attributes['href'] || (!s.children.length && !s.text.trim())),
  },
  { section: '4.2.2.5', says: 'a unit has at least one segment', holds: (r) => all(r, 'unit').every((u) => kids(u, 'segment').length > 0) },
  {
    section: '4.2.2.5',
    says: 'modules, notes and original data come before segments',
    holds: (r) =>
      all(r, 'unit').every((u) => {
        const first = u.children.findIndex((c) => c.name === 'segment' || c.name === 'ignorable');
        return u.children.slice(first).every((c) => c.name === 'segment' || c.name === 'ignorable');
      }),
  },
  {
    section: '4.2.2.6',
    says: 'a segment has one source, and its target after it',
    holds: (r) =>
      [...all(r, 'segment'), ...all(r, 'ignorable')].every(
        (s) => kids(s, 'source').length === 1 && kids(s, 'target').length <= 1 && s.children[0]!.name === 'source',
      ),
  },
  {
    section: '4.3.1.18',
    says: 'ids are NMTOKENs',
    holds: (r) => all(r).every((e) => e.attributes['id'] === undefined || NMTOKEN.test(e.attributes['id'])),
  },
  {
    section: '4.3.1.18',
    says: 'ids of units are unique in their file',
    holds: (r) => kids(r, 'file').every((f) => unique(all(f, 'unit').map((u) => u.attributes['id']))),
  },
  {
    section: '4.3.1.18',
    says: 'ids of segments are unique in their unit',
    holds: (r) => all(r, 'unit').every((u) => unique([...kids(u, 'segment'), ...kids(u, 'ignorable')].map((s) => s.attributes['id']))),
  },
  {
    section: '4.3.1.18',
    says: 'ids of codes are unique in all sources of a unit, and in all targets',
    holds: (r) =>
      all(r, 'unit').every(
        (u) => unique(inSources(u).map((c) => c.attributes['id'])) && unique(inTargets(u).map((c) => c.attributes['id'])),
      ),
  },
  {
    section: '4.3.1.18',
    says: 'ids of notes are unique in what they belong to',
    holds: (r) => all(r, 'notes').every((n) => unique(kids(n, 'note').map((x) => x.attributes['id']))),
  },
  {
    section: '4.3.1.30',
    says: 'what is more than initial has a target',
    holds: (r) => all(r, 'segment').every((s) => ['initial', undefined].includes(s.attributes['state']) || kids(s, 'target').length === 1),
  },
  {
    section: '4.3.1.30',
    says: 'states are those that there are',
    holds: (r) => all(r, 'segment').every((s) => [undefined, 'initial', 'translated', 'reviewed', 'final'].includes(s.attributes['state'])),
  },
  {
    section: '4.3.1.32',
    says: 'subState needs state',
    holds: (r) => all(r, 'segment').every((s) => s.attributes['subState'] === undefined || s.attributes['state'] !== undefined),
  },
  {
    section: '4.3.1.34',
    says: 'subType needs type',
    holds: (r) => all(r).every((e) => e.attributes['subType'] === undefined || e.attributes['type'] !== undefined),
  },
  {
    section: '4.3.1.34',
    says: 'xlf:lb, xlf:b, xlf:i and xlf:u go with the type fmt',
    holds: (r) => all(r).every((e) => !/^xlf:(lb|pb|b|i|u)$/.test(e.attributes['subType'] ?? '') || e.attributes['type'] === 'fmt'),
  },
  {
    section: '4.3.1.37',
    says: 'types are those that there are',
    holds: (r) =>
      all(r)
        .filter((e) => ['ph', 'pc', 'sc', 'ec'].includes(e.name))
        .every((e) => [undefined, 'fmt', 'ui', 'quote', 'link', 'image', 'other'].includes(e.attributes['type'])),
  },
  {
    section: '4.2.3.5',
    says: 'an end that is not isolated refers to its beginning, before it in its unit',
    holds: (r) =>
      all(r, 'unit').every((u) =>
        [inSources(u), inTargets(u)].every((codes) =>
          codes.every(
            (c, i) =>
              c.name !== 'ec' ||
              c.attributes['isolated'] === 'yes' ||
              codes.slice(0, i).some((s) => s.name === 'sc' && s.attributes['id'] === c.attributes['startRef']),
          ),
        ),
      ),
  },
  {
    section: '4.2.3.4',
    says: 'a beginning that is not isolated has its end',
    holds: (r) =>
      all(r, 'unit').every((u) =>
        [inSources(u), inTargets(u)].every((codes) =>
          codes.every(
            (s) =>
              s.name !== 'sc' ||
              s.attributes['isolated'] === 'yes' ||
              codes.some((c) => c.name === 'ec' && c.attributes['startRef'] === s.attributes['id']),
          ),
        ),
      ),
  },
  {
    section: '4.7.2.1',
    says: 'a code that must not be deleted is in the target',
    holds: (r) =>
      all(r, 'segment').every(
        (s) =>
          !kids(s, 'target').length ||
          kids(s, 'source')
            .flatMap(codesOf)
            .every(
              (c) =>
                c.attributes['canDelete'] !== 'no' ||
                codesOf(kids(s, 'target')[0]!).some(
                  (t) => (t.attributes['id'] ?? t.attributes['startRef']) === (c.attributes['id'] ?? c.attributes['startRef']),
                ),
            ),
      ),
  },
  {
    section: '5.8.4',
    says: 'a restriction of size has a profile that says what it counts',
    holds: (r) =>
      !all(r).some((e) => e.attributes['slr:sizeRestriction'] !== undefined) ||
      all(r, 'profiles').some((p) => !!p.attributes['generalProfile']),
  },
  {
    section: '5.5.4',
    says: 'metadata is in groups',
    holds: (r) => all(r, 'metadata').every((m) => m.children.length > 0 && m.children.every((c) => c.name === 'metaGroup')),
  },
];

const V12 = 'urn:oasis:names:tc:xliff:document:1.2';
const inline12 = (el: El): El[] => all(el).filter((e) => ['g', 'x', 'bx', 'ex', 'bpt', 'ept', 'ph', 'it'].includes(e.name));

/** Rules of XLIFF 1.2 (OASIS, 1 February 2008); numbers of sections from memory. */
export const XLIFF_12: Rule[] = [
  {
    section: '2.1',
    says: 'the root is <xliff> of version 1.2',
    holds: (r) => r.name === 'xliff' && r.ns === V12 && r.attributes['version'] === '1.2',
  },
  {
    section: '2.2.2',
    says: 'a file says its original, source language and kind of data',
    holds: (r) =>
      kids(r, 'file').every((f) => !!f.attributes['original'] && !!f.attributes['source-language'] && !!f.attributes['datatype']),
  },
  {
    section: '2.2.1',
    says: 'a header comes before its body, and there is one body',
    holds: (r) =>
      kids(r, 'file').every(
        (f) => f.children.map((c) => c.name).join() === 'header,body' || f.children.map((c) => c.name).join() === 'body',
      ),
  },
  {
    section: '2.2.2',
    says: 'in a header the skeleton comes first',
    holds: (r) => all(r, 'header').every((h) => h.children.every((c, i) => c.name !== 'skl' || i === 0)),
  },
  {
    section: '2.2.3',
    says: 'a trans-unit has an id, unique in its file',
    holds: (r) =>
      kids(r, 'file').every((f) => {
        const ids = all(f, 'trans-unit').map((u) => u.attributes['id']);
        return ids.every(Boolean) && unique(ids);
      }),
  },
  {
    section: '2.2.3',
    says: 'a trans-unit begins with its source, and its target follows',
    holds: (r) =>
      all(r, 'trans-unit').every(
        (u) =>
          u.children[0]?.name === 'source' &&
          kids(u, 'target').length <= 1 &&
          (!kids(u, 'target').length || u.children[1]!.name === 'target'),
      ),
  },
  {
    section: '2.3',
    says: 'states are those that there are, or begin with x-',
    holds: (r) =>
      all(r, 'target').every((t) =>
        /^(x-.+|final|needs-(adaptation|l10n|review-adaptation|review-l10n|review-translation|translation)|new|signed-off|translated)$/.test(
          t.attributes['state'] ?? 'new',
        ),
      ),
  },
  {
    section: '2.3',
    says: 'a width says what it counts in',
    holds: (r) => all(r).every((e) => e.attributes['maxwidth'] === undefined || e.attributes['size-unit'] !== undefined),
  },
  {
    section: '2.3',
    says: 'kinds of codes are those that there are, or begin with x-',
    holds: (r) => inline12(r).every((e) => /^(x-.+|image|pb|lb|x-.*|bold|italic|underlined|link)$/.test(e.attributes['ctype'] ?? 'x-')),
  },
  {
    section: '2.4',
    says: 'codes have ids, unique in their source and in their target',
    holds: (r) =>
      [...all(r, 'source'), ...all(r, 'target')].every((s) => {
        const c = inline12(s).filter((e) => e.name !== 'ept' && e.name !== 'ex');
        return c.every((e) => !!e.attributes['id']) && unique(c.map((e) => e.attributes['id']));
      }),
  },
  {
    section: '2.4.4',
    says: 'what begins by bpt ends by ept',
    holds: (r) =>
      [...all(r, 'source'), ...all(r, 'target')].every(
        (s) =>
          all(s, 'bpt')
            .map((e) => e.attributes['rid'])
            .sort()
            .join() ===
          all(s, 'ept')
            .map((e) => e.attributes['rid'])
            .sort()
            .join(),
      ),
  },
  {
    section: '2.2.2',
    says: 'tools that are named are described',
    holds: (r) =>
      kids(r, 'file').every(
        (f) => f.attributes['tool-id'] === undefined || all(f, 'tool').some((t) => t.attributes['tool-id'] === f.attributes['tool-id']),
      ),
  },
];

/** The rules that a file breaks. */
export const broken = (xml: string, rules: readonly Rule[]): string[] => {
  const root = parse(xml);
  return rules.filter((rule) => !rule.holds(root)).map((rule) => `${rule.section}: ${rule.says}`);
};
