import type { HostEntry } from '#core/embed/host.ts';

/** A made-up film host, to be written over: the parts that nearly every entry needs. */
export const EXAMPLE_ENTRY: HostEntry = {
  id: 'films',
  name: 'A film host',
  kind: 'film',
  origin: 'https://films.example',
  hosts: [],
  addresses: [{ match: ['/watch/{id}', '/play/{id}'], frame: '/play/{id}', page: '/watch/{id}' }],
  oembed: 'https://films.example/oembed',
  search: null,
  upload: null,
  parameters: [{ name: 'start', label: 'Start at', type: 'time', role: 'start', standard: null }],
  tracking: [],
  allow: ['fullscreen'],
  sandbox: ['allow-scripts', 'allow-same-origin'],
  shape: { kind: 'ratio', across: 16, down: 9 },
  heightMessage: null,
  widget: null,
  ask: 'Copy the address of the page on which the film is watched.',
};
