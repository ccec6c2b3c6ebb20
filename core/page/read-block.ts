import { marksOf } from './read-marks.ts';
import type { ReadElement } from './reading.ts';

/** What stands in an element that only parts what is in it from what is round it. */
export const readBlock: ReadElement = (node, flow, reader, marks) => {
  flow.endParagraph();
  reader.readAll(node.children, flow, marksOf(node, marks));
  flow.endParagraph();
};
