import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { MessageChoicesSchema, mattersBy, TOLD_NOTHING } from './choices.ts';
import { dueAt, nextMorning, waitAfter } from './due.ts';
import { mailOf } from './mail.ts';
import { ofErrand, ofFailure } from './notification.ts';

const errand = {
  id: 'words-p1',
  kind: 'words',
  before: 'A picture on',
  subject: 'The spring count',
  after: 'has no words yet.',
  detail: 'Those who cannot see it hear nothing.',
  address: '/pages/p1?piece=a&row=words',
  given: null,
};

describe('what is told of an errand', () => {
  it('is its sentence, and where it is done', () => {
    expect(ofErrand(errand, 'mara')).toEqual({
      key: 'words-p1',
      matter: 'errand',
      sentence: 'A picture on “The spring count” has no words yet.',
      detail: 'Those who cannot see it hear nothing.',
      path: '/pages/p1?piece=a&row=words',
    });
  });

  it('is who gave it and what they wrote, and nothing to anybody else', () => {
    const given = {
      to: { id: 'piet' },
      by: { name: 'Mara' },
      note: 'Before Friday.',
      at: '2026-12-01T09:00:00.000Z',
    };
    expect(ofErrand({ ...errand, given }, 'mara')).toBeNull();
    expect(ofErrand({ ...errand, given }, 'piet')).toMatchObject({
      key: 'given words-p1 2026-12-01T09:00:00.000Z',
      matter: 'given',
      sentence: 'Mara gives you an errand: A picture on “The spring count” has no words yet.',
      detail: 'Mara writes: “Before Friday.” Those who cannot see it hear nothing.',
    });
  });

  it.each([
    ['run-1', 'run', 'failure'],
    ['purchase-1', 'rights', 'failure'],
    ['sent-p1', 'sent', 'sent'],
    ['rights-p1', 'rights', 'errand'],
  ])('%s of kind %s is a matter of %s', (id, kind, matter) => {
    expect(ofErrand({ ...errand, id, kind }, 'mara')?.matter).toBe(matter);
  });
});

describe('a mail', () => {
  const one = ofErrand(errand, 'mara');
  const failed = ofFailure({
    id: 'j',
    title: 'Sending “Bitterns”',
    words: 'It is full.',
    path: '/pages/p2/sent',
  });
  if (!one) throw new Error('Nothing is told.');

  it('of one thing has it for its subject', () => {
    const { subject, text } = mailOf([one], 'https://placard.example');
    expect(subject).toBe('A picture on “The spring count” has no words yet.');
    expect(text).toContain('\nhttps://placard.example/pages/p1?piece=a&row=words\n');
    expect(text).toContain('https://placard.example/me');
  });

  it('of several counts them, and lists at most thirty', () => {
    expect(mailOf([one, failed], 'https://placard.example').subject).toBe('2 things wait for you');
    const { text } = mailOf(Array<typeof one>(34).fill(one), 'https://placard.example');
    expect(text.match(/has no words yet/g)).toHaveLength(30);
    expect(text).toContain('And 4 more, on the Desk:');
  });

  it('has a subject of one line, cut between words', () => {
    const { subject } = mailOf([{ ...one, sentence: `A picture on\n“${'The count '.repeat(20)}”` }], 'x');
    expect(subject).not.toContain('\n');
    expect(subject.length).toBeLessThanOrEqual(70);
    expect(subject).toMatch(/(The|count)…$/);
  });
});

describe('when it is told', () => {
  const now = new Date('2026-12-01T10:00:00Z');
  const choices = (when: 'soon' | 'morning', zone = 'Europe/London') => ({
    ...TOLD_NOTHING,
    mail: { matters: [], when, zone },
  });

  it('is at once, but what comes and goes on the Desk has to stay for ten minutes', () => {
    expect(dueAt(choices('soon'), 'mail', 'given', now)).toEqual(now);
    expect(dueAt(choices('soon'), 'mail', 'errand', now)).toEqual(new Date('2026-12-01T10:10:00Z'));
    expect(dueAt(choices('morning'), 'hook', 'failure', now)).toEqual(now);
  });

  it.each([
    ['Europe/London', '2026-12-01T10:00:00Z', '2026-12-02T07:00:00.000Z'],
    ['Europe/London', '2026-12-01T06:59:00Z', '2026-12-01T07:00:00.000Z'],
    ['Europe/London', '2026-12-01T07:00:00Z', '2026-12-02T07:00:00.000Z'],
    // Clocks are put back on 25 October 2026 and forward on 29 March 2026.
    ['Europe/London', '2026-10-24T12:00:00Z', '2026-10-25T07:00:00.000Z'],
    ['Europe/London', '2026-03-28T12:00:00Z', '2026-03-29T06:00:00.000Z'],
    ['Asia/Kathmandu', '2026-12-01T10:00:00Z', '2026-12-02T01:15:00.000Z'],
    ['Australia/Lord_Howe', '2026-12-01T10:00:00Z', '2026-12-01T20:00:00.000Z'],
  ])('the next morning in %s after %s is %s', (zone, from, morning) => {
    expect(nextMorning(zone, new Date(from)).toISOString()).toBe(morning);
  });

  it('is tried again, later each time, and given up after some days', () => {
    const waits = Array.from({ length: 12 }, (_, tries) => waitAfter(tries + 1));
    const times = waits.filter((wait) => wait !== null);
    expect([...times].sort((one, other) => one - other)).toEqual(times);
    expect(waits.at(-1)).toBeNull();
    const days = times.reduce((sum, wait) => sum + wait, 0) / 86_400_000;
    expect(days).toBeGreaterThan(2);
    expect(days).toBeLessThan(5);
  });
});

describe('what a person chose', () => {
  it('is nothing until they choose', () => {
    expect(v.parse(MessageChoicesSchema, TOLD_NOTHING)).toEqual(TOLD_NOTHING);
    expect(mattersBy(TOLD_NOTHING, 'mail')).toEqual([]);
  });

  it('is told to a hook only where it leads somewhere', () => {
    const hook = { matters: ['given' as const], address: '' };
    expect(mattersBy({ ...TOLD_NOTHING, hook }, 'hook')).toEqual([]);
    expect(mattersBy({ ...TOLD_NOTHING, hook: { ...hook, address: 'https://h.example/' } }, 'hook')).toEqual([
      'given',
    ]);
  });

  it.each(['ftp://h.example/', 'hooks', 'https://a:b@h.example/', 'javascript:alert(1)'])(
    'takes no hook to %s',
    (address) => {
      expect(
        v.safeParse(MessageChoicesSchema, { ...TOLD_NOTHING, hook: { matters: [], address } }).success,
      ).toBe(false);
    },
  );

  it('has each matter once, and no zone that nobody knows', () => {
    const mail = { matters: ['sent', 'given', 'sent'], when: 'soon', zone: 'Europe/Berlin' };
    expect(v.parse(MessageChoicesSchema, { ...TOLD_NOTHING, mail }).mail.matters).toEqual(['given', 'sent']);
    expect(
      v.safeParse(MessageChoicesSchema, { ...TOLD_NOTHING, mail: { ...mail, zone: 'Saltmere/Marsh' } })
        .success,
    ).toBe(false);
  });
});
