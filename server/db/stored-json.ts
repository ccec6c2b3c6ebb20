import { customType } from 'drizzle-orm/mysql-core';
import { fromStored, type StoredKind, toStored } from '#core/stored.ts';

/** A column of JSON with a version: brought up to date at each read, written in the newest one. */
export function storedJson<T>(name: string, kind: StoredKind) {
  return customType<{ data: T; driverData: unknown }>({
    dataType: () => 'json',
    toDriver: (value) => JSON.stringify(toStored(kind, value)),
    // What is read is checked against its schema by whoever uses it; the type says what it is when it fits.
    fromDriver: (stored) => fromStored(kind, typeof stored === 'string' ? JSON.parse(stored) : stored) as T,
  })(name);
}
