import { messagesFor } from '../messages/messages.ts';
import { creditText } from '../rights/attribution.ts';
import { escapeHtml } from './escape.ts';
import { usesOf } from './linked.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import type { HouseRules } from './target.ts';
import { creditedAs, creditHere, titleHere } from './words.ts';
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
    const parts = creditHere(rules, placement, piece);
    const title = titleHere(rules, piece);
    const made = creditedAs(piece);
    const messages = messagesFor(rules.language);
    const text = creditText(parts, made, messages);
    if (text !== '')
      credits.set(`${title}\n${text}`, { title, text, html: writeCredit(parts, made, messages, false) });
  }
  return [...credits.values()];
}

/** `credits.html`: a small valid document of its own. */
export function writeCredits(page: PageDoc, pieces: ReadonlyMap<string, Piece>, rules: HouseRules): string {
  const credits = creditsOfPage(page, pieces, rules);
  const messages = messagesFor(rules.language);
  const items = credits.map((credit) => `<li><cite>${escapeHtml(credit.title)}</cite>. ${credit.html}</li>`);
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
