import type { WriteJob } from '../writer.ts';
import { PACKAGE } from './officePackage.ts';
import type { OfficePackage } from './officePackage.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el, words, xmlFile } from '../assets/xml.ts';

const CORE = 'application/vnd.openxmlformats-package.core-properties+xml';

/** Says in the package what the document is called, who made it, what it is about, and when it was written. */
export function writeProperties(
  { folio, settings, clock }: Pick<WriteJob<{ title: string; language: string }>, 'folio' | 'settings' | 'clock'>,
  pack: OfficePackage,
): void {
  const { title, creators, description, subjects, language } = folio.head.metadata;
  const at = clock()
    .toISOString()
    .replace(/\.\d+Z$/, 'Z');
  const about = { title: settings.title || title, creators, description, subjects, language: settings.language || language, at };
  pack.relate(`${PACKAGE}/core-properties`, pack.add('docProps/core.xml', CORE, xmlFile(coreProperties(about))));
}

/** What the package says of the document (29500-2, clause 11: core properties; Dublin Core). `at`: W3C date and time. */
function coreProperties(about: {
  title: string;
  creators: readonly string[];
  description: string | undefined;
  subjects: readonly string[];
  language: string;
  at: string;
}): Xml {
  const say = (name: string, value: string | undefined): Child => (value ? el(name, {}, words(value)) : null);
  const when = { 'xsi:type': 'dcterms:W3CDTF' };
  return el(
    'cp:coreProperties',
    {
      'xmlns:cp': 'http://schemas.openxmlformats.org/package/2006/metadata/core-properties',
      'xmlns:dc': 'http://purl.org/dc/elements/1.1/',
      'xmlns:dcterms': 'http://purl.org/dc/terms/',
      'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
    },
    say('dc:title', about.title),
    say('dc:creator', about.creators.join('; ')),
    say('cp:keywords', about.subjects.join(', ')),
    say('dc:description', about.description),
    say('dc:language', about.language),
    el('dcterms:created', when, words(about.at)),
    el('dcterms:modified', when, words(about.at)),
  );
}
