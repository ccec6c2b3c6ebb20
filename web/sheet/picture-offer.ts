import { type Editor, Node as EditorNode } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import type { NodeView } from '@tiptap/pm/view';
import * as v from 'valibot';
import type { OfferedPicture } from '#core/page/rich-pasted.ts';
import { buttonLook } from '../ui/button.tsx';
import type { SheetHooks } from './hooks.ts';
import { OFFER_ATTRIBUTE, PICTURE_OFFER } from './rich-text.ts';
import { NAME_META } from './step-name.ts';

const OfferSchema = v.object({ address: v.string(), words: v.string() });

/** Stands where a picture stood in text that was brought from elsewhere, until it is taken in or left out. */
export function pictureOffer(hooks: Pick<SheetHooks, 'onOfferedPicture' | 'onFiles'>) {
  return EditorNode.create({
    name: PICTURE_OFFER,
    group: 'block',
    atom: true,
    selectable: false,
    addAttributes: () => ({
      address: { default: '', rendered: false },
      words: { default: '', rendered: false },
    }),
    parseHTML: () => [{ tag: `div[${OFFER_ATTRIBUTE}]`, getAttrs: readOffer }],
    renderHTML: ({ node }) => ['div', { [OFFER_ATTRIBUTE]: JSON.stringify(node.attrs) }],
    addNodeView() {
      return ({ node, editor, getPos }) => new OfferView(node, editor, getPos, hooks);
    },
  });
}

function readOffer(element: HTMLElement): OfferedPicture | false {
  const read = v.safeParse(
    v.pipe(v.string(), v.parseJson(), OfferSchema),
    element.getAttribute(OFFER_ATTRIBUTE),
  );
  return read.success ? read.output : false;
}

class OfferView implements NodeView {
  readonly dom = document.createElement('div');
  readonly #said = document.createElement('p');
  readonly #editor: Editor;
  readonly #placeOf: () => number | undefined;
  readonly #offer: OfferedPicture;
  readonly #hooks: Pick<SheetHooks, 'onOfferedPicture' | 'onFiles'>;

  constructor(
    node: Node,
    editor: Editor,
    placeOf: () => number | undefined,
    hooks: Pick<SheetHooks, 'onOfferedPicture' | 'onFiles'>,
  ) {
    this.#editor = editor;
    this.#placeOf = placeOf;
    this.#hooks = hooks;
    this.#offer = v.parse(OfferSchema, node.attrs);
    this.dom.className =
      'picture-offer my-4 flex flex-wrap items-center gap-x-3 gap-y-1.5 border border-dashed border-paper-soft px-3 py-2 font-sans text-base leading-flat text-paper-ink';
    this.dom.contentEditable = 'false';
    this.dom.role = 'group';
    this.dom.ariaLabel = 'A picture that came with the text';
    this.#said.className = 'min-w-0 flex-1 basis-50 wrap-anywhere';
    this.#said.role = 'status';
    this.#said.textContent = sayOffer(this.#offer);
    this.dom.append(
      this.#said,
      this.#way(),
      this.#button('Leave it out', 'link', () => this.#leaveOut()),
    );
  }

  stopEvent(event: Event): boolean {
    return event.target instanceof Element && event.target.closest('button, label') !== null;
  }

  ignoreMutation(): boolean {
    return true;
  }

  #way(): HTMLElement {
    return this.#offer.address
      ? this.#button('Take it in', 'plain', (button) => void this.#takeIn(button))
      : this.#fileButton();
  }

  #button(
    words: string,
    kind: 'plain' | 'link',
    act: (button: HTMLButtonElement) => void,
  ): HTMLButtonElement {
    const button = document.createElement('button');
    button.type = 'button';
    button.className = buttonLook({ kind });
    button.textContent = words;
    button.addEventListener('click', () => act(button));
    return button;
  }

  /** Its bytes are on another machine, or in a folder that no page may read: its file is asked for. */
  #fileButton(): HTMLElement {
    const field = document.createElement('input');
    field.type = 'file';
    field.accept = 'image/*';
    field.hidden = true;
    field.addEventListener('change', () => {
      const [file] = field.files ?? [];
      const at = this.#place();
      if (!file || at === undefined) return;
      this.#leaveOut();
      this.#hooks.onFiles([{ file, folder: '' }], at);
    });
    const button = this.#button('Choose its file', 'plain', () => field.click());
    button.append(field);
    return button;
  }

  async #takeIn(button: HTMLButtonElement): Promise<void> {
    button.disabled = true;
    this.#said.textContent = 'It is being taken in...';
    const why = await this.#hooks.onOfferedPicture(this.#offer, () => this.#place() ?? null);
    if (why === null) return;
    this.#said.textContent = `It was not taken in. ${why}`;
    button.disabled = false;
  }

  /** Where it stands by now. Drawn anew meanwhile, as when what else was written came in, it is found by what it offers. */
  #place(): number | undefined {
    const at = this.#placeOf();
    if (at !== undefined) return at;
    const { address, words } = this.#offer;
    let found: number | undefined;
    this.#editor.state.doc.descendants(({ type, attrs }, place) => {
      if (type.name === PICTURE_OFFER && attrs.address === address && attrs.words === words) found ??= place;
      return found === undefined;
    });
    return found;
  }

  #leaveOut(): void {
    const at = this.#place();
    if (at === undefined) return;
    const { tr } = this.#editor.state;
    this.#editor.view.dispatch(tr.delete(at, at + 1).setMeta(NAME_META, 'leaving a picture out'));
    this.#editor.view.focus();
  }
}

function sayOffer({ address, words }: OfferedPicture): string {
  const name = words ? ` “${words}”` : '';
  if (address === '') return `A picture${name} stood here, on the machine that the text was copied from.`;
  const from = address.startsWith('data:') ? '' : `, from ${new URL(address).hostname}`;
  return `A picture${name} came with the text${from}.`;
}
