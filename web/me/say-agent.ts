const SYSTEMS = [
  [/Windows/, 'Windows'],
  [/Android/, 'Android'],
  [/iPhone|iPad|iOS/, 'iOS'],
  [/Mac OS|Macintosh/, 'macOS'],
  [/Linux|X11/, 'Linux'],
] as const;

/** What a browser calls itself, as far as its owner knows it again: phone or computer, and its system. */
export function sayAgent(agent: string): string {
  const system = SYSTEMS.find(([pattern]) => pattern.test(agent))?.[1];
  const kind = /Mobile|Android|iPhone|iPad/.test(agent) ? 'A phone or tablet' : 'A computer';
  if (system) return `${kind} with ${system}`;
  return agent === '' ? 'An unknown browser' : agent.slice(0, 40);
}
