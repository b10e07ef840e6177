/** Words of the observatory and how they are always said in the languages of the samples. */
export const SAMPLE_TERMS: { source: string; target: string; terms: { source: string; target: string; note?: string }[] }[] = [
  {
    source: 'en',
    target: 'de',
    terms: [
      { source: 'dome', target: 'Kuppel', note: 'Of the observatory; never „Dom“.' },
      { source: 'telescope', target: 'Fernrohr', note: 'The old one on Marrowby Hill; newer ones are „Teleskop“.' },
      { source: 'telescope', target: 'Teleskop' },
      { source: 'keeper', target: 'Hüter' },
      { source: 'open night', target: 'offener Abend' },
      { source: 'meteor shower', target: 'Meteorstrom' },
      { source: 'Moon', target: 'Mond' },
    ],
  },
  {
    source: 'en',
    target: 'ja',
    terms: [
      { source: 'dome', target: 'ドーム' },
      { source: 'telescope', target: '望遠鏡' },
      { source: 'Moon', target: '月' },
    ],
  },
];
