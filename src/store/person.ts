import { create } from 'zustand';
import { cutText, LIMITS } from '@/core/model';
import { now } from '@/platform/clock';
import { readSetting, writeSetting } from '@/platform/settings';
import { setSession } from './session';

/** Who works in this browser. Set once; it goes with every change, note and approval. */
export type Person = { readonly name: string; readonly initials: string };

const KEY = 'tellan.person';

function kept(): Person {
  try {
    const raw = JSON.parse(readSetting(KEY) ?? '{}') as Partial<Person>;
    return {
      name: cutText(String(raw.name ?? ''), LIMITS.person),
      initials: cutText(String(raw.initials ?? ''), 6),
    };
  } catch {
    return { name: '', initials: '' };
  }
}

export const usePerson = create<Person>(kept);

/** The person, for what is recorded. */
export const personNow = (): Person => usePerson.getState();

/** Their name as records carry it. */
export const recordedName = (): string => cutText(personNow().name, LIMITS.person);

/** Keeps who works here. */
export function setPerson(person: Person): void {
  usePerson.setState(person, true);
  writeSetting(KEY, JSON.stringify(person));
}

/** The first letters of a name's first and last word. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/).filter(Boolean);
  const letters = words.length > 1 ? [words[0]![0], words.at(-1)![0]] : [words[0]?.slice(0, 2)];
  return letters.join('').toUpperCase();
}

let nameAsked = false;

/** Asks once for the name of a person who has none, when something is written that carries it. */
export function wantName(): void {
  if (nameAsked || personNow().name !== '') return;
  nameAsked = true;
  setSession({ asked: 'name' });
}

/** A text as a note of the person, written now; null for an empty one. */
export const noteOf = (text: string) =>
  text.trim() === '' ? null : { text: cutText(text.trim(), LIMITS.note), by: personNow().name, at: now() };

/** That the person has looked at something now. */
export const lookedNow = () => ({ by: personNow().name, at: now() });
