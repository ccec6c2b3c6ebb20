import { isOfEveryPage } from '../gather/no-content.ts';
import { attribute, elementsIn, type HtmlElement, type HtmlNode, textOf } from '../page/html-tree.ts';

/** What of a document is the page itself, and what only stands round it on every page of its site. */
export interface Content {
  readonly nodes: readonly HtmlNode[];
  /** The first words of each part that was left out. */
  readonly furniture: readonly string[];
}

/**
 * The part of a document that is its own: its `main` (WHATWG HTML, 4.4.14), else its only `article`, else its body, without the
 * head, the foot and the ways of the site. Linear in the tree.
 */
export function contentOf(root: HtmlElement): Content {
  const all = [...elementsIn(root)];
  const mains = all.filter((node) => node.name === 'main' || attribute(node, 'role') === 'main');
  const articles = all.filter(({ name }) => name === 'article');
  const body = all.find(({ name }) => name === 'body') ?? root;
  const [main] = mains;
  const [article] = articles;
  const own = main ?? (articles.length === 1 && article && holdsMost(article, body) ? article : body);
  const furniture: string[] = [];
  return { nodes: withoutFurniture(own.children, own !== body, furniture), furniture };
}

/** An article is the page where it holds most of its words: a teaser at its side is one, too. */
const holdsMost = (article: HtmlElement, body: HtmlElement): boolean =>
  textOf(article).length * 2 >= textOf(body).length;

const CONTENT = /^(?:main|article|figure|section)$/;
const MOST_WORDS = 60;

function withoutFurniture(
  nodes: readonly HtmlNode[],
  isInContent: boolean,
  furniture: string[],
): readonly HtmlNode[] {
  return nodes.flatMap((node): HtmlNode[] => {
    if (typeof node === 'string') return [node];
    if (isOfEveryPage(node, isInContent) && !holdsThePage(node)) {
      const words = textOf(node).replace(/\s+/g, ' ').trim();
      furniture.push(words.slice(0, MOST_WORDS) || node.name);
      return [];
    }
    const isContent = isInContent || CONTENT.test(node.name);
    return [{ ...node, children: withoutFurniture(node.children, isContent, furniture) }];
  });
}

/** So many letters in paragraphs are no head and no foot, whatever they are called. */
const PAGE_LETTERS = 600;

function holdsThePage(node: HtmlElement): boolean {
  if (node.name === 'nav' || node.name === 'footer') return false;
  let letters = 0;
  for (const one of elementsIn(node)) {
    if (one.name === 'p') letters += textOf(one).length;
    if (letters > PAGE_LETTERS) return true;
  }
  return false;
}
