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

/** Why a form is not open on a target, as a sentence; null where it is. */
export function whyNot(form: EmbedForm, of: FormCase): string | null {
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
      return of.hasPoster ? null : 'There is no poster of it.';
    case 'link':
      return null;
  }
}

function framedNot(of: FormCase): string | null {
  const { embed, target, hosts, framing } = of;
  const { host } = new URL(embed.address);
  if (embed.carrier !== 'frame') return 'It does not come in a frame.';
  if (trustOf(embed.address, hosts) === 'none') return `${host} is not on the list of trusted hosts.`;
  if (!target.embeds.frames) return `${target.name} lets no frames through.`;
  if (!letsFrameThrough(target.embeds, embed.address))
    return `${target.name} lets no frames of ${host} through.`;
  return framing ? refusal(framing, of) : null;
}

function refusal(framing: Framing, { target, embed }: FormCase): string | null {
  const { host } = new URL(embed.address);
  switch (framing.kind) {
    case 'may':
    case 'silent':
      return null;
    case 'refused':
      return `${host} forbids being framed by ${target.name} (${framing.by}: ${framing.value}).`;
    case 'gone':
      return `Nothing stands at this address any more (${host} answered ${framing.status}).`;
    case 'private':
      return `${host} shows it only to those who sign in (it answered ${framing.status}).`;
  }
}

function clickNot({ embed, target }: FormCase): string | null {
  if (!embed.onClick) return 'It is set to load at once.';
  return target.embeds.click
    ? null
    : `${target.name} does not let the script through that loads it on a click.`;
}

function widgetNot({ embed, target, hosts }: FormCase): string | null {
  if (embed.carrier !== 'widget') return 'It does not come as a script.';
  if (!entryById(embed.host, hosts)?.widget) return 'No entry says how its script is used.';
  return target.embeds.widgets && target.embeds.frames
    ? null
    : `${target.name} lets no page of its own through.`;
}

function playerNot({ embed, hosts }: FormCase): string | null {
  if (embed.carrier !== 'video' && embed.carrier !== 'audio')
    return 'It is no file that a browser plays by itself.';
  const { host } = new URL(embed.address);
  return trustOf(embed.address, hosts) === 'none' ? `${host} is not on the list of trusted hosts.` : null;
}

/** The form an embed takes on a target: the wished one where it is open, or the fullest that is. A link always is. */
export function chooseForm(of: FormCase, wish: EmbedForm | null = null): EmbedForm {
  if (wish !== null && whyNot(wish, of) === null) return wish;
  return EMBED_FORMS.find((form) => whyNot(form, of) === null) ?? 'link';
}
