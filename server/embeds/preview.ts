import * as v from 'valibot';
import { PreviewWishSchema } from '#api/embeds.ts';
import { entryById, type Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { EMBED_STYLE } from '#core/embed/on-page.ts';
import { writeEmbed } from '#core/embed/write.ts';
import { DOCUMENT_STYLE } from '#core/page/style-sheet.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Context } from '../context.ts';
import { farAddress } from '../gather/preview.ts';
import { signedAddress } from '../media/addresses.ts';

/** What is shown of an embed before it stands on any page. */
export type ShownEmbed = v.InferOutput<typeof PreviewWishSchema>;

/** An address on the media origin at which an embed is live, as readers get it. */
export function previewAddress(context: Context, shown: ShownEmbed): string {
  return signedAddress(context, `/embed/${Buffer.from(JSON.stringify(shown)).toString('base64url')}`);
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
<style>${DOCUMENT_STYLE}body { font: ${rules.textSize}px/1.5 "Source Serif 4 Variable", Georgia, serif; }${EMBED_STYLE}</style>
</head>
<body>
${writeEmbed(form, { embed, target: rules, hosts, poster })}
<script src="/embeds.js"></script>
</body>
</html>
`;
}

/**
 * The policy of that document: the frames of the embed's own host, and of nobody else. A widget's closed page inherits
 * it, so that its host's script is named there.
 */
export function previewPolicy(context: Context, { embed, form }: ShownEmbed, hosts: Hosts): string {
  const { mediaOrigin, appOrigin } = context.config;
  const there = originOf(embed, form, hosts);
  const script = form === 'widget' ? ` ${there}` : '';
  return [
    "default-src 'none'",
    `img-src ${mediaOrigin} data:${script}`,
    `style-src 'unsafe-inline'${script}`,
    `script-src ${mediaOrigin}/embeds.js${script}`,
    `connect-src 'none'${script}`.replace("'none' ", ''),
    `media-src ${there}`,
    `frame-src ${there}`,
    `frame-ancestors ${appOrigin}`,
    'sandbox allow-scripts allow-same-origin allow-forms allow-popups allow-presentation allow-downloads',
  ].join('; ');
}

function originOf(embed: Embed, form: ShownEmbed['form'], hosts: Hosts): string {
  const entry = entryById(embed.host, hosts);
  return form === 'widget' && entry ? entry.origin : new URL(embed.address).origin;
}
