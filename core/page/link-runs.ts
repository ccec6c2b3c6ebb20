import type { Inline, Mark } from './inline.ts';

export type LinkMark = Extract<Mark, { readonly type: 'link' }>['attrs'];

/** Words in a line that follow one another and are one link, or none. */
export interface LinkRun {
  readonly link: LinkMark | null;
  readonly inlines: readonly Inline[];
}

const linkOf = ({ marks }: Inline): LinkMark | null => {
  const mark = marks?.find(({ type }) => type === 'link');
  return mark?.type === 'link' ? mark.attrs : null;
};

const isSame = (one: LinkMark | null, other: LinkMark | null) =>
  one?.href === other?.href && one?.newWindow === other?.newWindow;

/** A line in runs: what leads to one place is one link, however its letters are set. */
export function linkRuns(content: readonly Inline[] | undefined): readonly LinkRun[] {
  const runs: { link: LinkMark | null; inlines: Inline[] }[] = [];
  for (const inline of content ?? []) {
    const link = linkOf(inline);
    const last = runs.at(-1);
    if (last && isSame(last.link, link)) last.inlines.push(inline);
    else runs.push({ link, inlines: [inline] });
  }
  return runs;
}
