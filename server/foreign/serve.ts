import * as v from 'valibot';
import { tellParent } from '../tell-parent.ts';
import { type Sent, toSent } from './errors.ts';

const OrderSchema = v.object({ task: v.string(), input: v.unknown() });

/** A table of tasks by name, each of one input. */
export type Tasks = Readonly<Record<string, (input: never) => unknown>>;

/** Answers the orders of a `ProcessPool` from a table of tasks, one at a time. */
export function serveTasks(tasks: Tasks): void {
  process.on('message', (message) => {
    const { task, input } = v.parse(OrderSchema, message);
    void answer(tasks, task, input).then(tellParent);
  });
  process.on('disconnect', () => process.exit(0));
}

async function answer(tasks: Tasks, name: string, input: unknown): Promise<Sent> {
  try {
    const task = Object.hasOwn(tasks, name) ? tasks[name] : undefined;
    if (!task) throw new RangeError(`There is no task "${name}".`);
    // The pool is the only one who orders, and its wrappers are typed.
    return { result: await task(input as never) };
  } catch (error) {
    return toSent(error);
  }
}
