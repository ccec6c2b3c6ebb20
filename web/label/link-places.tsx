import { useQuery } from '@tanstack/react-query';
import { fileHref, fileIdIn, pageHref } from '#core/page/page-address.ts';
import { pageAddressesQuery } from '../api/queries.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { pieces } from '../pieces/pieces.ts';
import { Select } from '../ui/select.tsx';
import { useStore } from '../ui/store.ts';
import { usePageOf } from './page-of.ts';

interface LinkPlacesProps {
  /** Where it leads now. */
  readonly now: string;
  /** What leads there, for those who are told that its address is not known: "the words", "the card". */
  readonly what: string;
  readonly onChoose: (href: string) => void;
  /** Whether a picture may open from it: from words it does, over the page. */
  readonly opensPictures?: true;
}

/** Places that a link leads to by what they are and not by their address: other pages of the site, documents of the tray. */
export function LinkPlaces(props: LinkPlacesProps) {
  return (
    <>
      <PageChoice {...props} />
      <FileChoice {...props} kind="document" />
      {props.opensPictures ? <FileChoice {...props} kind="picture" /> : null}
    </>
  );
}

/** Other pages of the target, which the link finds wherever they come to stand. */
function PageChoice({ now, what, onChoose }: LinkPlacesProps) {
  const { pageId, targetId } = usePageOf();
  const { data = [] } = useQuery(pageAddressesQuery);
  const pages = data.filter((page) => page.targetId === targetId && page.id !== pageId);
  if (pages.length === 0) return null;
  const led = pages.find(({ id }) => now === pageHref(id));
  return (
    <>
      <Select
        className="basis-full"
        aria-label="Another page of this site"
        value={led?.id ?? ''}
        choices={[
          ['', 'or to another page of this site'],
          ...pages.map(({ id, title }) => [id, sayPageTitle(title)] as const),
        ]}
        onChoose={(id) => {
          if (id !== '') onChoose(pageHref(id));
        }}
      />
      {led && led.address === '' ? (
        <p className="basis-full text-due">
          Its address is not known yet: {what} go{what.endsWith('s') ? '' : 'es'} out, and the link does not.
        </p>
      ) : null}
    </>
  );
}

const FILES = {
  document: { about: 'A document of the tray', or: 'or to a document of the tray' },
  picture: { about: 'A picture of the tray', or: 'or to a picture of the tray, opened larger' },
} as const;

/** Documents or pictures of the tray: their files go out with the page. */
function FileChoice({ now, onChoose, kind }: LinkPlacesProps & { readonly kind: keyof typeof FILES }) {
  const { tray } = usePageOf();
  const known = useStore(pieces);
  const led = fileIdIn(now);
  const ids = led === null || tray.includes(led) ? tray : [...tray, led];
  const files = ids.flatMap((id) => {
    const asset = known.get(id);
    return asset?.kind === kind ? [asset] : [];
  });
  if (files.length === 0) return null;
  return (
    <Select
      className="basis-full"
      aria-label={FILES[kind].about}
      value={files.some(({ id }) => id === led) ? (led ?? '') : ''}
      choices={[
        ['', FILES[kind].or],
        ...files.map(({ id, label, stem }) => [id, label.title || stem] as const),
      ]}
      onChoose={(id) => {
        if (id !== '') onChoose(fileHref(id));
      }}
    />
  );
}
