const EXTENSION =
  /^\S.{0,200}\.(?:jpe?g|jfif|png|webp|avif|heic|heif|gif|tiff?|svg|bmp|psd|raw|cr2|nef|dng|pdf|mp4|mov)$/i;
const ADDRESS =
  /^(?:[a-z]{2,8}:\/\/|www\.|mailto:|data:)\S*$|^[a-z0-9-]+(?:\.[a-z0-9-]+)+\/\S*$|^[a-z0-9-]+(?:\.[a-z0-9-]+)*\.(?:com|org|net|info|example|co\.uk|org\.uk|eu|de|fr|nl|io)$|^(?:\.{0,2}\/|[a-z]:\\)\S+$/i;
/** What cameras, telephones and programs call their files, with a blank where a hyphen or line was. */
const OF_CAMERA =
  /^_?(?:IMG|DSC|DSCF|DSCN|DSCI|PXL|MVI|PIC|PICT|CIMG|SAM|HPIM|IMAG|IMAGE|GOPR|GX|DJI|VID|MG|SDIM|KIF|STA|FILE|SCAN|PHOTO|IMAGE|PICTURE)[\s_-]{0,2}\d{3,}(?:[\s_-].{0,20}|[a-z]?)?$/i;
const NUMBERED = /^[A-Z]\d{7}$/i;
const DATED =
  /^(?:[a-z]{2,12}[\s_-])?(?:19|20)\d{2}[-_. ]?\d{2}[-_. ]?\d{2}(?:[-_ T]|\sat\s)\d{2}[-_.:h ]?\d{2}(?:[-_.: ]?\d{2,5})?$/i;
const SCREENSHOT =
  /^(?:screen ?shot|screen ?capture|bildschirmfoto|bildschirmaufnahme)[\s_-]?(?:\(?\d|19|20).{0,40}$/i;
const HASH = /^(?:[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}|(?=[0-9a-f]*\d)[0-9a-f]{16,64})$/i;
const ONLY_DIGITS = /^[\d\s_-]{5,}$/;
const SIZED = /^\S+[-_]\d{2,5}x\d{2,5}$/i;

/**
 * Whether a text is a file's name or an address, and not words: as cameras, telephones and programs name files, with or without
 * their ending, or as people do, with lines and hyphens instead of blanks. Numbers of ships and channels are none.
 */
export function isFileName(text: string): boolean {
  if (EXTENSION.test(text) && !/[.!?]\s/.test(text)) return true;
  if ([ADDRESS, OF_CAMERA, NUMBERED, DATED, SCREENSHOT, HASH, SIZED].some((form) => form.test(text)))
    return true;
  if (ONLY_DIGITS.test(text) && /\d/.test(text)) return true;
  return isJoined(text);
}

/** Words joined as in a name of a file: by lines, or by hyphens with a number among them, all in small letters. */
function isJoined(text: string): boolean {
  if (/\s/.test(text) || text !== text.toLowerCase()) return /^\S+_\S+_?\S*$/.test(text);
  if (/[\p{L}\p{N}]_[\p{L}\p{N}]/u.test(text)) return true;
  const parts = text.split('-').filter(Boolean);
  return (
    parts.length >= 4 ||
    (parts.length >= 2 && parts.some((part) => /^v?\d+$/.test(part)) && parts.length >= 3)
  );
}
