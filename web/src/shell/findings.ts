/** Findings, as every stage tells them. */
import type { Finding } from '../api/types';

/** What tells one finding from another: its code and what it is about, never its words. */
export const keyOf = (f: Finding): string => [f.code, ...f.about].join(' ');
