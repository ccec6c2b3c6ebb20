import type { Label } from '#core/rights/label.ts';

/** The columns that filters use, made from the label at each write so that they cannot disagree with it. */
export function derivedColumns(label: Label, stem: string, originalName: string) {
  return {
    title: label.title,
    maker: label.maker,
    licence: label.licence,
    altState: label.alt.kind,
    search: [
      label.title,
      label.maker,
      label.caption,
      label.alt.kind === 'text' ? label.alt.text : '',
      label.place,
      label.source,
      label.words.join(' '),
      stem.replaceAll('-', ' '),
      originalName,
    ]
      .filter(Boolean)
      .join('\n')
      .slice(0, 20_000),
  };
}
