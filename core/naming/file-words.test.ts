import { describe, expect, it } from 'vitest';
import { isUnnamed, wordsOfFileName } from './gibberish.ts';

const said = (name: string, language?: string) => wordsOfFileName(name, language).join('-');

describe('what a person said in a file name', () => {
  it.each([
    ['new-gate.jpg', 'new-gate'],
    ['house-of-cards.png', 'house-of-cards'],
    ['3 herons.jpg', '3-herons'],
    ['old_mill_race.tif', 'old-mill-race'],
    ['Small tortoiseshell.jpg', 'small-tortoiseshell'],
    ['big-tide-at-the-sluice.jpg', 'big-tide-at-the-sluice'],
    ['web-of-a-spider.jpg', 'web-of-a-spider'],
    ['raw reed bundles.jpg', 'raw-reed-bundles'],
    ['final-walk-of-the-year.jpg', 'final-walk-of-the-year'],
    ['draft horses on the dyke.jpg', 'draft-horses-on-the-dyke'],
    ['photo of the warden.jpg', 'photo-of-the-warden'],
    ['image-in-the-water.jpg', 'image-in-the-water'],
    ['marsh-1931.jpg', 'marsh-1931'],
    ['hide-3.jpg', 'hide-3'],
    ['2 boats 1 heron.jpg', '2-boats-1-heron'],
    ['rose2024.jpg', 'rose2024'],
    ['boardwalk north 12.jpeg', 'boardwalk-north-12'],
    ['at-dawn.jpg', 'at-dawn'],
    ['a-day-of-reed-cutting.jpg', 'a-day-of-reed-cutting'],
    ['scan of the 1862 map.tif', 'scan-of-the-1862-map'],
    ['no-3-hide.jpg', 'no-3-hide'],
    ['download-the-leaflet.jpg', 'download-the-leaflet'],
    ['screen-of-reeds.jpg', 'screen-of-reeds'],
    ['cafe & shop.jpg', 'cafe-shop'],
    ['HeronAtDawn.png', 'heron-at-dawn'],
    ["Mara's hide.jpg", 'maras-hide'],
    ['L’étang d’Avril.jpg', 'letang-davril'],
  ])('stays: %s is %s', (name, words) => {
    expect(said(name)).toBe(words);
  });

  it.each([
    ['heron copy.jpg', 'heron'],
    ['heron copy 2.jpg', 'heron'],
    ['heron (1).jpg', 'heron'],
    ['heron[12].jpg', 'heron'],
    ['Copy of heron.jpg', 'heron'],
    ['Kopie von Reiher.jpg', 'reiher'],
    ['heron-final.jpg', 'heron'],
    ['heron_final_v2.jpg', 'heron'],
    ['heron-edited-final-2.jpg', 'heron'],
    ['heron small.jpg', 'heron'],
    ['heron-1920x1080.jpg', 'heron'],
    ['heron_800px.jpg', 'heron'],
    ['heron_300dpi_web.jpg', 'heron'],
    ['heron-20240511.jpg', 'heron'],
    ['heron 2024-05-11.jpg', 'heron'],
    ['2024-05-11 heron.jpg', 'heron'],
    ['11.05.2024_heron.jpg', 'heron'],
    ['2024_05_11_heron_at_dawn.jpg', 'heron-at-dawn'],
    ['20240511_143209_heron.jpg', 'heron'],
    ['003_heron.jpg', 'heron'],
    ['0042 heron at dawn.jpg', 'heron-at-dawn'],
    ['IMG_1234_heron.jpg', 'heron'],
    ['IMG_1234 heron copy.jpg', 'heron'],
    ['DSC_0091 new gate.jpg', 'new-gate'],
    ['dsc0091-heron.jpg', 'heron'],
    ['photo 12 heron.jpg', 'heron'],
    ['heron.NEF.jpg', 'heron'],
    ['heron_raw.jpg', 'heron'],
    ['sluice 4711 gate.jpg', 'sluice-gate'],
    ['C:\\photos\\reed bed.jpg', 'reed-bed'],
    ['heron-550e8400-e29b-41d4-a716-446655440000.jpg', 'heron'],
    ['a3f9c2e1b7d04f55-heron.jpg', 'heron'],
  ])('goes: %s is %s', (name, words) => {
    expect(said(name)).toBe(words);
  });

  it.each([
    'Screenshot 2024-05-11 at 14.32.09.png',
    'Screen Shot 2024-05-11 at 2.32.09 PM.png',
    'Screenshot_20240511-143209.png',
    'Screenshot (7).png',
    'Bildschirmfoto 2024-05-11 um 14.32.09.png',
    'IMG_20260311_0612.JPG',
    'IMG-20260311-0001.jpg',
    'PXL_20240511_143209123.jpg',
    'DSC_0091.NEF.jpg',
    'DSCN4711.JPG',
    'P1190422.JPG',
    'GOPR0123.JPG',
    'MVI_0815.mov',
    'image.jpg',
    'image (3).png',
    'Image 2024-05-11 at 14.32.09.jpeg',
    'photo-1.jpg',
    'Foto 12.jpg',
    'Bild 0003.jpg',
    'Scan final (2).tif',
    'Scan_20240511.pdf',
    'scan0001.tif',
    'untitled.png',
    'Untitled-1 copy 2.psd',
    'download.jpg',
    'download (12).webp',
    'unnamed.png',
    'file_00001.jpg',
    'New file.jpg',
    '20240511_143209.jpg',
    '2024-05-11 14.32.09.jpg',
    '1715437929123.jpg',
    '0001.jpg',
    '12.jpg',
    'a3f9c2e1b7d04f55a3f9c2e1b7d04f55.jpg',
    '550e8400-e29b-41d4-a716-446655440000.jpg',
    '1920x1080.jpg',
    'copy.jpg',
    '.jpg',
    '🐦.jpg',
  ])('is nothing in %s', (name) => {
    expect(said(name)).toBe('');
  });

  /** What cameras, systems and people put about a name, each in the spelling in which it comes. */
  const NOISES: readonly (readonly [what: string, about: (name: string) => string])[] = [
    ['a copy', (name) => `${name} copy`],
    ['a second copy', (name) => `${name} - Copy (2)`],
    ['a copy of', (name) => `Copy of ${name}`],
    ['a number in brackets', (name) => `${name} (1)`],
    ['a size', (name) => `${name}-1920x1080`],
    ['a width', (name) => `${name}_800px`],
    ['a version', (name) => `${name}_final_v2`],
    ['an edit', (name) => `${name} edited`],
    ['a day before', (name) => `2024-05-11 ${name}`],
    ['a day behind', (name) => `${name}_20240511`],
    ['a day and a time', (name) => `20240511_143209_${name}`],
    ['a camera’s number', (name) => `IMG_1234_${name}`],
    ['another camera’s number', (name) => `DSC00917-${name}`],
    ['a number in front', (name) => `0042_${name}`],
    ['an identifier', (name) => `${name}-550e8400-e29b-41d4-a716-446655440000`],
    ['a folder', (name) => `photos/2026/${name}`],
    ['underscores', (name) => name.replaceAll(' ', '_')],
    ['capitals', (name) => name.toUpperCase()],
  ];
  const NAMES = [
    'heron',
    'new gate',
    'house of cards',
    '3 herons',
    'reed bed at dawn',
    'old mill 1931',
    'Möwe',
  ];

  it.each(NAMES.flatMap((name) => NOISES.map(([what, about]) => [what, name, about(name)] as const)))(
    'stays with %s about it: “%s” in %s.jpg',
    (_what, name, file) => {
      expect(said(`${file}.jpg`)).toBe(said(`${name}.jpg`));
      expect(said(`${file}.jpg`.normalize('NFD'))).toBe(said(`${name}.jpg`));
    },
  );

  it('is told of stems too', () => {
    for (const stem of ['picture-2', 'img-1234', '2024-05-11', 'dsc0091', 'image'])
      expect(isUnnamed(stem)).toBe(true);
    for (const stem of ['heron-2', 'new-gate', '3-herons', 'marsh-1931']) expect(isUnnamed(stem)).toBe(false);
  });

  it('is spelt as its language is', () => {
    expect(said('Möwe über dem Fluß.jpg', 'de')).toBe('moewe-ueber-dem-fluss');
    expect(said('Möwe.jpg'.normalize('NFD'), 'de')).toBe('moewe');
    expect(said('Möwe.jpg')).toBe('mowe');
  });
});
