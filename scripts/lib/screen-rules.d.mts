/** Every fault in what the screens under `root` are drawn with, a sentence each. */
export function screenFaults(root: string): string[];
