import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type FindEndpoint, openRegistry } from '#core/embed/registry.ts';

const require = createRequire(import.meta.url);
let opened: FindEndpoint | null = null;

/** Where a host that has no entry answers by oEmbed, by the open registry. Read when it is first asked. */
export function registeredEndpoint(address: string): string | undefined {
  opened ??= openRegistry(JSON.parse(readFileSync(require.resolve('oembed-providers'), 'utf8')));
  return opened(address);
}
