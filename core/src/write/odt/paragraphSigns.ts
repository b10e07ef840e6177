import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { signsOf } from '../../ports/textSign.ts';
import { el, text } from '../opendocument/element.ts';
import type { Xml } from '../opendocument/element.ts';
import type { OdfFile } from '../opendocument/odfPackage.ts';
import { about, ownMetadata } from '../opendocument/ownMetadata.ts';
import type { WrittenParagraph } from './textParts.ts';

const say = (property: string, value: string | number): Xml => el(`own:${property}`, {}, [text(String(value))]);

/** Says which document the paragraphs of a text are of, and what each was when it was written, by the ids that they have in the file. */
export function paragraphSigns(folio: Folio, written: readonly WrittenParagraph[]): OdfFile[] {
  const signs = signsOf(folio);
  return ownMetadata('paragraphs.rdf', 'urn:elastic-folio:paragraphs:1#', [
    about('content.xml', say('document', folio.head.id)),
    ...written.flatMap(({ name, paragraph, part }) => {
      const sign = signs.get(paragraph);
      if (sign === undefined) return [];
      const where = part ? [say('paragraph', nameInXml(paragraph)), say('from', part.from), say('to', part.to)] : [];
      return [about(`content.xml#${name}`, say('text', sign), ...where)];
    }),
  ]);
}
