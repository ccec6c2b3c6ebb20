import { plainText } from '../../page/model.ts';
import type { Found } from '../finding.ts';
import type { ProofInput } from '../input.ts';

/** Headings: none empty, none more than one level below the one before (WCAG 2.2, 1.3.1); a page has a title. */
export function checkHeadings(input: ProofInput): readonly Found[] {
  const found: Found[] = [];
  if (input.page.title.trim() === '') {
    found.push({
      code: 'title-missing',
      sentence: 'The page has no title.',
      why: 'Listings, browsers and screen readers name it by its title.',
      place: { kind: 'page' },
      remedies: [],
    });
  }
  let above: 1 | 2 | 3 | 4 = 1;
  input.page.blocks.forEach((block, index) => {
    if (block.type !== 'heading') return;
    const text = plainText(block.content).trim();
    if (text === '') {
      found.push(emptyHeading(index));
      return;
    }
    const { level } = block.attrs;
    if (level > above + 1) found.push(skippedLevel(text, index, level, above));
    above = level;
  });
  return found;
}

function emptyHeading(index: number): Found {
  return {
    code: 'heading-empty',
    sentence: 'A heading is empty.',
    why: 'It goes out as nothing, and whoever moves by headings expects one.',
    place: { kind: 'block', index },
    remedies: [{ kind: 'remove-block', words: 'Remove it', index }],
  };
}

function skippedLevel(text: string, index: number, level: number, above: 1 | 2 | 3 | 4): Found {
  const wanted = above === 1 ? 2 : above === 2 ? 3 : 4;
  return {
    code: 'heading-order',
    sentence: `“${text}” skips a heading level.`,
    why: `It is a heading ${level} under a heading ${above}. Whoever moves by headings takes something for missing.`,
    place: { kind: 'block', index },
    remedies: [{ kind: 'heading-level', words: `Make it a heading ${wanted}`, index, level: wanted }],
  };
}
