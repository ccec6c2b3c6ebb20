/** A day (YYYY-MM-DD) as a language writes it in a sentence: "14 December 2026". */
export function inWords(language: string, day: string): string {
  const format = new Intl.DateTimeFormat(language, {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
  return format.format(new Date(`${day}T00:00:00Z`));
}
