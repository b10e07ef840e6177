import { attribute, elementsOf, parsePage, textOf } from '../html/dom.ts';
import type { ObservedFlow } from './observedFlow.ts';
import { observeTexts } from './observeTexts.ts';
import type { FlowFiles } from './observeTexts.ts';
import type { TextFile } from '../html/address.ts';

/** Reads an article back from its files alone, the first of them first. */
export async function observeArticle(texts: readonly TextFile[], files: FlowFiles): Promise<ObservedFlow> {
  const read = await observeTexts(texts, files);
  const all = texts[0] ? [...elementsOf(parsePage(texts[0].text))] : [];
  const title = all.find((e) => e.tagName === 'title');
  const html = all.find((e) => e.tagName === 'html');
  return {
    // The file of a section names that first.
    title: title ? (textOf(title).split(' – ').pop() ?? '') : '',
    language: (html && attribute(html, 'lang')) ?? '',
    outline: [],
    pages: [],
    embedded: [],
    ...read,
  };
}
