import { tellParent } from './tell-parent.ts';

// A process that says something once its parent is gone, and ends well.
process.once('disconnect', () => {
  tellParent('whole');
  setTimeout(() => process.exit(7), 200);
});
tellParent('listening');
