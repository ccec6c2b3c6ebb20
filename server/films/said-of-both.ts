import type { Label, LabelPatch } from '#core/rights/label.ts';

/** What a label says that is true as well of what is made of its piece: its words and its rights, and nothing of where it came from. */
export function saidOfBoth(label: Label): LabelPatch {
  const { title, caption, keywords, place, dateCreated, extendedDescription } = label;
  const { creator, licence, houseLicence, copyrightNotice, terms } = label;
  return {
    ...{ title, caption, keywords, place, dateCreated, extendedDescription },
    ...{ creator, licence, houseLicence, copyrightNotice, terms },
  };
}
