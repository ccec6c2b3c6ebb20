import { combine } from '@atlaskit/pragmatic-drag-and-drop/utils/combine';
import { type Editor, Node as EditorNode } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Decoration, type NodeView } from '@tiptap/pm/view';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { type EmbedForm, FORM_WORDS } from '#core/embed/forms.ts';
import { entryById } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { titleOf } from '#core/embed/write.ts';
import { factsOut } from '#core/film/made.ts';
import type { CropRect } from '#core/media/crop.ts';
import type { Size } from '#core/media/dimensions.ts';
import type { OverWords } from '#core/media/over-words.ts';
import { frameIn, type Recipe, sizeAfter } from '#core/media/recipe.ts';
import { messagesFor } from '#core/messages/messages.ts';
import type { Messages } from '#core/messages/table.ts';
import { figureClass, figureStyle } from '#core/page/blocks/placement/figure.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { newPlacement, PlacementSchema } from '#core/page/blocks/placement/schema.ts';
import { overClass, overStyle } from '#core/page/blocks/placement/write.ts';
import { describedAs, describedIn } from '#core/page/described.ts';
import { embedHere, formHere } from '#core/page/embed-here.ts';
import { preparedHere, recipeHere, viewKey } from '#core/page/picture.ts';
import { embedOf, type HeldEmbed, type Piece } from '#core/page/piece.ts';
import type { Room } from '#core/page/room.ts';
import { standsIn } from '#core/page/standing.ts';
import type { HouseRules } from '#core/page/target.ts';
import { captionHere, creditUnder, titleHere } from '#core/page/words.ts';
import { creditText } from '#core/rights/credit.ts';
import { makeSource } from '../../../drag/pointer.ts';
import type { Source } from '../../../drag/source.ts';
import { drawOver } from '../../../over/draw-over.ts';
import { ownViews } from '../../../pieces/own-views.ts';
import { pieceOf, pieces } from '../../../pieces/pieces.ts';
import { chosenPlaced } from '../../chosen-pieces.ts';
import { LiveEmbed } from './live-embed.ts';

/** What pieces stand in side by side, each filling its place. */
export const ROW_GROUP = 'row';

/** A mark on a piece of a row, by which it is told its part of it. */
export const partOfRow = (from: number, to: number, style: string): Decoration =>
  Decoration.node(from, to, {}, { partStyle: style });

const partStylesOf = (decorations: readonly Decoration[]): readonly string[] =>
  decorations.flatMap(({ spec }) => (typeof spec.partStyle === 'string' ? [spec.partStyle] : []));

export function placementOf(node: Node): Placement {
  return v.parse(PlacementSchema, node.attrs);
}

const BLANK = newPlacement('blank', 'blank');

/** A piece on the sheet: one block, drawn with the very classes and measures that go out. */
export function placementNode(rules: HouseRules, targetId: string) {
  return EditorNode.create({
    name: 'placement',
    group: 'block',
    atom: true,
    draggable: true,
    selectable: true,
    addAttributes() {
      return Object.fromEntries(
        Object.entries(BLANK).map(([name, value]) => [name, { default: value, rendered: false }]),
      );
    },
    parseHTML() {
      return [{ tag: 'figure[data-placement]', getAttrs: (element) => readAttributes(element) }];
    },
    // Only for the clipboard, so that a placement can be cut and pasted; what goes out is written by core.
    renderHTML({ node }) {
      return ['figure', { 'data-placement': JSON.stringify(node.attrs) }];
    },
    addNodeView() {
      return ({ node, editor, getPos, decorations }) =>
        new PlacementView(node, rules, targetId, editor, getPos, decorations);
    },
  });
}

/** A placement as what is dragged, or carried by keys; one of several that are chosen together takes the others with it. */
export function carriedFrom(editor: Editor, { id, asset }: Placement): Source {
  const placed = chosenPlaced(editor.state);
  if (placed.length > 1 && placed.some((one) => one.id === id))
    return {
      dragged: {
        from: 'sheet',
        ids: placed.map(({ node }) => String(node.attrs.asset)),
        placementIds: placed.map((one) => one.id),
      },
      words: `${placed.length} pieces`,
      isMovable: editor.isEditable,
    };
  const held = pieces.state.get(asset);
  return {
    dragged: { from: 'sheet', ids: [asset], placementIds: [id] },
    words: held ? held.label.title || held.stem : 'The piece',
    isMovable: editor.isEditable,
  };
}

/** A pasted placement is a new use: it gets an id of its own. Anything that is not a placement is passed over. */
function readAttributes(element: HTMLElement): Placement | false {
  try {
    const read = v.safeParse(PlacementSchema, JSON.parse(element.dataset.placement ?? ''));
    return read.success ? { ...read.output, id: crypto.randomUUID() } : false;
  } catch (error) {
    if (error instanceof SyntaxError) return false;
    throw error;
  }
}

