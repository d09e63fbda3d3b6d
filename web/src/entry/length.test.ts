import { describe, expect, it } from 'vitest';
import cases from '../../../tests/core/length_cases.json';
import type { LengthUnit } from '../api/types';
import { fractionalInches, parseLength, showLength, showSpread } from './length';

describe('the same cases as the core', () => {
  it.each(cases.parse)('reads %s (bare numbers in %s) as %s mm', (text, unit, mm) => {
    expect(parseLength(text as string, unit as LengthUnit)).toBeCloseTo(mm as number, 9);
  });
  it.each(cases.refuse)('refuses “%s”', (text) => {
    expect(parseLength(text)).toBeNull();
  });
  it.each(cases.fraction)('shows %s mm to 1/%s as %s', (mm, denominator, text) => {
    expect(fractionalInches(mm as number, denominator as 16 | 32)).toBe(text);
  });
});

it('never claims more certainty than there is', () => {
  expect(showSpread(0.61, 'mm')).toBe('± 0.7');
  expect(showSpread(0.6, 'mm')).toBe('± 0.6');
  expect(showSpread(0.3, 'in')).toBe('± 0.02"');
});

it('has no negative zero', () => {
  expect(showLength(-0.04, 'mm')).toBe('0.0');
});
