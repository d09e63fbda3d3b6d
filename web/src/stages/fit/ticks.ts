/** The upright rod of Fit, and what a touched tick, support, fixing or answer opens. */
import type { PlaceFit, Place, Figure, LengthUnit, Plan, Unit } from '../../api/types';
import type { Tick } from '../../drawing/rods';
import { showLength } from '../../entry/length';
import { keyOf } from '../../shell/findings';

/** Where drawn heights count from: the base's height over the mark, or nothing where no line ties the floor to it. */
export const drawnBase = (plan: Plan): number => (plan.base.tied ? plan.base.height.value_mm : 0);

export function uprightTicks(plan: Plan | null, unit: LengthUnit, units: readonly Unit[] = []): Tick[] {
  if (!plan) return [{ id: 'mark', at: 0, label: '0', kind: 'place', what: 'The mark' }];
  const tick = (id: string, at: number, label: string, kind: Tick['kind'], what: string): Tick => ({
    id,
    at,
    label,
    kind,
    what,
  });
  const rows = [...new Set(plan.packings.map((p) => Math.round(p.at[1])))];
  const tops = [...new Set(plan.base.tops_mm.map((t) => Math.round(t * 10) / 10))];
  return [
    tick(
      'base',
      drawnBase(plan),
      showLength(plan.base.height.value_mm, unit),
      'decided',
      'Underside of the run',
    ),
    ...rows.map((z) => tick(`fix-${z}`, z, showLength(z, unit, 0), 'found', 'A row of fixings')),
    ...tops.map((z) =>
      tick(`top-${z}`, z, showLength(z, unit), 'decided', `Top of ${topOf(plan, units, z)}`),
    ),
  ];
}

/** What has its top at a height: the run as a whole, or else by name. */
function topOf(plan: Plan, units: readonly Unit[], z: number): string {
  const mine = units.filter((_, i) => Math.abs((plan.base.tops_mm[i] ?? 0) - z) < 0.05 + 1e-9);
  const run = mine.some((u) => (u.over_base_mm ?? 0) === 0);
  return mine.length && !run ? mine.map((u) => u.name).join(', ') : 'the units';
}

export interface Opened {
  title: string;
  figure: Figure;
}

/** The figure behind an id that was touched, or null if there is none to open. */
export function opened(id: string | null, fit: PlaceFit, place: Place, unit: LengthUnit): Opened | null {
  const plan = fit.plan;
  if (!id || !plan) return null;
  const name = (unitId: string) => place.units.find((u) => u.id === unitId)?.name ?? unitId;
  const shim = plan.shims.find((s) => s.support === id);
  if (shim) return { title: `Under ${name(shim.unit)}, ${shim.corner}`, figure: shim.gap };
  const packing = plan.packings.find((p) => p.fixing === id);
  if (packing) {
    const height = showLength(packing.at[1], unit, 0);
    return { title: `Behind ${name(packing.unit)}, ${packing.side}, ${height} up`, figure: packing.gap };
  }
  if (id === 'base') return { title: 'Underside of the run', figure: plan.base.height };
  if (id.startsWith('top-')) return top(plan, Number(id.slice(4)));
  const finding = fit.findings.find((f) => keyOf(f) === id);
  return finding?.figure?.working.length ? { title: finding.title, figure: finding.figure } : null;
}

function top(plan: Plan, top_mm: number): Opened {
  const step = (label: string, value_mm: number) => ({
    label,
    value_mm,
    sign: 1 as const,
    sd_mm: 0,
    rests_on: [],
    surface: null,
    at: null,
  });
  const base = plan.base.height.value_mm;
  const working = [step('Underside of the run', base), step('Height of the unit', top_mm - base)];
  return { title: 'Top of the units', figure: { value_mm: top_mm, sd_mm: 0, working } };
}
