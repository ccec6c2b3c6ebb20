import { Store } from '../ui/store.ts';

/** Whether one part of a screen stands alone, without the bar over it and what is beside it. */
export const alone = new Store(false);
