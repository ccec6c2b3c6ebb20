/** Every table there is: what the migrations are made from, and what is asked. One file of `tables` for each area. */

export * from './tables/gathering.ts';
export * from './tables/house.ts';
export * from './tables/inherited.ts';
export * from './tables/messages.ts';
export * from './tables/pages.ts';
export * from './tables/pieces.ts';
export * from './tables/report.ts';
export * from './tables/sending.ts';
export * from './tables/work.ts';
