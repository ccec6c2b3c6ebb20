/** How a finding counts: it stops sending, it should be mended, or it is worth knowing. */
export const SEVERITIES = ['stops', 'mend', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Every fault or risk that a proof looks for. */
export const FINDING_CODES = [
  'alt-missing',
  'alt-poor',
  'language-differs',
  'licence-missing',
  'credit-missing',
  'use-not-allowed',
  'piece-missing',
  'want-unfilled',
  'enlarged',
  'enlarged-sharp',
  'stretched',
  'oversized',
  'words-faint',
  'words-small',
  'words-unsaid',
  'embed-gone',
  'embed-private',
  'embed-untrusted',
  'embed-refused',
  'embed-stripped',
  'captions-missing',
  'dimensions-missing',
  'page-heavy',
  'text-squeezed',
  'heading-order',
  'heading-empty',
  'title-missing',
  'link-empty',
  'link-vague',
  'name-rule',
  'same-piece-twice',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** What each finding is called where it is listed without a case, as in House rules. */
export const FINDING_NAMES: Readonly<Record<FindingCode, string>> = {
  'alt-missing': 'A picture without words for those who cannot see it',
  'alt-poor': 'Alt text that says little',
  'language-differs': 'Alt text or a caption in another language than the page',
  'licence-missing': 'A piece whose licence is not known',
  'credit-missing': 'A credit that is owed and cannot be written',
  'use-not-allowed': 'A use that the licence does not allow',
  'piece-missing': 'A piece that is no longer on the shelf',
  'want-unfilled': 'A want without a piece',
  enlarged: 'A picture shown larger than it is',
  'enlarged-sharp': 'A picture too small for sharp screens',
  stretched: 'A picture shown in another shape than its own',
  oversized: 'A picture far larger than it is shown',
  'words-faint': 'Words over a picture that hardly stand out',
  'words-small': 'Words drawn too small to read',
  'words-unsaid': 'Words drawn into a picture, and not in its alt text',
  'embed-gone': 'An embed that is no longer at its host',
  'embed-private': 'An embed that its host keeps private',
  'embed-untrusted': 'An embed of a host that nobody has decided on',
  'embed-refused': 'An embed that refuses to be framed',
  'embed-stripped': 'An embed that does not come through as a frame',
  'captions-missing': 'A film without captions',
  'dimensions-missing': 'A picture without width and height',
  'page-heavy': 'A page over its weight',
  'text-squeezed': 'Text squeezed beside a picture',
  'heading-order': 'Headings that skip a level',
  'heading-empty': 'An empty heading',
  'title-missing': 'A page without a title',
  'link-empty': 'A link without words',
  'link-vague': 'A link whose words do not say where it leads',
  'name-rule': 'A file name that breaks the rule',
  'same-piece-twice': 'The same piece twice on a page',
};

/**
 * What it means for readers when a fault that shuts some of them out is no longer looked for: said before that is
 * (ATAG 2.0, B.4.1.3). Each names the criterion of WCAG 2.2 that nobody checks then.
 */
export const WHAT_OFF_MEANS: Readonly<Partial<Record<FindingCode, string>>> = {
  'alt-missing': 'Pictures go out with nothing in their place for readers who cannot see them (WCAG 1.1.1).',
  'alt-poor': 'Alt text that says a file name, or nothing, goes out unnoticed (WCAG 1.1.1).',
  'language-differs': 'Words in another language are read out in the sounds of this one (WCAG 3.1.2).',
  'words-faint': 'Words over pictures go out that many readers cannot make out (WCAG 1.4.3).',
  'words-small': 'Words drawn into pictures go out that many readers cannot read (WCAG 1.4.5).',
  'words-unsaid': 'Words drawn into a picture go out that screen readers never say (WCAG 1.1.1).',
  'captions-missing': 'Films go out that deaf readers cannot follow (WCAG 1.2.2).',
  'text-squeezed': 'Lines of single words go out to readers who enlarge the page (WCAG 1.4.10).',
  'heading-order': 'Readers who move by headings take parts of the page for missing (WCAG 1.3.1).',
  'heading-empty': 'Readers who move by headings come to one that says nothing (WCAG 2.4.6).',
  'title-missing': 'Readers with a screen reader are not told which page they are on (WCAG 2.4.2).',
  'link-empty': 'Links go out that screen readers cannot name (WCAG 2.4.4).',
  'link-vague': 'Links go out that say nothing in a list of links (WCAG 2.4.4).',
};
