/**
 * What a frame may be given (W3C Permissions Policy, the `allow` attribute), with what each means. Anything that is not
 * on this list is never written.
 */
export const PERMISSION_WORDS = {
  fullscreen: 'go full screen',
  'picture-in-picture': 'play in a small window',
  'encrypted-media': 'play protected films',
  autoplay: 'start by itself',
  'clipboard-write': 'write to the clipboard',
  'clipboard-read': 'read the clipboard',
  'web-share': 'open the share sheet',
  camera: 'use the camera',
  microphone: 'use the microphone',
  geolocation: 'know where the reader is',
  'display-capture': 'record the screen',
  payment: 'ask for payments',
  accelerometer: 'feel how the device moves',
  gyroscope: 'feel how the device is turned',
  magnetometer: 'read the compass',
  midi: 'use music instruments',
  usb: 'use USB devices',
  serial: 'use serial devices',
  bluetooth: 'use Bluetooth devices',
  'screen-wake-lock': 'keep the screen awake',
  'storage-access': 'ask for its cookies',
} as const;
export type Permission = keyof typeof PERMISSION_WORDS;
export const PERMISSIONS = Object.keys(PERMISSION_WORDS) as [Permission, ...Permission[]];

export function isPermission(name: string): name is Permission {
  return Object.hasOwn(PERMISSION_WORDS, name);
}

/**
 * What may be taken out of a frame's sandbox (WHATWG HTML, the `sandbox` attribute). Whatever would let a frame lead the
 * page away, or let what it opens out of the sandbox unasked, is not on the list and is never written.
 */
export const SANDBOX_WORDS = {
  'allow-scripts': 'run its scripts',
  'allow-same-origin': 'keep its own cookies',
  'allow-forms': 'send forms',
  'allow-popups': 'open new windows',
  'allow-popups-to-escape-sandbox': 'open new windows that are not held by these limits',
  'allow-presentation': 'show on another screen',
  'allow-downloads': 'offer files to download',
} as const;
export type SandboxToken = keyof typeof SANDBOX_WORDS;
export const SANDBOX_TOKENS = Object.keys(SANDBOX_WORDS) as [SandboxToken, ...SandboxToken[]];

export interface AskedPermission {
  readonly name: string;
  /** Where it stands in the text that was read: from its first letter up to, not including, `to`. */
  readonly from: number;
  readonly to: number;
}

/** There are some sixty features; what asks for more is not asking for them. */
const MOST_ASKED = 100;
const MOST_LETTERS = 10_000;

/**
 * The permissions that an `allow` attribute asks for (W3C Permissions Policy, serialised policy): features parted by
 * semicolons, each with an allow list that is not kept; older code parts them by commas or blanks.
 */
export function askedPermissions(value: string): readonly AskedPermission[] {
  const asked: AskedPermission[] = [];
  for (const part of value.slice(0, MOST_LETTERS).matchAll(/[^;,]+/g)) {
    if (asked.length >= MOST_ASKED) break;
    const name = /[a-z][a-z-]*/i.exec(part[0]);
    if (!name || isSource(part[0])) continue;
    const from = part.index + name.index;
    asked.push({ name: name[0].toLowerCase(), from, to: from + name[0].length });
  }
  return asked;
}

const isSource = (part: string) => /^\s*['"*]/.test(part) || /^\s*https?:/i.test(part);

/** "go full screen", "go full screen and start by itself", "a, b and c". */
export function sayAll(words: readonly string[]): string {
  const last = words.at(-1) ?? '';
  return words.length < 2 ? last : `${words.slice(0, -1).join(', ')} and ${last}`;
}
