/** What the bar and the parts around the pages are called. */
export interface SiteWords {
  contents: string;
  back: string;
  next: string;
  page: string;
  search: string;
  found: string;
  nothing: string;
  larger: string;
  smaller: string;
  sound: string;
  share: string;
  copied: string;
  fullScreen: string;
  close: string;
  pages: string;
  measuring: { name: string; ask: string; yes: string; no: string; sent: string; notSent: string; stop: string; start: string };
}

const WORDS: Record<string, SiteWords> = {
  en: {
    contents: 'Contents',
    back: 'Back',
    next: 'Next',
    page: 'Page {n} of {all}',
    search: 'Search',
    found: '{n} found',
    nothing: 'Nothing found',
    larger: 'Larger',
    smaller: 'Smaller',
    sound: 'Sound',
    share: 'Share',
    copied: 'Address copied',
    fullScreen: 'Full screen',
    close: 'Close',
    pages: 'Pages',
    measuring: {
      name: 'Measuring',
      ask: 'May the publisher be told what is read here? No name goes with it, and nothing is kept about you.',
      yes: 'Yes',
      no: 'No',
      sent: 'The publisher is told what is read here.',
      notSent: 'The publisher is not told what is read here.',
      stop: 'Stop telling',
      start: 'Tell them',
    },
  },
  de: {
    contents: 'Inhalt',
    back: 'Zurück',
    next: 'Weiter',
    page: 'Seite {n} von {all}',
    search: 'Suchen',
    found: '{n} Fundstellen',
    nothing: 'Nichts gefunden',
    larger: 'Größer',
    smaller: 'Kleiner',
    sound: 'Ton',
    share: 'Teilen',
    copied: 'Adresse kopiert',
    fullScreen: 'Vollbild',
    close: 'Schließen',
    pages: 'Seiten',
    measuring: {
      name: 'Messung',
      ask: 'Darf der Verlag erfahren, was hier gelesen wird? Ohne Namen, und über Sie wird nichts aufbewahrt.',
      yes: 'Ja',
      no: 'Nein',
      sent: 'Der Verlag erfährt, was hier gelesen wird.',
      notSent: 'Der Verlag erfährt nicht, was hier gelesen wird.',
      stop: 'Nicht mehr mitteilen',
      start: 'Mitteilen',
    },
  },
  fr: {
    contents: 'Sommaire',
    back: 'Retour',
    next: 'Suivant',
    page: 'Page {n} sur {all}',
    search: 'Rechercher',
    found: '{n} résultats',
    nothing: 'Aucun résultat',
    larger: 'Agrandir',
    smaller: 'Réduire',
    sound: 'Son',
    share: 'Partager',
    copied: 'Adresse copiée',
    fullScreen: 'Plein écran',
    close: 'Fermer',
    pages: 'Pages',
    measuring: {
      name: 'Mesure',
      ask: 'L’éditeur peut-il savoir ce qui est lu ici ? Sans nom, et rien n’est conservé sur vous.',
      yes: 'Oui',
      no: 'Non',
      sent: 'L’éditeur apprend ce qui est lu ici.',
      notSent: 'L’éditeur n’apprend pas ce qui est lu ici.',
      stop: 'Ne plus le dire',
      start: 'Le dire',
    },
  },
  es: {
    contents: 'Índice',
    back: 'Atrás',
    next: 'Siguiente',
    page: 'Página {n} de {all}',
    search: 'Buscar',
    found: '{n} resultados',
    nothing: 'Sin resultados',
    larger: 'Ampliar',
    smaller: 'Reducir',
    sound: 'Sonido',
    share: 'Compartir',
    copied: 'Dirección copiada',
    fullScreen: 'Pantalla completa',
    close: 'Cerrar',
    pages: 'Páginas',
    measuring: {
      name: 'Medición',
      ask: '¿Puede la editorial saber qué se lee aquí? Sin nombre, y no se guarda nada sobre usted.',
      yes: 'Sí',
      no: 'No',
      sent: 'La editorial sabe qué se lee aquí.',
      notSent: 'La editorial no sabe qué se lee aquí.',
      stop: 'No decirlo más',
      start: 'Decirlo',
    },
  },
  it: {
    contents: 'Indice',
    back: 'Indietro',
    next: 'Avanti',
    page: 'Pagina {n} di {all}',
    search: 'Cerca',
    found: '{n} risultati',
    nothing: 'Nessun risultato',
    larger: 'Ingrandisci',
    smaller: 'Riduci',
    sound: 'Audio',
    share: 'Condividi',
    copied: 'Indirizzo copiato',
    fullScreen: 'Schermo intero',
    close: 'Chiudi',
    pages: 'Pagine',
    measuring: {
      name: 'Misurazione',
      ask: 'L’editore può sapere che cosa si legge qui? Senza nome, e su di lei non si conserva nulla.',
      yes: 'Sì',
      no: 'No',
      sent: 'L’editore sa che cosa si legge qui.',
      notSent: 'L’editore non sa che cosa si legge qui.',
      stop: 'Non dirlo più',
      start: 'Dirlo',
    },
  },
  ja: {
    contents: '目次',
    back: '戻る',
    next: '次へ',
    page: '{n}／{all}ページ',
    search: '検索',
    found: '{n}件',
    nothing: '見つかりません',
    larger: '拡大',
    smaller: '縮小',
    sound: '音声',
    share: '共有',
    copied: 'アドレスをコピーしました',
    fullScreen: '全画面',
    close: '閉じる',
    pages: 'ページ',
    measuring: {
      name: '計測',
      ask: 'ここで読まれたページを発行者に知らせてもよいですか。お名前は送られず、記録も残りません。',
      yes: 'はい',
      no: 'いいえ',
      sent: 'ここで読まれたページは発行者に知らされます。',
      notSent: 'ここで読まれたページは発行者に知らされません。',
      stop: '知らせるのをやめる',
      start: '知らせる',
    },
  },
};

/** The words of a language (by memory); English where it is none of these. */
export const siteWords = (language: string): SiteWords => WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS['en']!;
