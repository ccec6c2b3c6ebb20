/** The languages that are offered: those of the European Union and its neighbours, by their tags (BCP 47). */
export const OFFERED_LANGUAGES: readonly string[] =
  'bg cs cy da de el en es et fi fr ga hr hu is it lb lt lv mt nb nl nn pl pt ro ru sk sl sq sr sv tr uk'.split(
    ' ',
  );
