import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { turnToLevel } from './level.ts';

describe('the turn that makes a line level', () => {
  it.each([
    ['a level line', { x: 100, y: 0 }, 0],
    ['one that falls to the right', { x: 100, y: 100 * Math.tan(Math.PI / 60) }, -30],
    ['one that rises to the right', { x: 100, y: -100 * Math.tan(Math.PI / 60) }, 30],
    ['an upright line', { x: 0, y: 80 }, 0],
    ['a post that leans to the right', { x: 100 * Math.tan(Math.PI / 60), y: -100 }, -30],
  ])('is known for %s', (_, to, tenths) => {
    expect(turnToLevel({ x: 0, y: 0 }, to)).toBe(tenths);
  });

  it('is the same whichever end is drawn first, and never over half a right angle', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 900 }) });
    fc.assert(
      fc.property(place, place, (from, to) => {
        const turn = turnToLevel(from, to);
        if (turn === null) return;
        expect(Math.abs(turn)).toBeLessThanOrEqual(450);
        if (Math.abs(turn) < 450) expect(turnToLevel(to, from)).toBe(turn);
      }),
    );
  });

  it('leaves the line level when the picture is turned by it', () => {
    const to = { x: 300, y: 41 };
    const turn = ((turnToLevel({ x: 0, y: 0 }, to) ?? 0) / 10) * (Math.PI / 180);
    expect(Math.abs(to.x * Math.sin(turn) + to.y * Math.cos(turn))).toBeLessThan(0.5);
  });

  it('is not read from a press without a line', () => {
    expect(turnToLevel({ x: 5, y: 5 }, { x: 9, y: 9 })).toBeNull();
  });
});
