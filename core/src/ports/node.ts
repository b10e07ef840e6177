export * from './ports.ts';
export { FileBlobs } from './fileBlobs.ts';
export { sharpPictures } from './sharpPictures.ts';
export { shippedFonts, shippedFontSource } from './shippedFonts.ts';
export { encodedOrStandIn } from './damagedPictures.ts';
export { FileDerived } from './fileDerived.ts';
export { fontsFor, fontSourcesFor, mediaReader, othersFor, othersShownBy } from './documentFiles.ts';
export { keepHeapsSmall } from './smallHeaps.ts';
