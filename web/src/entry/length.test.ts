import { describe, expect, it } from 'vitest';
import cases from '../../../tests/core/length_cases.json';
import type { LengthUnit } from '../api/types';
import {
  fractionalInches,
  inField,
  parseLength,
  showFigure,
  showLength,
  showSlope,
  showSpread,
} from './length';

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
  it.each(cases.slope)('says how much %s mm per m leans in %s', (mm, unit, spread, text) => {
    expect(showSlope(mm as number, unit as LengthUnit, (spread ?? undefined) as number | undefined)).toBe(
      text,
    );
  });
  it.each(cases.shown)('says %s mm is %s', (mm, text) => {
    expect(showLength(mm as number, 'in')).toBe(text);
  });
});

it('keeps in a field what can be typed again', () => {
  expect(inField(0.3, 'in')).toBe('0"');
  expect(inField(336.55, 'in')).toBe('13 1/4"');
  expect(inField(12.34, 'mm')).toBe('12.3');
});

it('shows a figure to no finer mark than it is known to', () => {
  expect([0.5, 1, 4].map((sd) => showFigure(11.9, sd, 'in'))).toEqual(['15/32"', '7/16"', '1/2"']);
  expect(showFigure(9.5, 4, 'in')).toBe('3/8"');
  expect([0.5, 0.02].map((mm) => showFigure(mm, 1.3, 'in'))).toEqual(['1/32"', '0"']);
  expect(showFigure(10.3, 1.6, 'mm')).toBe('10.3');
});

it('never claims more certainty than there is', () => {
  expect(showSpread(0.61, 'mm')).toBe('± 0.7');
  expect(showSpread(0.6, 'mm')).toBe('± 0.6');
  expect(showSpread(0.3, 'in')).toBe('± 0.02"');
});

it('has no negative zero', () => {
  expect(showLength(-0.04, 'mm')).toBe('0.0');
});
