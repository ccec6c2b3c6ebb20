import { randomUUID } from 'node:crypto';
import { compareReadBack, type Foreseen, foreseen, type ReadBack } from '#core/deliver/compared.ts';
import { linkedAs } from '#core/deliver/facts.ts';
import { compareListing, type FoundListing, type Listed } from '#core/deliver/listing.ts';
import { learnFilter, type ProbeOf } from '#core/deliver/probe.ts';
import { type Marking, shownDocument } from '#core/deliver/shown.ts';
import type { Hosts } from '#core/embed/host.ts';
import { readPageFacts } from '#core/embed/page-facts.ts';
import { pageLinks } from '#core/embed/page-links.ts';
import { readPasted } from '#core/embed/reading.ts';
import { readOembed } from '#core/formats/oembed.ts';
import { readPagePictures } from '#core/gather/page-pictures.ts';
import { headlineOf } from '#core/inherited/headline.ts';
import { type InheritedSource, readInherited } from '#core/inherited/read.ts';
import { sectionOf } from '#core/inherited/section.ts';

import { pictureSize } from './picture-size.ts';
import { unzipPages, type ZipToRead } from './zip-pages.ts';

export interface Page {
  readonly html: string;
  /** The address that it was read from. */
  readonly base: string;
}

/** All reading of text from outside. Each runs in a process that can be killed. */
export const TEXT_TASKS = {
  pagePictures: ({ html, base }: Page) => readPagePictures(html, base),
  pageFacts: ({ html, base }: Page) => readPageFacts(html, base),
  links: ({ html, base }: Page) => pageLinks(html, base),
  oembed: ({ text }: { readonly text: string }) => readOembed(text),
  pasted: ({ text, hosts }: { readonly text: string; readonly hosts: Hosts }) => readPasted(text, hosts),
  linkedAs: ({ html, relation }: { readonly html: string; readonly relation: string }) =>
    linkedAs(html, relation),
  learned: ({ html, of }: { readonly html: string; readonly of: ProbeOf }) => learnFilter(html, of),
  foreseen: (page: Foreseen) => foreseen(page),
  listed: ({ listing, sent }: { readonly listing: FoundListing; readonly sent: Listed }) =>
    compareListing(listing, sent),
  pictureSize: ({ bytes }: { readonly bytes: Uint8Array }) => pictureSize(bytes),
  compared: (readBack: ReadBack) => compareReadBack(readBack),
  shown: ({ html, base, head }: Page & { readonly head: string }) => shownDocument(html, base, head),
  unzipped: (wish: ZipToRead) => unzipPages(wish),
  section: ({ text, base }: { readonly text: string; readonly base: string }) => sectionOf(text, base),
  headline: ({ html }: { readonly html: string }) => headlineOf(html),
  inherited: (source: InheritedSource) => readInherited(source, randomUUID),
  inheritedShown: ({ html, base, head, spots, pictures }: Page & { readonly head: string } & Marking) =>
    shownDocument(html, base, head, { spots, pictures }),
} as const;
