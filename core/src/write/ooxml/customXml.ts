import { guidOf } from './guid.ts';
import { OFFICE } from './officePackage.ts';
import type { OfficePackage, Part } from './officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';

const STORE = 'http://schemas.openxmlformats.org/officeDocument/2006/customXml';
const PROPERTIES = 'application/vnd.openxmlformats-officedocument.customXmlProperties+xml';

/** Data of our own that programs keep with a file (custom XML data, ISO/IEC 29500-1, 15.2.5). `schema`: the name of what it is written in. */
export function writeCustomXml(pack: OfficePackage, main: Part, document: string, schema: string, data: Xml): void {
  const item = pack.add('customXml/item1.xml', 'application/xml', xmlFile(data));
  const about = el(
    'ds:datastoreItem',
    { 'xmlns:ds': STORE, 'ds:itemID': guidOf(document) },
    el('ds:schemaRefs', {}, el('ds:schemaRef', { 'ds:uri': schema })),
  );
  item.relate(`${OFFICE}/customXmlProps`, pack.add('customXml/itemProps1.xml', PROPERTIES, xmlFile(about)));
  main.relate(`${OFFICE}/customXml`, item);
}
