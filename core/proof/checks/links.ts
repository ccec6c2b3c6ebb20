import { anchorsOf, linkedAnchors } from '../../page/anchors.ts';
import type { Block } from '../../page/blocks/block.ts';
import { kindOf } from '../../page/blocks/kinds.ts';
import { type Inline, plainText } from '../../page/inline.ts';
import { linkRuns } from '../../page/link-runs.ts';
import { hrefsOf } from '../../page/linked.ts';
import { fileIdIn, pageIdIn } from '../../page/page-address.ts';
import { walkPage } from '../../page/walk.ts';
import { isVagueLink } from '../../words/vague-link.ts';
import type { Found } from '../finding.ts';
import type { ProofInput } from '../input.ts';

/** Link texts that say nothing by themselves: screen readers list links without the words around them (WCAG 2.2, 2.4.4 and 2.4.9). */
export function checkLinks(input: ProofInput): readonly Found[] {
  return [...checkWords(input), ...checkAnchors(input), ...checkHeld(input)];
}

/** Links to places on this page that it does not have. */
function checkAnchors({ page, rules }: ProofInput): readonly Found[] {
  const there = new Set(anchorsOf(page, rules.language).map(({ anchor }) => anchor));
  return [...walkPage(page)].flatMap((block) =>
    // What a block holds is asked by itself.
    [...linkedAnchors({ blocks: [withoutInner(block)] })]
      .filter((anchor) => anchor !== '' && anchor !== 'top' && !there.has(anchor))
      .map(
        (anchor): Found => ({
          code: 'anchor-missing',
          values: { anchor },
          place: placeOf(block),
          remedies: [],
        }),
      ),
  );
}

/** Links to pages and files that are gone, or pages whose address nobody has said: they go out as words alone. */
function checkHeld({ page, pages, pieces }: ProofInput): readonly Found[] {
  return [...walkPage(page)].flatMap((block) =>
    hrefsOf(block).flatMap((href): Found[] => {
      const place = placeOf(block);
      const pageId = pageIdIn(href);
      if (pages && pageId !== null && !pages.get(pageId)?.address) {
        const title = pages.get(pageId)?.title ?? null;
        return [{ code: 'page-link-broken', values: { title }, place, remedies: [] }];
      }
      const fileId = fileIdIn(href);
      const kind = fileId === null ? undefined : pieces.get(fileId)?.kind;
      return fileId !== null && (kind === undefined || kind === 'embed')
        ? [{ code: 'file-link-broken', values: {}, place, remedies: [] }]
        : [];
    }),
  );
}

const placeOf = ({ type, attrs: { id } }: Block) =>
  type === 'placement'
    ? ({ kind: 'placement', placementId: id } as const)
    : ({ kind: 'block', blockId: id } as const);

function withoutInner(block: Block): Block {
  return kindOf(block).inside?.with(block, []) ?? block;
}

function checkWords({ page }: ProofInput): readonly Found[] {
  return [...walkPage(page)].flatMap((block) =>
    kindOf(block)
      .words(block)
      .flatMap((run) => linksIn(run ?? []))
      .filter(isVagueLink)
      .map(
        (words): Found => ({
          code: 'link-vague',
          values: { words: words.trim() },
          place: { kind: 'block', blockId: block.attrs.id },
          remedies: [],
        }),
      ),
  );
}

/** The words of each link of a run, in order. */
function linksIn(content: readonly Inline[]): readonly string[] {
  return linkRuns(content).flatMap(({ link, inlines }) => (link ? [plainText(inlines)] : []));
}
