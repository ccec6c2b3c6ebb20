// @vitest-environment jsdom
import { act } from 'react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { NewPersonSchema, type Role } from '#api/people.ts';
import { ApiProblem } from '../api/client.ts';
import { allOf, button, byRole, choose, control, mount, unmount, write } from '../mounted.tsx';
import { Form, Line, OneOfList } from './form.tsx';
import { MeasuredField } from './measured-field.tsx';
import { useSaveForm } from './use-save-form.ts';

beforeEach(() => sessionStorage.clear());
afterEach(unmount);

interface Said {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
}

function PersonForm({ save }: { readonly save: (said: Said) => Promise<void> }) {
  const form = useSaveForm({
    schema: NewPersonSchema,
    defaults: { name: '', email: '', role: 'editor' },
    refusedAt: 'email',
    keepAs: 'person',
    neverKept: ['role'],
    save,
  });
  return (
    <Form of={form}>
      <Line of={form} name="name" label="Name" />
      <Line of={form} name="email" label="E-mail address" />
      <OneOfList
        of={form}
        name="role"
        label="Role"
        choices={[
          ['editor', 'Editor'],
          ['contributor', 'Contributor'],
        ]}
      />
      <button type="submit">Add</button>
    </Form>
  );
}

function person(save: (said: Said) => Promise<void> = async () => undefined) {
  const saved: Said[] = [];
  const ground = mount(
    <PersonForm
      save={async (said) => {
        await save(said);
        saved.push(said);
      }}
    />,
  );
  return { ground, saved };
}

/** Presses the button and waits for what the schema and the server say. */
async function add(ground: HTMLElement): Promise<void> {
  await act(async () => button(ground, 'Add').click());
  await act(async () => new Promise((resolve) => setTimeout(resolve, 0)));
}
const faults = (ground: HTMLElement) => allOf(ground, 'alert').map(({ textContent }) => textContent);

describe('a form', () => {
  it('saves what the schema of the API lets through', async () => {
    const { ground, saved } = person();
    await write(control(ground, 'Name'), ' Joss Imrie ');
    await write(control(ground, 'E-mail address'), 'joss@saltmere.example');
    await choose(byRole(ground, 'combobox', 'Role'), 'Contributor');
    await add(ground);
    expect(saved).toEqual([{ name: 'Joss Imrie', email: 'joss@saltmere.example', role: 'contributor' }]);
  });

  it('tells each fault at its field, and goes to the first', async () => {
    const { ground, saved } = person();
    await write(control(ground, 'E-mail address'), 'joss');
    await add(ground);
    expect(saved).toEqual([]);
    expect(faults(ground)).toHaveLength(2);
    expect(document.activeElement).toBe(control(ground, 'Name'));
    expect(control(ground, 'Name').getAttribute('aria-invalid')).toBe('true');
    expect(control(ground, 'E-mail address').value).toBe('joss');
  });

  it('tells where the server refused it, and keeps what was typed', async () => {
    const { ground } = person(async () => {
      throw new ApiProblem(409, 'Somebody signs in with this address already.', null);
    });
    await write(control(ground, 'Name'), 'Joss Imrie');
    await write(control(ground, 'E-mail address'), 'mara@saltmere.example');
    await add(ground);
    expect(faults(ground)).toEqual(['Somebody signs in with this address already.']);
    expect(document.activeElement).toBe(control(ground, 'E-mail address'));
    expect(control(ground, 'Name').value).toBe('Joss Imrie');
  });

  it('has what was typed after a reload, but for what is never kept, until it is saved', async () => {
    const first = person();
    await write(control(first.ground, 'Name'), 'Joss Imrie');
    await choose(byRole(first.ground, 'combobox', 'Role'), 'Contributor');
    const again = person();
    expect(control(again.ground, 'Name').value).toBe('Joss Imrie');
    expect(byRole(again.ground, 'combobox', 'Role').textContent).toBe('Editor');
    await write(control(again.ground, 'E-mail address'), 'joss@saltmere.example');
    await add(again.ground);
    expect(control(person().ground, 'Name').value).toBe('');
  });
});

describe('a measure', () => {
  const measure = (says: string) => {
    const kept: number[] = [];
    const ground = mount(
      <MeasuredField
        name="Width"
        says={says}
        read={(text) => (/^\d+$/.test(text) ? { value: Number(text) } : { fault: 'A width is a number.' })}
        onKeep={(value) => kept.push(value)}
      />,
    );
    return { kept, ground };
  };

  it.each(['leave', 'enter'] as const)('is kept by %s', async (way) => {
    const { kept, ground } = measure('480');
    await write(control(ground, 'Width'), '600', way);
    expect(kept).toEqual([600]);
  });

  it('that was left as it was is not kept again', async () => {
    const { kept, ground } = measure('480');
    await write(control(ground, 'Width'), ' 480 ');
    expect(kept).toEqual([]);
  });

  it('that means nothing stays with its reason', async () => {
    const { kept, ground } = measure('480');
    await write(control(ground, 'Width'), 'wide');
    expect(kept).toEqual([]);
    expect(faults(ground)).toEqual(['A width is a number.']);
    expect(control(ground, 'Width').value).toBe('wide');
  });
});
