/** The head of a document with one layer and one spread, as far as it must be said. */
export const plainHead = (more: object): object => ({
  formatVersion: 1,
  id: 'd',
  metadata: { title: 'T' },
  layers: { l: { id: 'l', name: 'L' } },
  layerOrder: ['l'],
  spreadOrder: ['s'],
  ...more,
});
