/** What a browser remembers of the person; silent where storage is refused or there is no browser. */
export function readSetting(key: string): string | null {
  try {
    return typeof localStorage === 'undefined' ? null : localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Keeps a setting; nothing happens where storage is refused. */
export function writeSetting(key: string, value: string): void {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Refused storage is told elsewhere; a setting is not worth stopping for.
  }
}
