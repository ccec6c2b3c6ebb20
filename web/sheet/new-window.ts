import { Extension, Mark } from '@tiptap/core';
import { messagesFor } from '#core/messages/messages.ts';

/** How it is said on the sheet: as it goes out, behind the words of the link. */
export const NEW_WINDOW_LOOK = "[&_a[data-new-window]]:after:content-['_('_attr(data-new-window)_')']";

/** Whether a link opens a new window, which it says in the language of the page. */
export const newWindow = (language: string) =>
  Extension.create({
    name: 'newWindow',
    addGlobalAttributes: () => [
      {
        types: ['link'],
        attributes: {
          newWindow: {
            default: false,
            parseHTML: (element: HTMLElement) =>
              'newWindow' in element.dataset ||
              (element.getAttribute('target') === '_blank' &&
                element.querySelector(':scope > .link-says') !== null),
            renderHTML: (attributes: Readonly<Record<string, unknown>>) =>
              attributes.newWindow === true
                ? { 'data-new-window': messagesFor(language).opensNewWindow }
                : {},
          },
        },
      },
    ],
  });

/** What a link says of itself when it goes out is no word of the page that it is pasted on. */
export const linkSays = Mark.create({
  name: 'linkSays',
  parseHTML: () => [{ tag: 'span.link-says', ignore: true }],
});
