import { expect, it } from 'vitest';
import { mayChangePiece, ROLES } from '#api/people.ts';
import { exampleAsset } from '../testing.tsx';

it('a piece is changed by whoever brought it, not by whoever has their name', () => {
  const piece = exampleAsset();
  const namesake = { id: 'another', name: piece.createdBy.name, role: 'contributor' } as const;
  expect(mayChangePiece(namesake, piece.createdBy.id)).toBe(false);
  expect(mayChangePiece({ ...namesake, id: piece.createdBy.id }, piece.createdBy.id)).toBe(true);
});

it('all who say rights change any piece', () => {
  const free = ROLES.filter((role) => mayChangePiece({ id: 'another', role }, 'mara'));
  expect(free).toEqual(['editor', 'rights-keeper', 'site-owner']);
});
