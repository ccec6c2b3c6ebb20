/** Sum of the luminance quantisation table at quality 50 (ITU-T T.81, Annex K, table K.1). */
const SUM_AT_50 = 3754;

const TABLE_BYTES = 64;

/**
 * The quality, 1 to 100 on the scale common to encoders, at which a JPEG was last written: read from its first
 * quantisation table (ITU-T T.81, B.2.4.1). Undefined when no table is found in `bytes`, which may be only the
 * beginning of the file.
 */
export function maybeJpegQuality(bytes: Uint8Array): number | undefined {
  for (let at = 2; at + 4 < bytes.length; ) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1] ?? 0;
    const length = ((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0);
    if (length < 2 || marker === 0xda) return undefined;
    if (marker === 0xdb) return qualityOfTable(bytes.subarray(at + 4, at + 2 + length));
    at += 2 + length;
  }
  return undefined;
}

function qualityOfTable(segment: Uint8Array): number | undefined {
  const is16Bit = (segment[0] ?? 0) >> 4 === 1;
  const step = is16Bit ? 2 : 1;
  if (segment.length < 1 + TABLE_BYTES * step) return undefined;
  let sum = 0;
  for (let at = 0; at < TABLE_BYTES; at += 1) {
    const place = 1 + at * step;
    sum += is16Bit ? ((segment[place] ?? 0) << 8) | (segment[place + 1] ?? 0) : (segment[place] ?? 0);
  }
  const scale = (sum / SUM_AT_50) * 100;
  const quality = scale <= 100 ? (200 - scale) / 2 : 5000 / scale;
  return Math.min(100, Math.max(1, Math.round(quality)));
}
