/** Where a colour profile's table of tags begins (ICC.1:2022, 7.3). */
const TAGS_AT = 128;
const TAG_BYTES = 12;
const TAG_LIMIT = 100;

/**
 * What a colour profile calls itself ("sRGB", "Display P3"): its `desc` tag, as text (version 2) or as the first of
 * several languages (version 4). Undefined for bytes that hold none. ICC.1:2022, 9.2.41 and 10.15.
 */
export function maybeProfileName(profile: Uint8Array): string | undefined {
  if (profile.length < TAGS_AT + 4) return undefined;
  const view = new DataView(profile.buffer, profile.byteOffset, profile.byteLength);
  const count = Math.min(TAG_LIMIT, view.getUint32(TAGS_AT));
  for (let tag = 0; tag < count; tag += 1) {
    const at = TAGS_AT + 4 + tag * TAG_BYTES;
    if (at + TAG_BYTES > profile.length) return undefined;
    if (letters(profile, at, 4) !== 'desc') continue;
    const [start, length] = [view.getUint32(at + 4), view.getUint32(at + 8)];
    if (start + length > profile.length || length < 28) return undefined;
    return nameIn(profile.subarray(start, start + length)) || undefined;
  }
  return undefined;
}

function nameIn(tag: Uint8Array): string {
  const view = new DataView(tag.buffer, tag.byteOffset, tag.byteLength);
  if (letters(tag, 0, 4) === 'desc') {
    const length = Math.min(view.getUint32(8), tag.length - 12);
    return letters(tag, 12, length).replace(/\0.*$/s, '').trim();
  }
  if (letters(tag, 0, 4) !== 'mluc') return '';
  const [length, start] = [view.getUint32(20), view.getUint32(24)];
  if (start + length > tag.length) return '';
  return new TextDecoder('utf-16be').decode(tag.subarray(start, start + length)).trim();
}

function letters(bytes: Uint8Array, start: number, length: number): string {
  return String.fromCharCode(...bytes.subarray(start, start + Math.min(length, 200)));
}
