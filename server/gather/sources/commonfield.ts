import * as v from 'valibot';
import type { FoundPicture } from '#api/gather.ts';
import { maybeStatement, statements } from '#core/gather/statement.ts';
import { addressOr, readJson } from './json.ts';
import type { Source } from './source.ts';

const text = v.pipe(v.string(), v.maxLength(2000));
const size = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(200_000));
const PictureSchema = v.object({
  id: text,
  title: text,
  maker: v.object({ name: text, address: text }),
  licence: v.object({ name: text, address: text }),
  taken: v.optional(text, ''),
  words: v.optional(text, ''),
  width: size,
  height: size,
  preview: text,
  file: text,
  page: text,
});
const AnswerSchema = v.object({
  count: v.number(),
  page: v.number(),
  pages: v.number(),
  pictures: v.array(PictureSchema),
});

/** An open collection with a JSON interface: it filters by licence, orientation and size itself. */
export const commonfield: Source = {
  id: 'commonfield',
  name: 'Commonfield',
  about: 'freely licensed pictures',
  kind: 'collection',
  standIn: 'commonfield',
  async search(question, cursor, tools) {
    // Asked without the licence, so that what may not be used here is counted and can be opened.
    const asked = new URLSearchParams({ words: question.words, page: cursor ?? '1' });
    if (question.shape === 'landscape' || question.shape === 'portrait')
      asked.set('orientation', question.shape);
    const answer = await readJson(AnswerSchema, `/api/pictures?${asked}`, tools);
    return {
      pictures: answer.pictures.map(found),
      count: answer.count,
      cursor: answer.page < answer.pages ? String(answer.page + 1) : null,
    };
  },
};

function found(picture: v.InferOutput<typeof PictureSchema>): FoundPicture {
  const say = (about: Parameters<typeof maybeStatement>[1], value: string) =>
    maybeStatement('collection', about, value);
  return {
    source: 'commonfield',
    key: picture.id.slice(0, 300),
    stamp: '',
    fileName: `${picture.id}.jpg`.slice(0, 300),
    address: addressOr(picture.file),
    preview: addressOr(picture.preview),
    pageAddress: addressOr(picture.page),
    width: picture.width,
    height: picture.height,
    statements: [
      ...statements(
        say('title', picture.title),
        say('maker', picture.maker.name),
        say('maker-address', addressOr(picture.maker.address)),
        say('licence', picture.licence.address || picture.licence.name),
        say('source', 'Commonfield'),
        say('taken', picture.taken),
        say('words', picture.words),
      ),
    ],
  };
}