class PlacementView implements NodeView {
  readonly dom = document.createElement('figure');
  readonly #worded = document.createElement('div');
  readonly #window = document.createElement('div');
  readonly #image = document.createElement('img');
  readonly #caption = document.createElement('figcaption');
  readonly #live: LiveEmbed;
  readonly #rules: HouseRules;
  readonly #messages: Messages;
  readonly #stopListening: () => void;
  readonly #editor: Editor;
  readonly #placeOf: () => number | undefined;
  #placement: Placement;
  /** What it gets of the row that it stands in. */
  #partStyles: readonly string[];
  /** The piece as it was drawn last. */
  #drawn: Asset | undefined;

  constructor(
    node: Node,
    rules: HouseRules,
    targetId: string,
    editor: Editor,
    placeOf: () => number | undefined,
    decorations: readonly Decoration[],
  ) {
    this.#rules = rules;
    this.#editor = editor;
    this.#placeOf = placeOf;
    this.#messages = messagesFor(rules.language);
    this.#live = new LiveEmbed(targetId, (px) => this.#showHeight(px));
    this.#placement = placementOf(node);
    this.#partStyles = partStylesOf(decorations);
    this.#window.className = 'sheet-window relative overflow-hidden bg-paper-ground';
    this.#window.dataset.part = 'window';
    this.#worded.append(this.#window);
    this.#image.draggable = false;
    this.#image.className = 'absolute max-w-none';
    this.#window.append(this.#image);
    this.dom.append(this.#worded, this.#caption);
    this.dom.contentEditable = 'false';
    this.#draw();
    this.#stopListening = combine(
      pieces.subscribe(() => {
        // Of all pieces that any screen has seen, only its own is drawn here.
        if (pieces.state.get(this.#placement.asset) !== this.#drawn) this.#draw();
      }),
      makeSource(this.dom, () => carriedFrom(editor, this.#placement)),
    );
  }

  update(node: Node, decorations: readonly Decoration[]): boolean {
    if (node.type.name !== 'placement') return false;
    this.#placement = placementOf(node);
    this.#partStyles = partStylesOf(decorations);
    this.#draw();
    return true;
  }

  selectNode(): void {
    this.dom.classList.add('is-selected');
  }

  deselectNode(): void {
    this.dom.classList.remove('is-selected');
  }

  ignoreMutation(): boolean {
    return true;
  }

  destroy(): void {
    this.#live.end();
    this.#stopListening();
  }

  /** How it stands in what it is in: on the page itself, in a row of pieces, or in another part. */
  #room(): Pick<Room, 'sort' | 'isCard'> {
    const at = this.#placeOf();
    const $at = at === undefined ? null : this.#editor.state.doc.resolve(at);
    if (!$at || $at.depth === 0) return { sort: 'column' };
    if ($at.parent.type.isInGroup(ROW_GROUP)) return { sort: 'filled' };
    return { sort: 'part', isCard: $at.parent.type.name === 'card' };
  }

  #draw(): void {
    const room = this.#room();
    const placement = standsIn(this.#placement, room);
    const isSelected = this.dom.classList.contains('is-selected');
    this.dom.className = `${figureClass(placement, room, this.#rules)}${isSelected ? ' is-selected' : ''}`;
    this.dom.setAttribute('style', [figureStyle(placement), ...this.#partStyles].join(';'));
    const asset = pieces.state.get(placement.asset);
    this.#drawn = asset;
    this.dom.classList.toggle('is-missing', !asset);
    if (!asset) {
      this.#caption.textContent = 'This piece is no longer on the shelf, or is kept for others of the house.';
      this.#window.hidden = true;
      return;
    }
    const piece = preparedHere(placement, pieceOf(asset));
    const recipe = recipeHere(placement, piece);
    const cut = sizeAfter(piece.size, recipe);
    this.#window.hidden = false;
    this.#window.style.height = '';
    this.#window.style.aspectRatio = `${cut.width} / ${cut.height}`;
    // The view is of the piece as a whole: what is cropped for every use is cropped in it already.
    const crop =
      placement.ratio && !recipe.pad
        ? frameIn({ ...piece, focal: piece.label.focal }, placement.ratio)
        : padOf(recipe, piece.size);
    this.#window.style.background = recipe.pad?.backgroundColour ?? '';
    Object.assign(this.#image.style, {
      width: `${100 / crop.width}%`,
      height: `${100 / crop.height}%`,
      left: `${(-crop.left / crop.width) * 100}%`,
      top: `${(-crop.top / crop.height) * 100}%`,
    });
    const view = viewOf(placement, asset, piece);
    if (this.#image.src !== view) this.#image.src = view;
    this.#image.alt = `Placed piece: ${asset.label.title || asset.stem}`;
    this.#drawWords(recipe.words, cut);
    this.#drawEmbed(embedOf(asset));
    this.#drawFile(asset);
    const words = [
      captionHere(this.#rules, placement, piece),
      creditText(creditUnder(this.#rules, placement, piece, room)),
    ]
      .filter(Boolean)
      .join(' ');
    this.#caption.textContent = words;
    const described = describedIn(this.#rules, piece).length > 0;
    if (described) this.#caption.append(this.#described(piece));
    this.#caption.hidden = words === '' && !described;
  }

  /** The long description, folded away as readers find it; what is in it is read on the label. */
  #described(piece: Piece): HTMLElement {
    const details = document.createElement('details');
    details.className = 'described';
    const summary = document.createElement('summary');
    summary.textContent = describedAs(this.#rules, piece);
    details.append(summary);
    return details;
  }

  /** How an embed stands here, over its poster; one that is a link shows nothing else. */
  #drawEmbed(held: HeldEmbed | null): void {
    this.dom.classList.toggle('is-embed', held !== null);
    if (!held) {
      this.#live.hide();
      return;
    }
    const form = formHere(this.#rules, this.#placement, held);
    const said = document.createElement('span');
    said.className = 'block bg-bar px-3 py-2 font-sans font-semibold text-bar-ink text-sm leading-flat';
    said.textContent = `${titleOf(held.embed, entryById(held.embed.host, held.hosts), this.#messages)}. ${FORM_WORDS[form]}.`;
    this.#window.hidden = form === 'link';
    if (form === 'frame' || form === 'widget') this.#showLive(embedHere(this.#placement, held), form);
    else this.#live.hide();
    this.#worded.append(said);
  }

  /** A document is named under its first page, by the words that lead to its file. */
  #drawFile(asset: Asset): void {
    this.#window.classList.toggle('file-page', asset.kind === 'document');
    if (asset.kind === 'film') {
      const said = document.createElement('span');
      said.className = 'block bg-bar px-3 py-2 font-sans font-semibold text-bar-ink text-sm leading-flat';
      said.textContent = `${titleHere(this.#rules, asset)} (${this.#messages.film(factsOut(asset.stem, asset.extension, asset))})`;
      this.#worded.append(said);
      return;
    }
    if (asset.kind !== 'document') return;
    const name = document.createElement('span');
    name.className = 'file';
    name.textContent = `${titleHere(this.#rules, asset)} (${this.#messages.document(asset.document)})`;
    this.#worded.append(name);
  }

  #showLive(embed: Embed, form: EmbedForm): void {
    if (this.#live.dom.parentElement !== this.#window) this.#window.append(this.#live.dom);
    this.#live.show(embed, form);
    if (embed.shape.kind === 'height') this.#showHeight(this.#live.height ?? embed.shape.px);
  }

  /** What has a height of its own is as high as its host's page says, as soon as that has told it. */
  #showHeight(px: number): void {
    const asset = pieces.state.get(this.#placement.asset);
    const held = asset ? embedOf(asset) : null;
    if (held?.embed.shape.kind !== 'height') return;
    this.#window.style.aspectRatio = '';
    this.#window.style.height = `${px}px`;
  }

  /** Words over the picture, as they go out: text of the page, or drawn into the file. */
  #drawWords(words: OverWords | null, cut: Size): void {
    const isText = this.#rules.wordsOver === 'text';
    this.#worded.className = words ? 'worded' : '';
    const drawn = words ? [isText ? asText(words) : drawOver(words, cut)] : [];
    this.#worded.replaceChildren(this.#window, ...drawn);
  }
}

/** The piece as it looks in this use: by its own recipe, or by the one of the placement alone. */
function viewOf({ prep }: Placement, asset: Asset, piece: Piece): string {
  return (prep && ownViews.get(viewKey(asset.id, piece, prep))) || asset.view;
}

/** Where a shape that a picture is fitted into lies about it, in fractions of the picture; the picture itself without one. */
function padOf(recipe: Recipe, original: Size): CropRect {
  const box = sizeAfter(original, recipe);
  const inner = sizeAfter(original, { ...recipe, pad: null });
  const [width, height] = [box.width / inner.width, box.height / inner.height];
  return { left: (1 - width) / 2, top: (1 - height) / 2, width, height };
}

function asText(words: OverWords): HTMLElement {
  const paragraph = document.createElement('p');
  paragraph.className = overClass(words);
  paragraph.setAttribute('style', overStyle(words));
  const text = document.createElement('span');
  const lines = words.text.split('\n');
  text.append(...lines.flatMap((line, at) => (at === 0 ? [line] : [document.createElement('br'), line])));
  paragraph.append(text);
  return paragraph;
}
