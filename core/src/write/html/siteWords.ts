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
  },
};

/** The words of a language (by memory); English where it is none of these. */
export const siteWords = (language: string): SiteWords => WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS['en']!;
