/** Lengths as typed and as shown; the same forms as the core's, held together by shared test cases. */
import type { LengthUnit } from '../api/types';

const MM_PER_INCH = 25.4;
const METRIC: Record<string, number> = { mm: 1, cm: 10, m: 1000 };
const NUMBER = '(?:\\d+(?:[.,]\\d+)?|[.,]\\d+)';
const METRIC_FORM = new RegExp(`^(${NUMBER})\\s*(mm|cm|m)$`);
const FEET_FORM = new RegExp(`^(${NUMBER})\\s*(?:'|ft|feet|foot)\\s*-?\\s*(.*)$`);
const INCH_MARK = /\s*(?:"|''|in|inch|inches)$/;
const MIXED_FORM = /^(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*\/\s*(\d+)$/;
const DECIMAL_FORM = new RegExp(`^${NUMBER}$`);
const SIGNS: Record<string, string> = {
  '′': "'",
  '’': "'",
  '″': '"',
  '”': '"',
  '“': '"',
  '−': '-',
  '–': '-',
  '⁄': '/',
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};

/** The length in millimetres, or null if the text is none. A fraction without a unit is inches. */
export function parseLength(text: string, unit: LengthUnit = 'mm'): number | null {
  const plain = [...text]
    .map((c) => SIGNS[c] ?? c)
    .join('')
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .join(' ');
  const negative = plain.startsWith('-');
  const body = plain.replace(/^[+-]/, '').trim();
  if (!body || /^[+-]/.test(body)) return null;
  const metric = METRIC_FORM.exec(body);
  const mm = metric ? decimal(metric[1]!) * METRIC[metric[2]!]! : feetAndInches(body, unit);
  if (mm === null) return null;
  return negative ? -mm : mm;
}

function feetAndInches(body: string, unit: LengthUnit): number | null {
  let feet = 0;
  let rest = body;
  const inFeet = body.includes("''") ? null : FEET_FORM.exec(body);
  if (inFeet) {
    feet = decimal(inFeet[1]!) * 12 * MM_PER_INCH;
    rest = inFeet[2]!.trim();
    if (!rest) return feet;
  }
  const marked = INCH_MARK.test(rest);
  const inches = rest.replace(INCH_MARK, '').trim();
  const mixed = MIXED_FORM.exec(inches);
  if (mixed) {
    const below = Number(mixed[3]);
    return below === 0 ? null : feet + (Number(mixed[1] ?? 0) + Number(mixed[2]) / below) * MM_PER_INCH;
  }
  if (!DECIMAL_FORM.test(inches)) return null;
  return feet + decimal(inches) * (marked || inFeet || unit === 'in' ? MM_PER_INCH : 1);
}

function decimal(text: string): number {
  return Number(text.replace(',', '.'));
}

/** Inches to the nearest fraction, such as `13 1/4"`. */
export function fractionalInches(mm: number, denominator: 8 | 16 | 32 = 32): string {
  const ticks = Math.floor((Math.abs(mm) / MM_PER_INCH) * denominator + 0.5);
  const whole = Math.floor(ticks / denominator);
  let above = ticks % denominator;
  let below: number = denominator;
  while (above && above % 2 === 0) [above, below] = [above / 2, below / 2];
  const parts = [...(whole || !above ? [String(whole)] : []), ...(above ? [`${above}/${below}`] : [])];
  return (mm < 0 && ticks ? '-' : '') + parts.join(' ') + '"';
}

/** Too little for the least mark of a rule in inches, and yet something. */
const isSlight = (mm: number): boolean => Math.abs(mm) >= 0.05 && Math.abs(mm) < MM_PER_INCH / 64;

/** A length as it stands in a field, where it can be typed again. */
export const inField = (mm: number, unit: LengthUnit, decimals = 1): string =>
  unit === 'in' ? fractionalInches(mm) : showLength(mm, unit, decimals);

/** A figure beside its uncertainty: to no finer mark of the rule than it is known to. */
export function showFigure(mm: number, sd: number, unit: LengthUnit): string {
  if (unit === 'mm' || isSlight(mm)) return showLength(mm, unit);
  const known = fractionalInches(mm, sd > MM_PER_INCH / 8 ? 8 : sd > MM_PER_INCH / 32 ? 16 : 32);
  // what is something is never shown as nothing, however little is known of it
  return known === '0"' ? showLength(mm, unit) : known;
}

/** A length for display, without its unit where that is millimetres; `decimals` is for millimetres. */
export function showLength(mm: number, unit: LengthUnit, decimals = 1): string {
  if (unit === 'in') return isSlight(mm) ? '<1/64"' : fractionalInches(mm);
  const text = mm.toFixed(decimals);
  return Number(text) === 0 ? (0).toFixed(decimals) : text.replace('-', '−');
}

const EIGHT_FEET_M = (96 * MM_PER_INCH) / 1000;

/** How much something leans, its size: mm over a metre, or inches over the height of a wall, 8 feet. */
export function showSlope(mmPerM: number, unit: LengthUnit, spread?: number): string {
  const size = Math.abs(mmPerM);
  const long = unit === 'in' ? EIGHT_FEET_M : 1;
  const known = spread === undefined ? '' : ` ${showSpread(spread * long, unit)}`;
  return `${showLength(size * long, unit)}${known} ${unit === 'in' ? 'in 8 ft' : 'mm per m'}`;
}

/** How far a slider or a press of a key moves: a mark of the rule. */
export const markOf = (unit: LengthUnit): number => (unit === 'in' ? MM_PER_INCH / 16 : 0.5);

/** An uncertainty for display, rounded up so that it never claims too much. */
export function showSpread(sd: number, unit: LengthUnit): string {
  if (unit === 'in') return '± ' + (Math.ceil((sd / MM_PER_INCH) * 100) / 100).toFixed(2) + '"';
  return '± ' + (Math.ceil(sd * 10 - 1e-9) / 10).toFixed(1);
}
