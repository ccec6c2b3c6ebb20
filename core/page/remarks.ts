import { declaredIn } from './declared.ts';
import type { HtmlElement } from './html-tree.ts';

/** Whether the words of an element were struck out: by whoever changed a text (HTML, `del`), or as no longer right (`s`). */
export function isStruck(node: HtmlElement): boolean {
  if (/^(?:del|s|strike)$/.test(node.name)) return true;
  const declared = declaredIn(node);
  return /\bline-through\b/i.test(
    declared.get('text-decoration') ?? declared.get('text-decoration-line') ?? '',
  );
}

/**
 * Whether an element is a remark that somebody made in the margin of a text, or its sign: word processors say so in
 * properties of their own (`…-element: comment-list`, `…-special-character: comment`).
 */
export function isRemark(node: HtmlElement): boolean {
  for (const [name, value] of declaredIn(node)) {
    if (/^-?[a-z]{1,12}-(?:element|special-character)$/.test(name) && /^comment/i.test(value)) return true;
  }
  return false;
}
