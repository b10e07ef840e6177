import type { Words } from '../../../player/src/program.ts';

const WORDS: Record<string, Words> = {
  en: { previous: 'Previous', next: 'Next', pause: 'Pause', play: 'Play', of: '{n} of {all}' },
  de: { previous: 'Zurück', next: 'Weiter', pause: 'Anhalten', play: 'Abspielen', of: '{n} von {all}' },
  fr: { previous: 'Précédent', next: 'Suivant', pause: 'Pause', play: 'Lecture', of: '{n} sur {all}' },
  es: { previous: 'Anterior', next: 'Siguiente', pause: 'Pausa', play: 'Reproducir', of: '{n} de {all}' },
  it: { previous: 'Precedente', next: 'Successivo', pause: 'Pausa', play: 'Riproduci', of: '{n} di {all}' },
  ja: { previous: '前へ', next: '次へ', pause: '一時停止', play: '再生', of: '{n}／{all}' },
};

/** What the player's controls are called in a language; in English where it is none of these. */
export const playerWords = (language: string): Words => WORDS[language.split('-')[0]!.toLowerCase()] ?? WORDS['en']!;
