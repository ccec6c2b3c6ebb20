import { datetime, varchar } from 'drizzle-orm/mysql-core';

export const id = () => varchar('id', { length: 36 });

/** Times are UTC with milliseconds. */
export const time = (name: string) => datetime(name, { fsp: 3, mode: 'date' });
