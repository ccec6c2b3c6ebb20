import type { Response } from 'express';

/**
 * Answers with a file, or the part of it that was asked for (RFC 9110, 14), so that a film begins anywhere. Headers that are set already stay
 * as they are. Resolves once it is sent, or whoever asked has left.
 */
export function sendInRanges(response: Response, path: string): Promise<void> {
  const plain = { dotfiles: 'allow', cacheControl: false, lastModified: false, etag: false } as const;
  return new Promise((resolve, reject) => {
    response.sendFile(path, plain, (error) => (error && !response.headersSent ? reject(error) : resolve()));
  });
}
