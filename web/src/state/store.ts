/** What is kept on the device: facts that wait, and the last answers of the server for when it cannot be reached. */
import { openDB, type IDBPDatabase, type IDBPTransaction } from 'idb';
import { Refused } from '../api/client';
import { fromFirst, fromThird } from './earlier';
import type { KeptFact } from './kept';

type Change = IDBPTransaction<unknown, string[], 'versionchange'>;
let opened: Promise<IDBPDatabase | null> | null = null;

/** The device's own database, or null where the browser keeps nothing (private windows). */
export function store(): Promise<IDBPDatabase | null> {
  opened ??= open().catch(() => null);
  return opened;
}

// async, so that a browser without any such database is a rejection as well
async function open(): Promise<IDBPDatabase> {
  return await openDB('wobble', 5, {
    upgrade: (db, from, _to, change) => void upgrade(db, from, change),
  });
}

/** What an earlier version kept goes on in the form of today; answers of it are asked for again. */
async function upgrade(db: IDBPDatabase, from: number, change: Change): Promise<void> {
  if (from < 5) db.createObjectStore('photos', { keyPath: 'id' });
  if (from >= 4) return;
  if (from >= 2) void change.objectStore('answers').clear();
  else db.createObjectStore('answers');
  if (from >= 3) {
    const facts = change.objectStore('facts');
    for (const old of (await facts.getAll()) as KeptFact[]) await facts.put(fromThird(old));
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

let owner = '';

/** Whose answers are kept and given back from now on: another who signs in sees none of them. */
export function ownedBy(user: string): void {
  owner = user;
}

const owned = (key: string) => `${owner}\n${key}`;
/** How long the server may be silent before what is kept is shown, ms. */
const SILENT_MS = 3500;

/** The answer of a call, kept on the device; the kept one where the server cannot be reached, or says nothing. */
export async function remembered<T>(key: string, call: () => Promise<T>): Promise<T> {
  const name = owned(key);
  const asked = call().then((answer) => {
    void keep(name, answer);
    return answer;
  });
  const kept = async () => (await (await store())?.get('answers', name)) as T | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const silence = new Promise<T>((done) => {
    timer = setTimeout(() => void kept().then((old) => old !== undefined && done(old)), SILENT_MS);
  });
  try {
    return await Promise.race([asked, silence]);
  } catch (fault) {
    if (!(fault instanceof Refused) || fault.status !== 0) throw fault;
    const old = await kept();
    if (old === undefined) throw fault;
    return old;
  } finally {
    clearTimeout(timer);
  }
}

/** Keep an answer; a device that is full keeps what was typed rather than answers, which can be asked for again. */
async function keep(name: string, answer: unknown): Promise<void> {
  const db = await store();
  try {
    await db?.put('answers', structuredClone(answer), name);
  } catch {
    await db?.clear('answers').catch(() => undefined);
  }
}

/** Forget the answers of whoever was signed in. */
export async function forget(): Promise<void> {
  const db = await store();
  for (const key of (await db?.getAllKeys('answers')) ?? [])
    if (typeof key === 'string' && key.startsWith(owned(''))) await db?.delete('answers', key);
}

/** Do something while no other tab of this browser does the like. */
export function alone<T>(what: string, work: () => Promise<T>): Promise<T> {
  return navigator.locks ? navigator.locks.request(what, work) : work();
}

/** A word between the tabs of this browser; a browser without such words has one tab that matters. */
export function channel(name: string, hear: () => void): { tell: () => void } {
  if (typeof BroadcastChannel === 'undefined') return { tell: () => undefined };
  const made = new BroadcastChannel(name);
  made.onmessage = hear;
  return { tell: () => made.postMessage(0) };
}
