import type { PageDoc } from './model.ts';
import { writeFragment } from './write.ts';
import type { WriteContext } from './write-context.ts';

/** The names of the files that a page asks for besides its cuts: documents, films, captions. Found by writing it, so that none is forgotten. */
export function filesOfPage(doc: PageDoc, context: WriteContext): ReadonlySet<string> {
  const names = new Set<string>();
  writeFragment(doc, {
    ...context,
    fileOf: (name) => {
      names.add(name);
      return name;
    },
  });
  return names;
}
