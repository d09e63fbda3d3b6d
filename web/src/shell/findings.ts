/** Findings, as every stage tells them. */
import type { Finding } from '../api/types';

/** What tells one finding from another: its code and what it is about, never its words. */
export const keyOf = (f: Finding): string => [f.code, ...f.about].join(' ');

/** Findings under what they are about, in the order in which each subject is met first. */
export function bySubject(findings: readonly Finding[]): [string, Finding[]][] {
  const found = new Map<string, Finding[]>();
  for (const f of findings) {
    const subject = f.subject;
    found.set(subject, [...(found.get(subject) ?? []), f]);
  }
  return [...found];
}
