import { HtmlValidate } from 'html-validate/node';
import { expect, it } from 'vitest';
import { EMBED_FORMS } from '#core/embed/forms.ts';
import { HOSTS, readOne, TARGET } from '#core/embed/testing.ts';
import { writeEmbed } from '#core/embed/write.ts';

const POSTER = { address: 'eel-pass.jpg', width: 1280, height: 720 };
const EMBEDS = [
  'https://lanternreel.example/watch/eel-pass-71?start=42&cc=1',
  'https://corkline.example/b/reed-days',
  'https://murmurline.example/m/first-boom',
  'https://elsewhere.example/a',
  '<audio src="https://elsewhere.example/call.mp3"></audio>',
].map((text) => readOne(text).embed);

it('is valid HTML in every form', async () => {
  const validator = new HtmlValidate({
    extends: ['html-validate:standard'],
    rules: { 'no-inline-style': 'off', 'no-redundant-role': 'off' },
  });
  const faults: string[] = [];
  for (const embed of EMBEDS) {
    for (const form of EMBED_FORMS) {
      const report = await validator.validateString(
        `<!DOCTYPE html>\n<html lang="en"><head><title>A</title></head><body>${writeEmbed(form, { embed, target: TARGET, hosts: HOSTS, poster: POSTER })}</body></html>\n`,
      );
      for (const { messages } of report.results)
        faults.push(...messages.map(({ message, ruleId }) => `${form} ${ruleId}: ${message}`));
    }
  }
  expect(faults).toEqual([]);
});
