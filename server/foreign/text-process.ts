import { serveTasks } from './serve.ts';
import { TEXT_TASKS } from './text-tasks.ts';

// A process that reads text from outside, and can be killed in the middle of it.
serveTasks(TEXT_TASKS);
