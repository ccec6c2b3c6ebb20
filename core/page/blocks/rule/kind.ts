import type { BlockKind } from '../kind.ts';
import type { Rule } from './schema.ts';

const INLINE_RULE = 'clear:both;border:0;border-top:1px solid;margin:1.6em 0';

/** A break between what belongs together (HTML, `hr`: a change of subject, said to screen readers as a separator). */
export const rule: BlockKind<Rule> = {
  write: (_block, { isInline }) =>
    isInline ? `<hr class="rule" style="${INLINE_RULE}">` : '<hr class="rule">',
  words: () => [],
  style: () => '.rule { clear: both; border: 0; border-top: 1px solid #9aa8ae; margin: 1.6em 0; }',
  reads: {
    hr: (_node, flow, { newId }) => flow.putBlock({ type: 'rule', attrs: { id: newId() } }),
  },
};
