import type { LeftOut } from '#core/page/left-out.ts';
import { Store } from '../ui/store.ts';

/** What did not come along with the text that was pasted last, while somebody looks at it. */
export const leftOutStore = new Store<readonly LeftOut[]>([]);
