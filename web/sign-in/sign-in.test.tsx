// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { ApiProblem } from '../api/client.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { SignIn } from './sign-in.tsx';

const screen = (isOpen: boolean, demo: readonly object[] = [], failure: Error | null = null) =>
  drawn(<SignIn failure={failure} />, [
    [['beginning'], { isOpen }],
    [['demo-people'], demo],
  ]);

describe('the sign-in', () => {
  it('asks for address and password, and offers nobody', () => {
    const words = wordsOf(screen(false));
    expect(words).toContain('E-mail address Password Sign in');
    expect(words).not.toMatch(/demo|Nobody works here/);
  });

  it('offers the people of the demo with their roles', () => {
    const words = wordsOf(
      screen(false, [{ name: 'Mara Oduya', email: 'mara@saltmere.example', role: 'editor' }]),
    );
    expect(words).toContain('Sign in as one of its people: Mara Oduya Editor');
  });

  it('of an empty house lets the first person begin, with the code of the address filled in', () => {
    window.history.replaceState(null, '', '/?code=Vnc-IKpG');
    const html = screen(true);
    expect(wordsOf(html)).toContain('Nobody works here yet. You begin as its site owner');
    expect(html).toContain('value="Vnc-IKpG"');
    expect(wordsOf(html)).not.toContain('Sign in');
  });

  it('says why nobody could be asked', () => {
    expect(wordsOf(screen(false, [], new ApiProblem(0, 'The line is cut.', null)))).toContain(
      'The line is cut.',
    );
  });
});
