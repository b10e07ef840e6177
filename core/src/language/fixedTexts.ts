/** Words before automatic numbers, by language: they are not sent to translators. Common practice of books in each language. */
const FIXED: readonly Record<string, string>[] = [
  { en: 'Figure', de: 'Abbildung', fr: 'Figure', es: 'Figura', it: 'Figura', nl: 'Figuur', pt: 'Figura', ja: '図', zh: '图' },
  { en: 'Fig.', de: 'Abb.', fr: 'Fig.', es: 'Fig.', it: 'Fig.', nl: 'Fig.', pt: 'Fig.', ja: '図', zh: '图' },
  { en: 'Table', de: 'Tabelle', fr: 'Tableau', es: 'Tabla', it: 'Tabella', nl: 'Tabel', pt: 'Tabela', ja: '表', zh: '表' },
  { en: 'Chapter', de: 'Kapitel', fr: 'Chapitre', es: 'Capítulo', it: 'Capitolo', nl: 'Hoofdstuk', pt: 'Capítulo', ja: '章', zh: '章' },
  { en: 'Part', de: 'Teil', fr: 'Partie', es: 'Parte', it: 'Parte', nl: 'Deel', pt: 'Parte', ja: '部', zh: '部' },
  { en: 'Section', de: 'Abschnitt', fr: 'Section', es: 'Sección', it: 'Sezione', nl: 'Paragraaf', pt: 'Seção', ja: '節', zh: '节' },
  { en: 'Appendix', de: 'Anhang', fr: 'Annexe', es: 'Apéndice', it: 'Appendice', nl: 'Bijlage', pt: 'Apêndice', ja: '付録', zh: '附录' },
  { en: 'Step', de: 'Schritt', fr: 'Étape', es: 'Paso', it: 'Passo', nl: 'Stap', pt: 'Passo', ja: '手順', zh: '步骤' },
  { en: 'Note', de: 'Hinweis', fr: 'Remarque', es: 'Nota', it: 'Nota', nl: 'Opmerking', pt: 'Nota', ja: '注', zh: '注' },
  { en: 'Example', de: 'Beispiel', fr: 'Exemple', es: 'Ejemplo', it: 'Esempio', nl: 'Voorbeeld', pt: 'Exemplo', ja: '例', zh: '例' },
  { en: 'Page', de: 'Seite', fr: 'Page', es: 'Página', it: 'Pagina', nl: 'Pagina', pt: 'Página', ja: 'ページ', zh: '页' },
];

/** The text of an automatic number in another language: each word that is known in the one becomes that of the other. */
export function fixedTextIn(text: string, from: string, to: string): string {
  let out = text;
  for (const words of FIXED) {
    const [known, other] = [words[from], words[to]];
    if (known === undefined || other === undefined || !text.includes(known)) continue;
    out = out.replace(new RegExp(`(?<![\\p{L}\\p{N}])${known.replace('.', '\\.')}(?![\\p{L}\\p{N}])`, 'gu'), other);
  }
  return out;
}
