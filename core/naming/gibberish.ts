import { transliterate } from './names.ts';

/** What cameras and programs call a file when nobody named it, each as a whole word. */
const CAMERA =
  /^(img|dsc|dscn|dscf|dsf|pxl|pict|gopr|mvi|vid|mov|pano|p|k|sam|cimg|hpim|imag|scan|image|photo|picture|screenshot|untitled|unnamed|download|file|foto|bild)$/;

/** Words that say what was done to a file, not what it shows. */
const HANDLING =
  /^(copy|kopie|final|finals|edit|edited|new|old|small|large|big|crop|cropped|resized|web|draft|export|version|v|hdr|raw|jpeg|jpg|png|tif|tiff|webp|gif|nef|dng|arw|raf|cr2|cr3|heic|of)$/;

/**
 * The words of a file name that a person wrote: without extension, camera prefixes and numbers, "copy", "final",
 * "(1)", sizes such as 1920x1080, and dates and times of taking or downloading. Often none are left.
 */
export function wordsOfFileName(fileName: string): readonly string[] {
  const base = (fileName.split(/[/\\]/).at(-1) ?? '').replace(/\.[A-Za-z0-9]{1,5}$/, '');
  const spaced = transliterate(splitHumps(base).replace(/\(\d+\)/g, ' '));
  const words = spaced.split(/[^a-z0-9]+/).filter(Boolean);
  return words.filter((word, at) => !isNoise(word, words[at - 1]));
}

/** Whether a stem says nothing of the picture: a camera's number, a date, "picture-2". */
export function isUnnamed(stem: string): boolean {
  return wordsOfFileName(`${stem}.jpg`).length === 0;
}

/** "HeronAtDawn" as "Heron At Dawn". */
function splitHumps(text: string): string {
  return text.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2');
}

function isNoise(word: string, before: string | undefined): boolean {
  if (CAMERA.test(word) || HANDLING.test(word)) return true;
  if (/^v?\d+$/.test(word)) return !isMeant(word, before);
  if (/^\d+x\d+$/.test(word)) return true;
  return /^[a-z]{0,4}\d{3,}[a-z]?$/.test(word);
}

/** A short number after a real word is part of what it says ("hide 3"); after a camera's prefix it is not. */
function isMeant(number: string, before: string | undefined): boolean {
  const follows =
    before !== undefined && /^[a-z]{2,}$/.test(before) && !CAMERA.test(before) && !HANDLING.test(before);
  return follows && /^\d{1,2}$/.test(number);
}
