import type { Framing } from './framing.ts';
import { entryById, type Hosts, trustOf } from './host.ts';
import type { Embed } from './model.ts';
import { type EmbedTarget, letsFrameThrough } from './target.ts';

/** The ways in which a thing can stand in a page, from the fullest to the plainest. */
export const EMBED_FORMS = ['click', 'frame', 'widget', 'player', 'poster', 'link'] as const;
export type EmbedForm = (typeof EMBED_FORMS)[number];

export const FORM_WORDS: Readonly<Record<EmbedForm, string>> = {
  click: 'A poster that becomes the frame when it is clicked',
  frame: 'A frame that is there at once',
  widget: 'A closed page of its own round the host’s script',
  player: 'The browser’s own player',
  poster: 'A poster that links to it',
  link: 'A link in words',
};

/** What decides on the form of an embed besides the embed itself. */
export interface FormCase {
  readonly embed: Embed;
  readonly target: EmbedTarget;
  readonly hosts: Hosts;
  /** What the other site said, or null while it was not asked. */
  readonly framing: Framing | null;
  readonly hasPoster: boolean;
}

/** Why a form is not open on a target. `host` is another site's, `target` and what it sends back are as they are said. */
export type FormFault =
  | { readonly code: 'no-poster' | 'not-framed' | 'set-to-load' | 'not-a-script' | 'no-entry' | 'no-player' }
  | { readonly code: 'untrusted'; readonly host: string }
  | { readonly code: 'no-frames' | 'no-click' | 'no-widgets'; readonly target: string }
  | { readonly code: 'no-frames-of'; readonly target: string; readonly host: string }
  | {
      readonly code: 'refused';
      readonly target: string;
      readonly host: string;
      readonly by: string;
      readonly value: string;
    }
  | { readonly code: 'gone' | 'private'; readonly host: string; readonly status: number };

/** What keeps a form from being open on a target; null where it is. */
export function formFault(form: EmbedForm, of: FormCase): FormFault | null {
  switch (form) {
    case 'click':
      return framedNot(of) ?? clickNot(of);
    case 'frame':
      return framedNot(of);
    case 'widget':
      return widgetNot(of);
    case 'player':
      return playerNot(of);
    case 'poster':
      return of.hasPoster ? null : { code: 'no-poster' };
    case 'link':
      return null;
  }
}

function framedNot(of: FormCase): FormFault | null {
  const { embed, target, hosts, framing } = of;
  const { host } = new URL(embed.address);
  if (embed.carrier !== 'frame') return { code: 'not-framed' };
  if (trustOf(embed.address, hosts) === 'none') return { code: 'untrusted', host };
  if (!target.embeds.frames) return { code: 'no-frames', target: target.name };
  if (!letsFrameThrough(target.embeds, embed.address))
    return { code: 'no-frames-of', target: target.name, host };
  return framing ? refusal(framing, of) : null;
}

function refusal(framing: Framing, { target, embed }: FormCase): FormFault | null {
  const { host } = new URL(embed.address);
  switch (framing.kind) {
    case 'may':
    case 'silent':
      return null;
    case 'refused':
      return { code: 'refused', target: target.name, host, by: framing.by, value: framing.value };
    case 'gone':
    case 'private':
      return { code: framing.kind, host, status: framing.status };
  }
}

function clickNot({ embed, target }: FormCase): FormFault | null {
  if (!embed.loadOnClick) return { code: 'set-to-load' };
  return target.embeds.click ? null : { code: 'no-click', target: target.name };
}

function widgetNot({ embed, target, hosts }: FormCase): FormFault | null {
  if (embed.carrier !== 'widget') return { code: 'not-a-script' };
  if (!entryById(embed.host, hosts)?.widget) return { code: 'no-entry' };
  return target.embeds.widgets && target.embeds.frames ? null : { code: 'no-widgets', target: target.name };
}

function playerNot({ embed, hosts }: FormCase): FormFault | null {
  if (embed.carrier !== 'video' && embed.carrier !== 'audio') return { code: 'no-player' };
  const { host } = new URL(embed.address);
  return trustOf(embed.address, hosts) === 'none' ? { code: 'untrusted', host } : null;
}

export function sayFormFault(fault: FormFault): string {
  switch (fault.code) {
    case 'no-poster':
      return 'There is no poster of it.';
    case 'not-framed':
      return 'It does not come in a frame.';
    case 'set-to-load':
      return 'It is set to load at once.';
    case 'not-a-script':
      return 'It does not come as a script.';
    case 'no-entry':
      return 'No entry says how its script is used.';
    case 'no-player':
      return 'It is no file that a browser plays by itself.';
    case 'untrusted':
      return `${fault.host} is not on the list of trusted hosts.`;
    case 'no-frames':
      return `${fault.target} lets no frames through.`;
    case 'no-click':
      return `${fault.target} does not let the script through that loads it on a click.`;
    case 'no-widgets':
      return `${fault.target} lets no page of its own through.`;
    case 'no-frames-of':
      return `${fault.target} lets no frames of ${fault.host} through.`;
    case 'refused':
      return `${fault.host} forbids being framed by ${fault.target} (${fault.by}: ${fault.value}).`;
    case 'gone':
      return `Nothing stands at this address any more (${fault.host} answered ${fault.status}).`;
    case 'private':
      return `${fault.host} shows it only to those who sign in (it answered ${fault.status}).`;
  }
}

/** The form an embed takes on a target: the wished one where it is open, or the fullest that is. A link always is. */
export function chooseForm(of: FormCase, wish: EmbedForm | null = null): EmbedForm {
  if (wish !== null && formFault(wish, of) === null) return wish;
  return EMBED_FORMS.find((form) => formFault(form, of) === null) ?? 'link';
}
