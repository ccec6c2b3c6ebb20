import type { Context } from '../context.ts';

/** Widths in px of the pictures that screens show of a piece. */
export const THUMB_PX = 480;
export const VIEW_PX = 1600;

export const thumbPath = (assetId: string, recipe: string, width: number) =>
  `/thumb/${assetId}/${recipe}/${width}.webp`;

/** A far picture to be looked at before it is taken; `text` says which. */
export const farPath = (text: string) => `/far/${text}`;

export const cutPath = (assetId: string, recipe: string, width: number, quality: number, fileName: string) =>
  `/cut/${assetId}/${recipe}/${width}/${quality}/${fileName}`;

/** The part of a cut round a place, given in fractions, at the cut's own pixels. */
export const detailPath = (
  assetId: string,
  recipe: string,
  width: number,
  quality: number,
  { x, y, file }: { readonly x: number; readonly y: number; readonly file: string },
) => `/detail/${assetId}/${recipe}/${width}/${quality}/${x.toFixed(4)}/${y.toFixed(4)}/${file}`;

export const pagePath = (pageId: string, version: number) => `/page/${pageId}/${version}/`;

/** A whole address on the media origin that nobody can make up. */
export function signedAddress(context: Context, path: string): string {
  return `${context.config.mediaOrigin}${path}?s=${context.signatures.sign(path)}`;
}
