import * as v from 'valibot';
import { PreviewWishSchema } from '#api/embeds.ts';
import type { EmbedForm } from '#core/embed/forms.ts';
import { entryById, type Hosts } from '#core/embed/host.ts';
import { EMBED_STYLE } from '#core/embed/on-page.ts';
import { writeEmbed } from '#core/embed/write.ts';
import { TEXT_FACES } from '#core/page/faces.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import { documentStyle } from '#core/page/style-sheet.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Context } from '../context.ts';
import { fontFaces } from '../deliver/fonts.ts';
import { farAddress } from '../gather/preview.ts';
import { signedAddress } from '../media/addresses.ts';

/** What is shown of an embed before it stands on any page. */
export type ShownEmbed = v.InferOutput<typeof PreviewWishSchema>;

/** An address on the media origin at which an embed is live, as readers get it. */
export function previewAddress(context: Context, shown: ShownEmbed): string {
  return signedAddress(context, `/embed/${Buffer.from(JSON.stringify(shown)).toString('base64url')}`, 'look');
}

export function readShown(text: string): ShownEmbed | undefined {
  try {
    const read = v.safeParse(PreviewWishSchema, JSON.parse(Buffer.from(text, 'base64url').toString('utf8')));
    return read.success ? read.output : undefined;
  } catch {
    return undefined;
  }
}

/** A document with nothing in it but the embed, written by the very function that writes what goes out. */
export function previewDocument(
  context: Context,
  { embed, form }: ShownEmbed,
  rules: HouseRules,
  hosts: Hosts,
): string {
  const poster = embed.facts.thumbnail
    ? {
        address: farAddress(context, { address: embed.facts.thumbnail, page: embed.page }),
        width: 1280,
        height: 720,
      }
    : null;
  return `<!DOCTYPE html>
<html lang="${rules.language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>As readers get it</title>
<style>${fontFaces('/fonts')}${documentStyle(rules)}body { display: flow-root; font: ${rules.textSize}px/1.5 ${TEXT_FACES}; }${EMBED_STYLE}</style>
<script src="/measure.js"></script>
<script src="/embeds.js" async></script>
</head>
<body>
${writeEmbed(form, { embed, target: rules, hosts, poster })}
</body>
</html>
`;
}

/**
 * The policy of a document with embeds: the frames of their own hosts, and of nobody else. The closed page of a widget
 * inherits it, so that its host's script is named there too.
 */
export function previewPolicy(
  context: Context,
  embeds: readonly { readonly held: Pick<HeldEmbed, 'embed' | 'hosts'>; readonly form: EmbedForm }[],
): string {
  const { mediaOrigin, appOrigin } = context.config;
  const framed = originsOf(embeds.filter(({ form }) => form !== 'widget'));
  const scripted = originsOf(embeds.filter(({ form }) => form === 'widget'));
  const list = (...sources: readonly string[]) => sources.filter(Boolean).join(' ') || "'none'";
  return [
    "default-src 'none'",
    `img-src ${list(mediaOrigin, 'data:', scripted)}`,
    `style-src ${list(mediaOrigin, "'unsafe-inline'", scripted)}`,
    `font-src ${list(mediaOrigin, scripted)}`,
    `script-src ${list(`${mediaOrigin}/embeds.js`, `${mediaOrigin}/page.js`, `${mediaOrigin}/measure.js`, scripted)}`,
    `connect-src ${list(scripted)}`,
    `media-src ${list(framed, scripted)}`,
    `frame-src ${list(framed)}`,
    `frame-ancestors ${appOrigin}`,
    'sandbox allow-scripts allow-same-origin allow-forms allow-popups allow-presentation allow-downloads',
  ].join('; ');
}

function originsOf(embeds: readonly { readonly held: Pick<HeldEmbed, 'embed' | 'hosts'> }[]): string {
  const origins = embeds.map(({ held: { embed, hosts } }) =>
    embed.carrier === 'widget' ? (entryById(embed.host, hosts)?.origin ?? '') : new URL(embed.address).origin,
  );
  return [...new Set(origins)].filter(Boolean).join(' ');
}
