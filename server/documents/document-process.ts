import { serveTasks } from '../foreign/serve.ts';
import { DOCUMENT_TASKS } from './document-tasks.ts';

// A process that reads documents from outside, and can be killed in the middle of it.
serveTasks(DOCUMENT_TASKS);
