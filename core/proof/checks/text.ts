import type { HeadingLevel } from '../../page/blocks/heading/schema.ts';
import { plainText } from '../../page/inline.ts';
import { walkPage } from '../../page/walk.ts';
import type { Found } from '../finding.ts';
import type { ProofInput } from '../input.ts';

/** Headings: none more than one level below the one before (WCAG 2.2, 1.3.1); a page has a title. */
export function checkHeadings(input: ProofInput): readonly Found[] {
  const found: Found[] = [];
  if (input.page.title.trim() === '') {
    found.push({
      code: 'title-missing',
      values: {},
      place: { kind: 'page' },
      remedies: [],
    });
  }
  let above: 1 | HeadingLevel = 1;
  for (const block of walkPage(input.page)) {
    if (block.type !== 'heading') continue;
    const text = plainText(block.content).trim();
    if (text === '') continue;
    const { id, level } = block.attrs;
    if (level > above + 1) found.push(skippedLevel(text, id, level, above));
    above = level;
  }
  return found;
}

function skippedLevel(text: string, blockId: string, level: number, above: 1 | HeadingLevel): Found {
  const wanted = above === 1 ? 2 : above === 2 ? 3 : 4;
  return {
    code: 'heading-order',
    values: { text, level, above },
    place: { kind: 'block', blockId },
    remedies: [{ kind: 'heading-level', blockId, level: wanted }],
  };
}
