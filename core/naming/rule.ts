/** The longest stem of a file name, in letters. */
export const STEM_LIMIT = 80;

/** Names that some file systems keep for devices (Win32 "Naming Files, Paths, and Namespaces"). */
const DEVICE_NAME = /^(con|prn|aux|nul|com[0-9]|lpt[0-9]|conin\$?|conout\$?)$/;

export type NameFault = 'empty' | 'long' | 'letters' | 'hyphens' | 'device' | 'digits';

const FAULT_SENTENCES: Readonly<Record<NameFault, string>> = {
  empty: 'The name is empty.',
  long: `The name has over ${STEM_LIMIT} letters.`,
  letters: 'A name has only small letters a to z, digits and hyphens.',
  hyphens: 'Hyphens stand singly, and between words.',
  device: 'Some computers keep this name for a device.',
  digits: 'The name is only digits and says nothing of the picture.',
};

/** What is wrong with a stem, most telling first, or undefined for a good one. */
export function nameFault(stem: string): NameFault | undefined {
  if (stem === '') return 'empty';
  if (/[^a-z0-9-]/.test(stem)) return 'letters';
  if (/--|^-|-$/.test(stem)) return 'hyphens';
  if (stem.length > STEM_LIMIT) return 'long';
  if (DEVICE_NAME.test(stem)) return 'device';
  if (/^[0-9-]+$/.test(stem)) return 'digits';
  return undefined;
}

/** Whether some systems keep a name for a device, and a file or folder so called cannot be made there. */
export const isDeviceName = (name: string): boolean => DEVICE_NAME.test(name);

export function sayNameFault(fault: NameFault): string {
  return FAULT_SENTENCES[fault];
}
