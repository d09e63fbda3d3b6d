/** Findings, as every stage tells them. */
import type { Finding } from '../api/types';

/** What tells one finding from another: its code and what it is about, never its words. */
export const keyOf = (f: Finding): string => [f.code, ...f.about].join(' ');

/** Findings with keys for a list: the second that says the same of the same has one of its own. */
export function keyed(findings: readonly Finding[]): [string, Finding][] {
  const met = new Map<string, number>();
  return findings.map((f) => {
    const key = keyOf(f);
    const n = met.get(key) ?? 0;
    met.set(key, n + 1);
    return [n ? `${key} ${n}` : key, f];
  });
}

/** Findings under what they are about, in the order in which each subject is met first. */
export function bySubject(findings: readonly Finding[]): [string, Finding[]][] {
  const found = new Map<string, Finding[]>();
  for (const f of findings) {
    const subject = f.subject;
    found.set(subject, [...(found.get(subject) ?? []), f]);
  }
  return [...found];
}
