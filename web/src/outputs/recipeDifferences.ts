import type { OutputKind } from '@elastic-folio/core/api';

import { inWords } from './inWords.ts';
import type { DescribedSetting } from './inWords.ts';

/** What is set otherwise in two recipes of one output, in the words of their settings. */
export function differences(
  kind: OutputKind,
  here: Record<string, unknown>,
  there: Record<string, unknown>,
): { title: string; here: string; there: string }[] {
  const properties = (kind.settings as { properties: Record<string, DescribedSetting> }).properties;
  return Object.entries(properties).flatMap(([name, setting]) => {
    const [a, b] = [here[name] ?? setting.default, there[name] ?? setting.default];
    if (JSON.stringify(a) === JSON.stringify(b)) return [];
    return [{ title: setting.title ?? name, here: inWords(setting, a), there: inWords(setting, b) }];
  });
}
