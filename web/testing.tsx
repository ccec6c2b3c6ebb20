import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { Page } from '#api/pages.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { examplePage, examplePiece, PLAIN_RULES } from '#core/page/testing.ts';
import type { LabelPatch } from '#core/rights/label.ts';

/** A piece as the web knows it, with nothing wrong with it. */
export function exampleAsset(
  change: Partial<Omit<Asset, 'label' | 'kind'>> & { readonly label?: LabelPatch } = {},
  own: OfAssetKind = { kind: 'picture' },
): Asset {
  const { label, ...facts } = change;
  const piece = examplePiece(label ? { label } : {});
  return {
    id: piece.id,
    version: 1,
    stem: piece.stem,
    extension: piece.extension,
    folder: 'birds/heron',
    ...piece.size,
    bytes: piece.bytes,
    format: 'jpeg',
    alpha: false,
    animated: false,
    label: piece.label,
    drafted: [],
    conditions: [],
    trim: null,
    prep: AS_IT_CAME,
    original: piece.size,
    foldedInto: null,
    deletedAt: null,
    originalName: 'heron.jpg',
    thumb: 'thumb.webp',
    view: 'view.webp',
    plainView: 'plain.webp',
    createdAt: '2026-03-12T09:00:00.000Z',
    createdBy: { id: 'mara', name: 'Mara Oduya' },
    usedOn: [],
    ...facts,
    ...own,
  };
}

type OfAssetKind =
  | Pick<Extract<Asset, { readonly kind: 'picture' }>, 'kind'>
  | Pick<Extract<Asset, { readonly kind: 'embed' }>, 'kind' | 'embed'>
  | Pick<Extract<Asset, { readonly kind: 'document' }>, 'kind' | 'document' | 'file'>;

/** A page as the server answers it. */
export function exampleOpenPage(change: Partial<Page> = {}): Page {
  return {
    id: 'tides',
    version: 1,
    doc: examplePage(),
    target: { id: 'reserve', version: 1, rules: PLAIN_RULES },
    pieces: [],
    ownViews: {},
    updatedAt: '2026-03-12T09:00:00.000Z',
    updatedBy: 'Mara Oduya',
    due: null,
    ...change,
  };
}

/** What the server has answered, by the key of the question. */
export type Answered = readonly (readonly [key: readonly unknown[], answer: unknown])[];

/** A store of answers in which these are there. */
export function clientKnowing(answered: Answered): QueryClient {
  const client = new QueryClient();
  for (const [key, answer] of answered) client.setQueryData(key, answer);
  return client;
}

/** A part of a screen as HTML, as it is first drawn when these answers are there. */
export function drawn(part: ReactNode, answered: Answered = []): string {
  return renderToStaticMarkup(
    <QueryClientProvider client={clientKnowing(answered)}>
      <MemoryRouter>{part}</MemoryRouter>
    </QueryClientProvider>,
  );
}

/** The words of HTML, in order, with one space between. */
export function wordsOf(html: string): string {
  return html
    .replace(/<(script|style)[\s\S]*?<\/\1>/g, '')
    .replace(/<[^>]+>/g, ' ')
    .replaceAll('&#x27;', "'")
    .replaceAll('&quot;', '"')
    .replaceAll('&amp;', '&')
    .replace(/\s+/g, ' ')
    .trim();
}
