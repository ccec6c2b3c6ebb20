import type { FoundPicture } from '#api/gather.ts';
import type { PagePicture } from '#core/gather/page-pictures.ts';
import { maybeStatement, statements } from '#core/gather/statement.ts';
import type { Source, SourceTools } from './source.ts';

const PAGE_LIMITS = { bytes: 2_000_000, millis: 8000 };
const PLATE = /^\/plates\/\d{1,6}$/;
const PLATES_READ = 12;

/** An archive without an interface for programs: its list is read as a page, then the page of each plate. */
export const wayside: Source = {
  id: 'wayside',
  name: 'Wayside Archive',
  about: 'old plates, with rights statements',
  kind: 'archive',
  standIn: 'wayside',
  async search(question, _cursor, tools) {
    const list = await page(`${tools.origin}/find?${new URLSearchParams({ words: question.words })}`, tools);
    const plates = (await tools.texts.links({ html: list.html, base: list.address }, tools.signal)).filter(
      (link) => PLATE.test(new URL(link).pathname),
    );
    const pictures = await Promise.all(plates.slice(0, PLATES_READ).map((plate) => readPlate(plate, tools)));
    return { pictures: pictures.flat(), count: plates.length, cursor: null };
  },
};

async function readPlate(address: string, tools: SourceTools): Promise<readonly FoundPicture[]> {
  const { html } = await page(address, tools);
  const { pictures } = await tools.texts.pagePictures({ html, base: address }, tools.signal);
  const picture = pictures.find((one) => !one.address.startsWith('data:'));
  return picture ? [found(picture, address)] : [];
}

function found(picture: PagePicture, pageAddress: string): FoundPicture {
  return {
    source: 'wayside',
    key: new URL(pageAddress).pathname.slice(1),
    stamp: '',
    fileName: `${new URL(pageAddress).pathname.split('/').at(-1) ?? 'plate'} (scan).jpg`,
    address: picture.address,
    preview: picture.preview,
    pageAddress,
    width: picture.width,
    height: picture.height,
    statements: [
      ...statements(...picture.statements, maybeStatement('collection', 'source', 'Wayside Archive')),
    ],
  };
}

async function page(
  address: string,
  { outbound, signal }: SourceTools,
): Promise<{ readonly html: string; readonly address: string }> {
  const answer = await outbound.read(address, { limits: PAGE_LIMITS, accept: 'text/html', signal });
  return { html: answer.bytes.toString('utf8'), address: answer.address };
}
