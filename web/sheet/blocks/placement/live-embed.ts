import { EmbedPreviewSchema } from '#api/embeds.ts';
import type { EmbedForm } from '#core/embed/forms.ts';
import type { Embed } from '#core/embed/model.ts';
import { requestJson } from '../../../api/client.ts';
import { toldBy } from '../../../measure/told.ts';

/**
 * An embed live on the sheet, as readers get it. It takes no clicks there, so that it is selected and moved as any piece
 * is; while its address is asked for, and where it cannot be had, the poster under it shows.
 */
export class LiveEmbed {
  readonly dom = document.createElement('iframe');
  readonly #target: string;
  readonly #onHeight: (px: number) => void;
  #shown = '';
  #height: number | null = null;

  /** `onHeight` hears how high it is as readers get it, where its host tells its frame's height. */
  constructor(target: string, onHeight: (px: number) => void) {
    this.#target = target;
    this.#onHeight = onHeight;
    window.addEventListener('message', this.#hear);
    this.dom.className = 'pointer-events-none absolute inset-0 size-full bg-paper';
    this.dom.title = 'The embed, live';
    this.dom.tabIndex = -1;
    this.dom.setAttribute(
      'sandbox',
      'allow-scripts allow-same-origin allow-forms allow-popups allow-presentation',
    );
    this.dom.hidden = true;
  }

  show(embed: Embed, form: EmbedForm): void {
    const wanted = JSON.stringify([embed, form]);
    if (wanted === this.#shown) return;
    this.#shown = wanted;
    this.#height = null;
    void requestJson('post /embeds/previews', EmbedPreviewSchema, {
      body: { embed, target: this.#target, form },
    }).then(
      ({ address }) => {
        if (this.#shown !== wanted) return;
        this.dom.src = address;
        this.dom.hidden = false;
      },
      () => this.hide(),
    );
  }

  /** How high it said last that it is, in px; null before it said so. */
  get height(): number | null {
    return this.#height;
  }

  readonly #hear = (event: MessageEvent): void => {
    const told = toldBy(this.dom, event);
    if (!told || told.height < 1 || told.height === this.#height) return;
    this.#height = told.height;
    this.#onHeight(told.height);
  };

  end(): void {
    window.removeEventListener('message', this.#hear);
  }

  hide(): void {
    this.#shown = '';
    this.#height = null;
    this.dom.hidden = true;
    this.dom.removeAttribute('src');
  }
}
