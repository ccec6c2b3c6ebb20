import { EmbedPreviewSchema } from '#api/embeds.ts';
import type { EmbedForm } from '#core/embed/forms.ts';
import type { Embed } from '#core/embed/model.ts';
import { ask } from '../api/client.ts';

/**
 * An embed live on the sheet, as readers get it. It takes no clicks there, so that it is selected and moved as any piece
 * is; while its address is asked for, and where it cannot be had, the poster under it shows.
 */
export class LiveEmbed {
  readonly dom = document.createElement('iframe');
  readonly #target: string;
  #shown = '';

  constructor(target: string) {
    this.#target = target;
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
    void ask(EmbedPreviewSchema, '/embeds/previews', {
      method: 'POST',
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

  hide(): void {
    this.#shown = '';
    this.dom.hidden = true;
    this.dom.removeAttribute('src');
  }
}
