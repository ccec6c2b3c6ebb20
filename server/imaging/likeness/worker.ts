import { keepMemoryFlat } from '../memory.ts';
import { measureCurve } from './curve.ts';

// Runs in a thread of its own: comparing pictures holds a processor for seconds.
keepMemoryFlat();

export default measureCurve;
