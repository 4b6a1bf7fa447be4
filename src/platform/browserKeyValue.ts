import localforage from 'localforage';
import type { KeyValue } from './keyValue';

/** The browser's IndexedDB through localForage. Each write is one transaction of the database. */
export function browserKeyValue(): KeyValue {
  const place = localforage.createInstance({
    name: 'tellan',
    storeName: 'books',
    driver: localforage.INDEXEDDB,
  });
  return {
    get: (key) => place.getItem(key),
    set: async (key, value) => void (await place.setItem(key, value)),
    remove: (key) => place.removeItem(key),
    keys: () => place.keys(),
  };
}
