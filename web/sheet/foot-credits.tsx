import { useDeferredValue } from 'react';
import { messagesFor } from '#core/messages/messages.ts';
import { creditsOfPage } from '#core/page/credits.ts';
import type { PageDoc } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { usePieces } from '../pieces/pieces.ts';

interface FootCreditsProps {
  readonly page: PageDoc;
  readonly rules: HouseRules;
}

/** The credits as they stand at the foot of a page, where House rules put them there. They are said on labels. */
export function FootCredits({ page, rules }: FootCreditsProps) {
  return rules.creditsAt === 'foot' ? <Credits page={page} rules={rules} /> : null;
}

function Credits({ page, rules }: FootCreditsProps) {
  // Whoever types does not wait for them.
  const credits = creditsOfPage(useDeferredValue(page), usePieces(), rules);
  if (credits.length === 0) return null;
  const name = messagesFor(rules.language).credits.link;
  return (
    <div className="placard-column" lang={rules.language}>
      <section className="credits" aria-label={name}>
        <h2>{name}</h2>
        <ul>
          {credits.map(({ title, text }) => (
            <li key={`${title} ${text}`}>
              <cite>{title}</cite>. {text}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
