/** Where uses with a recipe of their own are to be seen, as pages told it: by `viewKey`. */
export const ownViews = new Map<string, string>();

export function putOwnViews(views: Readonly<Record<string, string>>): void {
  for (const [key, address] of Object.entries(views)) ownViews.set(key, address);
}
