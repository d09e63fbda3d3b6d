import { describe, expect, it } from 'vitest';
import type { PlannedStep, SessionPlan } from '../../api/types';
import { after, cords, isGate, minutesBetween, moment, sayMinutes, sayWhen, weekOf, weeks } from './order';
import { minutesOf, ranMs, started, stopped } from './timer';

const step = (
  key: string,
  stretches: [string, string, string[]][],
  more: object = {},
  before: object[] = [],
) =>
  ({
    step: { key, kind: 'own', name: key, rests_h: 0, rests_why: '', others: false, ...more },
    state: 'waits',
    before,
    stretches: stretches.map(([start, end, people]) => ({ start, end, people })),
    minutes: 0,
  }) as unknown as PlannedStep;
const session = (start: string, end: string, people: string[]) =>
  ({ start, end, name: 'Evening', people, minutes: 0, used: 0, steps: [] }) as SessionPlan;

const SESSIONS = [
  session('2026-03-10T19:00', '2026-03-10T21:00', ['a']),
  session('2026-03-14T09:00', '2026-03-14T13:00', ['a', 'b']),
  session('2026-03-17T19:00', '2026-03-17T21:00', ['a']),
];
const GLUE = step('glue', [['2026-03-10T20:00', '2026-03-10T21:00', ['a']]], {
  rests_h: 12,
  rests_why: 'glue',
});
const CUT = step('cut', [
  ['2026-03-10T19:00', '2026-03-10T20:00', ['a']],
  ['2026-03-14T09:00', '2026-03-14T09:30', ['b']],
]);
const SET = step('set', [['2026-03-14T10:00', '2026-03-14T11:00', ['a', 'b']]], {}, [
  { first: 'glue', then: 'set', kind: 'gate', why: 'hard', rests: true },
]);
const STEPS = [CUT, GLUE, SET];

describe('the rods', () => {
  it('has a stick a week, on one scale, with a notch for each stretch in its own lane', () => {
    const { weeks: found, scale } = weeks(SESSIONS, STEPS, 380);
    expect(found.map((w) => w.monday)).toEqual(['2026-03-09', '2026-03-16']);
    // the fullest week has 360 minutes and two joints of 10
    expect(scale).toBeCloseTo(1);
    const saturday = found[0]!.hands[1]!;
    expect([saturday.x, saturday.w]).toEqual([130, 240]);
    const [torn, both] = saturday.notches;
    expect([torn!.lane, torn!.lanes, torn!.w]).toEqual([1, 2, 30]);
    expect([both!.lane, both!.lanes, both!.x]).toEqual([0, 1, 190]);
    expect(found[0]!.hands[0]!.notches.map((n) => n.number)).toEqual([1, 2]);
  });

  it('hangs a cord from what dries to the first that waits for it', () => {
    expect(cords(STEPS)).toEqual([{ from: 'glue', to: 'set', hours: 12, why: 'glue' }]);
    expect(cords([step('paint', [['2026-03-10T20:00', '2026-03-10T21:00', []]], { rests_h: 6 })])).toEqual(
      [],
    );
  });

  it('knows a gate by what waits for it, and says why', () => {
    expect([isGate('glue', STEPS), isGate('cut', STEPS)]).toEqual([true, false]);
    expect(after('glue', STEPS).map((a) => [a.step.step.key, a.tie.why])).toEqual([['set', 'hard']]);
  });
});

describe('moments', () => {
  it('are the clock on the wall, with how far that is from everybody', () => {
    expect(moment(new Date('2026-03-07T19:30:00'))).toMatch(/^2026-03-07T19:30:00[+-]\d\d:\d\d$/);
    expect(minutesBetween('2026-03-28T23:30', '2026-03-29T03:30')).toBe(240);
    expect(weekOf('2026-03-15T10:00')).toBe('2026-03-09');
    expect(sayWhen('2026-03-07T09:05')).toBe('Sat 7 Mar, 09:05');
    expect([sayMinutes(45), sayMinutes(60), sayMinutes(95)]).toEqual(['45 min', '1 h', '1 h 35']);
  });
});

describe('the clock of a step', () => {
  it('goes on after a pause, begins anew at another step, and gives whole minutes', () => {
    const a = started(null, 'cut', 1000);
    const paused = stopped(a, 101_000);
    expect(ranMs(paused, 900_000)).toBe(100_000);
    const again = started(paused, 'cut', 900_000);
    expect(minutesOf(again, 940_000)).toBe(2);
    expect(started(paused, 'set', 900_000).ran).toBe(0);
    expect(minutesOf(started(null, 'x', 1), 2)).toBe(1);
  });
});
