import { joinedSpreads } from '../../folio/joinedSpreads.ts';
import { PageTargets } from '../../structure/pageTargets.ts';
import type { WriteJob } from '../writer.ts';
import { scopeOf } from '../scope.ts';
import type { Scope } from '../scope.ts';

interface SlideScopeSettings {
  pages: string;
  hiddenLayers: 'out' | 'in';
  spreads: 'apart' | 'together';
}

/** What of a document becomes slides: its pages, or its spreads as wholes. */
export function slideScope({ folio, composition, settings }: WriteJob<SlideScopeSettings>): Scope {
  const scope = scopeOf(folio, composition, settings, true);
  if (settings.spreads === 'apart') return scope;
  const pages = joinedSpreads(scope.pages);
  return { ...scope, pages, targets: new PageTargets(folio, composition, pages) };
}
