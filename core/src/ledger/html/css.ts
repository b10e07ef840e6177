import * as csstree from 'css-tree';
import type { Element } from './dom.ts';
import { attribute } from './dom.ts';

/** Declarations as written, by property. */
export type Declarations = Record<string, string>;

interface Rule {
  /** Compound selectors from the outermost to the element itself. */
  compounds: { tag?: string; id?: string; classes: string[] }[];
  /** A part of the element that it is for, such as its first letter. */
  part: string | null;
  weight: number;
  declarations: Declarations;
}

export interface FontFaceRule {
  family: string;
  source: string;
  weight: string | undefined;
  style: string | undefined;
}

/** A style sheet as far as results need it: compound and descendant selectors, `@font-face`; `@media` is passed over. */
export class StyleRules {
  /** Rules with their places, by what their last selector asks for first: an element is held against few of them. */
  private readonly rules = new Map<string, { rule: Rule; i: number }[]>();
  private count = 0;
  readonly fontFaces: FontFaceRule[] = [];

  add(css: string): void {
    const ast = csstree.parse(css, { parseValue: false });
    csstree.walk(ast, {
      enter: (node: csstree.CssNode) => {
        if (node.type === 'Atrule' && node.name === 'font-face' && node.block) {
          const d = declarationsOf(node.block);
          this.fontFaces.push({
            family: unquote(d['font-family'] ?? ''),
            weight: d['font-weight'],
            style: d['font-style'],
            source: /url\(\s*["']?([^"')]+)/.exec(d['src'] ?? '')?.[1] ?? '',
          });
        }
        if (node.type === 'Atrule' && node.name === 'media') return csstree.walk.skip;
        if (node.type !== 'Rule' || node.prelude.type !== 'SelectorList') return undefined;
        const declarations = declarationsOf(node.block);
        node.prelude.children.forEach((selector) => {
          const found = compoundsOf(selector);
          if (found) {
            const { compounds } = found;
            this.keep({
              ...found,
              declarations,
              weight: compounds.reduce((w, c) => w + (c.id ? 10000 : 0) + c.classes.length * 100 + (c.tag ? 1 : 0), 0),
            });
          }
        });
        return undefined;
      },
    });
  }

  private keep(rule: Rule): void {
    const { tag, id, classes } = rule.compounds[rule.compounds.length - 1]!;
    const key = classes[0] !== undefined ? `.${classes[0]}` : id !== undefined ? `#${id}` : (tag ?? '*');
    const kept = this.rules.get(key);
    const placed = { rule, i: this.count++ };
    if (kept) kept.push(placed);
    else this.rules.set(key, [placed]);
  }

  /** What the sheets and the element's own style say of it or of a part of it (CSS Cascade 4, 6.4). */
  styleOf(element: Element, ancestors: readonly Element[], part: string | null = null): Declarations {
    return Object.assign({}, ...this.rulesOf(element, ancestors, part)) as Declarations;
  }

  /** The same, rule by rule, the stronger last. */
  rulesOf(element: Element, ancestors: readonly Element[], part: string | null = null): Declarations[] {
    const keys = ['*', element.tagName, `#${attribute(element, 'id')}`, ...classesOf(element).map((name) => `.${name}`)];
    const matching = keys
      .flatMap((key) => this.rules.get(key) ?? [])
      .filter(({ rule }) => rule.part === part && matches(rule.compounds, element, ancestors));
    matching.sort((a, b) => a.rule.weight - b.rule.weight || a.i - b.i);
    const own = part === null ? [inlineStyle(attribute(element, 'style'))] : [];
    return [...matching.map((m) => m.rule.declarations), ...own];
  }
}

const inlineCache = new Map<string, Declarations>();
function inlineStyle(style: string | undefined): Declarations {
  if (!style) return {};
  let kept = inlineCache.get(style);
  if (!kept) {
    if (inlineCache.size > 5000) inlineCache.clear();
    kept = {};
    const ast = csstree.parse(style, { context: 'declarationList', parseValue: false });
    csstree.walk(ast, (node) => {
      if (node.type === 'Declaration') kept![node.property] = csstree.generate(node.value);
    });
    inlineCache.set(style, kept);
  }
  return kept;
}

function declarationsOf(block: csstree.Block): Declarations {
  const out: Declarations = {};
  block.children.forEach((node) => {
    if (node.type === 'Declaration') out[node.property] = csstree.generate(node.value).trim();
  });
  return out;
}

function compoundsOf(selector: csstree.CssNode): Pick<Rule, 'compounds' | 'part'> | null {
  if (selector.type !== 'Selector') return null;
  const compounds: Rule['compounds'] = [{ classes: [] }];
  let plain = true;
  let named: string | null = null;
  selector.children.forEach((part) => {
    const last = compounds[compounds.length - 1]!;
    if (part.type === 'TypeSelector') {
      if (part.name !== '*') last.tag = part.name;
    } else if (part.type === 'ClassSelector') last.classes.push(part.name);
    else if (part.type === 'IdSelector') last.id = part.name;
    else if (part.type === 'Combinator' && part.name.trim() === '') compounds.push({ classes: [] });
    else if (part.type === 'PseudoElementSelector') named = part.name;
    else plain = false;
  });
  return plain ? { compounds, part: named } : null;
}

/** The classes of an element, each once. */
const classesOf = (e: Element): string[] => [...new Set((attribute(e, 'class') ?? '').split(/\s+/))];

function matchesCompound(c: Rule['compounds'][number], e: Element): boolean {
  if (c.tag && c.tag !== e.tagName) return false;
  if (c.id && c.id !== attribute(e, 'id')) return false;
  if (!c.classes.length) return true;
  const classes = classesOf(e);
  return c.classes.every((name) => classes.includes(name));
}

function matches(compounds: Rule['compounds'], element: Element, ancestors: readonly Element[]): boolean {
  if (!matchesCompound(compounds[compounds.length - 1]!, element)) return false;
  let at = ancestors.length - 1;
  for (let i = compounds.length - 2; i >= 0; i--) {
    while (at >= 0 && !matchesCompound(compounds[i]!, ancestors[at]!)) at--;
    if (at-- < 0) return false;
  }
  return true;
}

export const unquote = (value: string): string => value.trim().replace(/^["']|["']$/g, '');
