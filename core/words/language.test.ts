import { describe, expect, it } from 'vitest';
import { languageOf } from './language.ts';

describe('the language of a text', () => {
  it.each([
    ['en', 'A grey heron stands in the reeds at the edge of the water.'],
    ['en', 'Two walkers on the boardwalk, seen from the hide with the sea behind them.'],
    ['de', 'Ein Graureiher steht im Schilf am Rand des Wassers.'],
    ['de', 'Blick über das Watt mit drei Booten, die bei Ebbe auf dem Schlick liegen.'],
    ['fr', 'Un héron cendré se tient dans les roseaux au bord de l’eau avec le soleil sur la mer.'],
    ['es', 'Dos garzas están en el borde del agua, con los juncos al fondo.'],
    ['nl', 'Een reiger staat in het riet bij de rand van het water.'],
    ['it', 'Una barca nel canale con gli uccelli sulla riva della palude.'],
  ])('is told by its common words: %s', (language, text) => {
    expect(languageOf(text)).toBe(language);
  });

  it.each(['', 'Heron', 'Heron at dusk', 'Saltmere, 1911', 'Ardea cinerea', '12:30', '日の出 湖'])(
    'is not guessed of %j',
    (text) => {
      expect(languageOf(text)).toBeNull();
    },
  );

  it('of a very long text is told by its beginning, in no time', () => {
    const long = `${'the reeds and the water of the bay '.repeat(30_000)}`;
    expect(languageOf(long)).toBe('en');
  });
});
