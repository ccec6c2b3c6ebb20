import { Store } from '../ui/store.ts';

/** Whether something is dragged or carried now. */
export const moving = new Store(false);
