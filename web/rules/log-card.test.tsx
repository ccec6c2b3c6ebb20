import { expect, it } from 'vitest';
import type { AuditLine } from '#api/audit.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { LogCard } from './log-card.tsx';

const line = (change: Partial<AuditLine>): AuditLine => ({
  id: 1,
  at: '2026-03-12T09:00:00.000Z',
  who: 'Piet Hallam',
  what: 'rights',
  subject: 'Heron at dawn (heron.jpg)',
  detail: 'CC BY 4.0, before it Own work',
  address: '192.0.2.7',
  ...change,
});
const log = (...lines: readonly AuditLine[]) =>
  wordsOf(
    drawn(<LogCard />, [
      [
        ['audit', { what: 'any', words: '', from: '', to: '' }],
        { pages: [{ lines, cursor: null }], pageParams: [''] },
      ],
    ]),
  );

it('the log says who did what to what, in sentences', () => {
  expect(log(line({}))).toContain(
    'Piet Hallam said the rights of Heron at dawn (heron.jpg) , CC BY 4.0, before it Own work 192.0.2.7',
  );
});

it('who was not let in is named by the address that was tried, for nobody knows who it was', () => {
  const refused = line({
    who: 'Placard',
    what: 'sign-in-refused',
    subject: 'mara@saltmere.example',
    detail: '',
  });
  expect(log(refused)).toContain('mara@saltmere.example was not let in');
  expect(log(refused)).not.toContain('Placard was');
});

it('nothing that was done is said as that', () => {
  expect(log()).toContain('Nothing of this was done.');
});
