const WESTERN = 'windows-1252';

/** What windows-1252 has at 0x80 to 0x9F (Encoding Standard, index windows-1252). */
const SIGNS = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/**
 * Bytes as text in an encoding by its label (Encoding Standard, 4.2). Null for a label that nobody knows, and for bytes that are not
 * in it. Node 20 decodes windows-1252 as Latin-1, which has control characters where that has quotation marks and dashes.
 */
export function decodeText(bytes: Uint8Array, label: string): string | null {
  try {
    const decoder = new TextDecoder(label, { fatal: true });
    const text = decoder.decode(bytes);
    return decoder.encoding === WESTERN ? withWesternSigns(text) : text;
  } catch {
    return null;
  }
}

/** Bytes as what most texts of before are that say no encoding: windows-1252, in which every byte is a letter. */
export const decodeWestern = (bytes: Uint8Array): string => decodeText(bytes, WESTERN) ?? '';

const withWesternSigns = (text: string): string =>
  text.replace(/[\u0080-\u009f]/g, (letter) => SIGNS[letter.charCodeAt(0) - 0x80] ?? letter);
