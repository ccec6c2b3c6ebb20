type Day = 0 | 1 | 2 | 3 | 4 | 5 | 6;

/** Monday, as ISO 8601 and most of the world have it. */
const MONDAY: Day = 1;

/**
 * The day on which a week begins where a language is spoken, 0 for Sunday. By the browser's own tables (Unicode CLDR)
 * where it gives them.
 */
export function firstDayOfWeek(language: string): Day {
  const locale: Intl.Locale & { getWeekInfo?: () => { firstDay: number }; weekInfo?: { firstDay: number } } =
    new Intl.Locale(language);
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay;
  const days: readonly Day[] = [0, 1, 2, 3, 4, 5, 6];
  // CLDR counts Monday as 1 and Sunday as 7.
  return days.find((day) => first !== undefined && day === first % 7) ?? MONDAY;
}
