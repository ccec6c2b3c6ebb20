import * as v from 'valibot';

/**
 * What is said of a field where its schema has no words of its own. Set once, when the first form is loaded; the codes
 * are Valibot's.
 */
v.setSpecificMessage(v.minLength, ({ requirement }) =>
  requirement === 1 ? 'This cannot be left empty.' : `At least ${requirement} letters.`,
);
v.setSpecificMessage(v.maxLength, ({ requirement }) => `At most ${requirement} letters.`);
v.setSpecificMessage(v.nonEmpty, () => 'This cannot be left empty.');
v.setSpecificMessage(v.email, () => 'An e-mail address is written as name@place.org.');
v.setSpecificMessage(v.isoDate, () => 'A date is written as 12 March 2026, or as 2026-03-12.');
v.setSpecificMessage(v.minValue, ({ requirement }) => `At least ${String(requirement)}.`);
v.setSpecificMessage(v.maxValue, ({ requirement }) => `At most ${String(requirement)}.`);
v.setSpecificMessage(v.integer, () => 'A whole number is needed.');
v.setSpecificMessage(v.picklist, () => 'Choose one of the list.');
v.setSchemaMessage(() => 'This does not fit.');
