/** A target as rights know it, for tests: read everywhere, and not commercial. */
export const EXAMPLE_PLACE = {
  name: 'Reserve site',
  commercial: false,
  creditOwnWork: false,
  territory: [],
  educational: false,
  publishing: 'web',
  trustedSources: [],
} as const;
