/** What is kept on the device: facts that wait, and the last answers of the server for when it cannot be reached. */
import { openDB, type IDBPDatabase, type IDBPTransaction } from 'idb';
import { Refused } from '../api/client';
import { fromFirst, fromThird } from './earlier';
import type { Kept } from './waiting.svelte';

type Change = IDBPTransaction<unknown, string[], 'versionchange'>;
let opened: Promise<IDBPDatabase | null> | null = null;

/** The device's own database, or null where the browser keeps nothing (private windows). */
export function store(): Promise<IDBPDatabase | null> {
  opened ??= open().catch(() => null);
  return opened;
}

// async, so that a browser without any such database is a rejection as well
async function open(): Promise<IDBPDatabase> {
  return await openDB('wobble', 4, {
    upgrade: (db, from, _to, change) => void upgrade(db, from, change),
  });
}

/** What an earlier version kept goes on in the form of today; answers of it are asked for again. */
async function upgrade(db: IDBPDatabase, from: number, change: Change): Promise<void> {
  if (from >= 2) void change.objectStore('answers').clear();
  else db.createObjectStore('answers');
  if (from >= 3) {
    const facts = change.objectStore('facts');
    for (const old of (await facts.getAll()) as Kept[]) await facts.put(fromThird(old));
    return;
  }
  const facts = db.createObjectStore('facts', { keyPath: 'id' });
  if (from < 1) return;
  for (const old of await change.objectStore('readings').getAll()) {
    const kept = fromFirst(old as Record<string, unknown>);
    if (kept) void facts.put(kept);
  }
  db.deleteObjectStore('readings');
}

/** The answer of a call, kept on the device; the kept one where the server cannot be reached. */
export async function remembered<T>(key: string, call: () => Promise<T>): Promise<T> {
  try {
    const answer = await call();
    void store().then((db) => db?.put('answers', structuredClone(answer), key));
    return answer;
  } catch (fault) {
    if (!(fault instanceof Refused) || fault.status !== 0) throw fault;
    const kept = (await (await store())?.get('answers', key)) as T | undefined;
    if (kept === undefined) throw fault;
    return kept;
  }
}

/** Forget all answers: they belong to whoever was signed in. */
export async function forget(): Promise<void> {
  await (await store())?.clear('answers');
}
