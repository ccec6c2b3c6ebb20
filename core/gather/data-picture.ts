/** A picture that is written into a page itself may have so many bytes, and all of one page together. */
const DATA_LIMIT_BYTES = 10_000_000;

const DATA = /^data:image\/(png|jpe?g|gif|webp|avif|bmp|tiff)(?:;[a-z0-9=-]{1,40}){0,3};base64,/i;

/** Whether an address is a picture of pixels, written into the page (RFC 2397), of no more bytes than are taken. */
export function isDataPicture(address: string): boolean {
  const head = DATA.exec(address.slice(0, 200))?.[0].length ?? 0;
  return head > 0 && ((address.length - head) * 3) / 4 <= DATA_LIMIT_BYTES;
}

/** What ends the name of a file that such an address becomes. */
export function endingOfData(address: string): string {
  const type = DATA.exec(address.slice(0, 200))?.[1]?.toLowerCase() ?? 'png';
  return type === 'jpeg' ? 'jpg' : type;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Letters of base64 that hold the beginning of a file, where its size stands. */
const HEAD_LETTERS = 40_000;

/**
 * The size in px that the beginning of such a picture says: PNG (W3C PNG, 11.2.2), GIF (GIF89a, 18), JPEG (ITU-T T.81,
 * B.2.2), WebP (RFC 9649). Null for what is none or breaks off.
 */
export function sizeOfData(address: string): Size | null {
  const head = DATA.exec(address.slice(0, 200))?.[0].length ?? 0;
  if (head === 0) return null;
  const letters = address.slice(head, head + HEAD_LETTERS).replace(/[^A-Za-z0-9+/]/g, '');
  const bytes = Uint8Array.from(atob(letters.slice(0, letters.length - (letters.length % 4))), (letter) =>
    letter.charCodeAt(0),
  );
  const view = new DataView(bytes.buffer);
  const starts = (text: string, at = 0) =>
    [...text].every((letter, index) => bytes[at + index] === letter.charCodeAt(0));
  if (bytes.length < 12) return null;
  if (starts('PNG', 1) && bytes.length >= 24)
    return { width: view.getUint32(16), height: view.getUint32(20) };
  if (starts('GIF8')) return { width: view.getUint16(6, true), height: view.getUint16(8, true) };
  if (starts('RIFF') && starts('WEBP', 8)) return sizeOfWebp(view);
  return bytes[0] === 0xff && bytes[1] === 0xd8 ? sizeOfJpeg(view) : null;
}

function sizeOfWebp(view: DataView): Size | null {
  if (view.byteLength < 30) return null;
  const kind = view.getUint8(15);
  // "VP8X" holds the canvas, "VP8L" both in 14 bits each, "VP8 " behind its start code.
  if (kind === 0x58)
    return {
      width: 1 + (view.getUint16(24, true) | (view.getUint8(26) << 16)),
      height: 1 + (view.getUint16(27, true) | (view.getUint8(29) << 16)),
    };
  if (kind === 0x4c) {
    const bits = view.getUint32(21, true);
    return { width: 1 + (bits & 0x3fff), height: 1 + ((bits >>> 14) & 0x3fff) };
  }
  return { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
}

function sizeOfJpeg(view: DataView): Size | null {
  let at = 2;
  while (at + 9 < view.byteLength) {
    if (view.getUint8(at) !== 0xff) return null;
    const marker = view.getUint8(at + 1);
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
    if (isFrame) return { height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
    const length = view.getUint16(at + 2);
    if (length < 2) return null;
    at += 2 + length;
  }
  return null;
}
