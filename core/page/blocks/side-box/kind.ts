import type { Found } from '../../../proof/finding.ts';
import { escapeHtml } from '../../escape.ts';
import { LABEL_FACES } from '../../faces.ts';
import { attribute, type HtmlElement, hasClass, textOf } from '../../html-tree.ts';
import { lettersPerLine, textBeside, widthSegments } from '../../layout.ts';
import { narrowedRoom, type Room } from '../../room.ts';
import type { HouseRules } from '../../target.ts';
import { isFlowBlock } from '../flow-block.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { readFlowBlocks, readLine } from '../read-flow-blocks.ts';
import { boxStyle, inlineBoxStyle, laidOut, PADDING_PX } from './laid-out.ts';
import { BOX_POSITIONS, BOX_SHARE, type BoxPosition, type SideBox } from './schema.ts';

function roomInside(room: Room, { attrs }: SideBox, { rules }: Pick<RoomContext, 'rules'>): Room {
  const stretches = widthSegments(rules, laidOut(attrs), room);
  return narrowedRoom({ stretches, sort: 'part' }, 2 * PADDING_PX);
}

/** Nobody reads a page narrower than this (WCAG 2.2, 1.4.10). */
const NARROWEST_PX = 320;

/** Where the text beside a box has room for too few letters. */
function squeezed({ attrs }: SideBox, room: Room, rules: HouseRules): readonly Found[] {
  const fewest = [...rules.proofWidths, rules.stackBelow, NARROWEST_PX].flatMap((viewport) => {
    const width = textBeside(rules, laidOut(attrs), room, viewport);
    const letters = width === null ? null : lettersPerLine(rules, width, viewport);
    return letters !== null && letters < rules.leastLettersBeside ? [{ viewport, letters }] : [];
  });
  if (fewest.length === 0) return [];
  const letters = Math.min(...fewest.map((one) => one.letters));
  const name = attrs.title === '' ? 'a side box' : `“${attrs.title}”`;
  return [
    {
      code: 'text-squeezed',
      values: { letters, name, other: null },
      place: { kind: 'block', blockId: attrs.id },
      viewports: fewest.map(({ viewport }) => viewport),
      remedies: [],
    },
  ];
}

/** What stands beside the text and is not part of it (HTML, `aside`), under a title of its own. */
export const sideBox: BlockKind<SideBox> = {
  write: (block, context) => {
    const { title, position } = block.attrs;
    const inner = context.inside(block.content, roomInside(context.room, block, context));
    if (inner === '' && title === '') return '';
    const name = title === '' ? '' : ` aria-label="${escapeHtml(title)}"`;
    const style = context.isInline ? inlineBoxStyle(block.attrs) : boxStyle(block.attrs);
    const head = title === '' ? [] : [`<p class="box-title"><strong>${escapeHtml(title)}</strong></p>`];
    return [
      `<aside class="box ${position}" style="${style}"${name}>`,
      ...head,
      ...(inner === '' ? [] : [inner]),
      '</aside>',
    ].join('\n');
  },
  words: ({ attrs: { title } }) => (title === '' ? [] : [[{ type: 'text', text: title }]]),
  style: ({
    stackBelow,
    dark,
  }) => `.box { display: flow-root; box-sizing: border-box; clear: both; margin: var(--t) var(--r) var(--b) var(--l); padding: ${PADDING_PX}px; border-top: 3px solid #55636a; background: #f1f4f5; font-size: 0.94em; }
.box > :last-child { margin-bottom: 0; }
.placard .box-title { margin: 0 0 0.5em; font: 600 1.05em/1.3 ${LABEL_FACES}; }
.box-title strong { font-weight: inherit; }
.box.beside-left, .box.beside-right { clear: none; width: max(40px, min(var(--w), 100% - var(--l) - var(--r))); }
.box.beside-left { float: left; clear: left; }
.box.beside-right { float: right; clear: right; }
@container placard (width < ${stackBelow}px) { .box.beside-left, .box.beside-right { float: none; width: 100%; margin-left: 0; margin-right: 0; } }
@media print { .box { break-inside: avoid; background: none; border: 1px solid #9aa8ae; } }${
    dark
      ? '\n@media screen and (prefers-color-scheme: dark) { .box { background: #1d272b; border-top-color: #9aa8ae; } }'
      : ''
  }`,
  findings: (block, room, { rules }) => squeezed(block, room, rules),
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isFlowBlock) }),
    room: roomInside,
  },
  reads: {
    aside: (node, flow, reader) => {
      const head = titleIn(node);
      const rest = head ? node.children.filter((child) => child !== head) : node.children;
      const { content, after } = readFlowBlocks(rest, reader);
      const { line: title, rest: more } = readLine(
        head ? textOf(head) : attribute(node, 'aria-label'),
        reader,
      );
      if (content.length > 0 || title !== '')
        flow.putBlock({
          type: 'sideBox',
          attrs: { id: reader.newId(), title, position: positionOf(node), share: shareOf(node) },
          content: [...more, ...content],
        });
      for (const part of after) flow.put(part);
    },
  },
};

/** The title of a box: its own, or the heading that it begins with. */
function titleIn(node: HtmlElement): HtmlElement | null {
  const first = [...node.children].find((child) => typeof child !== 'string' || child.trim() !== '');
  if (!first || typeof first === 'string') return null;
  if (hasClass(first, 'box-title')) return first;
  // A box of Placard has its title in no heading: one at its head is part of what it says.
  const isOwn = hasClass(node, 'box') && BOX_POSITIONS.some((position) => hasClass(node, position));
  return !isOwn && /^h[1-6]$/.test(first.name) ? first : null;
}

function positionOf(node: HtmlElement): BoxPosition {
  const classes = attribute(node, 'class').split(/\s+/);
  return BOX_POSITIONS.find((position) => classes.includes(position)) ?? 'column';
}

function shareOf(node: HtmlElement): number {
  const said = Number(
    /(?:^|;)\s{0,9}(?:--w|width):(\d{1,3})%/.exec(attribute(node, 'style').slice(0, 2000))?.[1],
  );
  return said >= BOX_SHARE.least && said <= BOX_SHARE.most ? said : BOX_SHARE.usual;
}
