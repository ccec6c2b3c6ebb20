import { messagesFor } from '../messages/messages.ts';
import { creditText } from '../rights/credit.ts';
import { escapeHtml } from './escape.ts';
import { usesOf } from './linked.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import type { HouseRules } from './target.ts';
import { creditHere, titleHere } from './words.ts';
import type { WriteContext } from './write-context.ts';
import { writeCredit } from './write-credit.ts';

/** One credit of a page: plain, and as HTML. */
export interface PageCredit {
  readonly title: string;
  readonly text: string;
  readonly html: string;
}

/** The credits a page owes or was asked for, each once, in reading order. */
export function creditsOfPage(
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece>,
  rules: HouseRules,
): readonly PageCredit[] {
  const credits = new Map<string, PageCredit>();
  for (const placement of usesOf(page)) {
    const piece = pieces.get(placement.asset);
    if (!piece) continue;
    const credit = creditHere(rules, placement, piece);
    const title = titleHere(rules, piece);
    const text = creditText(credit);
    if (text !== '') credits.set(`${title}\n${text}`, { title, text, html: writeCredit(credit, false) });
  }
  return [...credits.values()];
}

/** All credits of a page at its foot; the empty text where it owes none. */
export function writeCreditsAtFoot(
  page: PageDoc,
  { pieces, rules, isInline }: Pick<WriteContext, 'pieces' | 'rules' | 'isInline'>,
): string {
  const items = creditItems(creditsOfPage(page, pieces, rules));
  if (items.length === 0) return '';
  const style = isInline ? ` style="${INLINE_FOOT}"` : '';
  const name = escapeHtml(messagesFor(rules.language).credits.link);
  return `<section class="credits"${style}>\n<h2>${name}</h2>\n<ul>\n${items.join('\n')}\n</ul>\n</section>`;
}

const INLINE_FOOT = 'clear:both;font-size:14px';

/** How the foot looks; its heading is one of the page's, and no larger than its text. */
export const FOOT_STYLE = `.placard .credits { clear: both; margin-top: 36px; font-size: 0.82em; }
.placard .credits > h2 { margin: 0 0 0.4em; font-size: 1em; }
.placard .credits > ul { margin: 0; padding-left: 1.2em; }`;

const creditItems = (credits: readonly PageCredit[]): readonly string[] =>
  credits.map((credit) => `<li><cite>${escapeHtml(credit.title)}</cite>. ${credit.html}</li>`);

/** `credits.html`: a small valid document of its own. */
export function writeCredits(page: PageDoc, pieces: ReadonlyMap<string, Piece>, rules: HouseRules): string {
  const credits = creditsOfPage(page, pieces, rules);
  const messages = messagesFor(rules.language);
  const items = creditItems(credits);
  const list =
    items.length > 0 ? `<ul>\n${items.join('\n')}\n</ul>` : `<p>${escapeHtml(messages.credits.none)}</p>`;
  const title = escapeHtml(messages.credits.titleOf(page.title.trim() || messages.untitledPage));
  return `<!DOCTYPE html>
<html lang="${escapeHtml(rules.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title}</title>
<link rel="stylesheet" href="style.css">
</head>
<body>
<main class="placard">
<div class="placard-column">
<h1>${title}</h1>
${list}
<p><a href="index.html">${escapeHtml(messages.credits.back)}</a></p>
</div>
</main>
</body>
</html>
`;
}
