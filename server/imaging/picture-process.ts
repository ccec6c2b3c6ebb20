import { serveTasks } from '../foreign/serve.ts';
import { keepMemoryFlat } from './memory.ts';
import { PICTURE_TASKS } from './picture-tasks.ts';

// A process that reads pictures from outside, and can be killed in the middle of one.
keepMemoryFlat();
serveTasks(PICTURE_TASKS);
