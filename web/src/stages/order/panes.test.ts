import { flushSync, unmount } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { AskedTonight, Place, PlannedStep, Sessions } from '../../api/types';
import { open as openJob } from '../../state/job.svelte';
import { button, fill, page, press, shown } from '../../testing';
import Days from './Days.svelte';
import PlaceStrip from './PlaceStrip.svelte';
import SessionsPane from './SessionsPane.svelte';
import StepPane from './StepPane.svelte';
import Tonight from './Tonight.svelte';

let made: Record<string, unknown>[] = [];
beforeEach(() => {
  made = [];
  localStorage.clear();
});
afterEach(() => Promise.all(made.map((m) => unmount(m))));

const step = (key: string, more: object = {}, planned: object = {}): PlannedStep =>
  ({
    step: {
      key,
      kind: 'own',
      name: `Step ${key}`,
      place: 'p',
      of: [],
      parts: [],
      why: 'so it is',
      opens: [],
      ...more,
    },
    state: 'ready',
    before: [],
    stretches: [],
    minutes: 40,
    stand_in: '',
    free_from: '',
    ...planned,
  }) as unknown as PlannedStep;
const PEOPLE = [
  { id: 'a', name: 'Ines', never: [] },
  { id: 'b', name: 'Tomo', never: [] },
];

describe('tonight', () => {
  const asked = {
    tonight: {
      steps: ['cut', 'carry'],
      minutes: 80,
      begun: 'drill',
      begun_minutes: 20,
      frees: ['glue'],
      stand_ins: [['carry', 'a sack truck']],
      exact: true,
    },
    steps: ['cut', 'carry', 'drill', 'glue'].map((k) => step(k)),
  } as unknown as AskedTonight;
  const onask = vi.fn();
  const ondone = vi.fn();
  const put = (more: object = {}) =>
    made.push(
      shown(Tonight, {
        asked,
        minutes: 90,
        people: PEOPLE,
        there: ['a'],
        ticked: new Set(['cut']),
        lit: null,
        onask,
        onpick: vi.fn(),
        ondone,
        ...more,
      }),
    );

  it('lists what fits, what may be begun, what that frees, and who is missing', () => {
    put();
    expect(page()).toContain('Begin: Step drill');
    expect(page()).toContain('20 min of 40 min');
    expect(page()).toContain('alone: a sack truck');
    expect(page()).toMatch(/Then these may begin.*Step glue/);
    expect(button('Done ✓').disabled).toBe(true);
    press('Done');
    expect(ondone.mock.calls[0]?.[0]).toMatchObject({ step: { key: 'carry' } });
  });

  it('is asked anew with other minutes and other hands', () => {
    put();
    press('2 h');
    press('Tomo');
    press('Ines');
    expect(onask.mock.calls).toEqual([
      [120, ['a']],
      [90, ['a', 'b']],
      [90, []],
    ]);
  });

  it('says what to do where nothing fits', () => {
    put({ asked: { tonight: { ...asked.tonight, steps: [], begun: '', frees: [] }, steps: [] } });
    expect(page()).toContain('Nothing fits');
  });
});

describe('a step', () => {
  const ondone = vi.fn();
  const onbefore = vi.fn();
  const onnote = vi.fn();
  const put = (s: PlannedStep, more: object = {}) =>
    made.push(
      shown(StepPane, {
        job: 'j',
        step: s,
        steps: [
          s,
          step(
            'later',
            {},
            { before: [{ first: s.step.key, then: 'later', kind: 'gate', why: 'it waits' }] },
          ),
        ],
        place: undefined,
        people: PEOPLE,
        ticked: false,
        next: null,
        onpick: vi.fn(),
        ondone,
        onundo: vi.fn(),
        onbefore,
        ondrop: vi.fn(),
        onnote,
        onclose: vi.fn(),
        ...more,
      }),
    );
  const measured = step('measure', {
    opens: [{ key: 'width-A', words: 'its width', measured: true }],
    caution: 'It can tip',
    how: ['first', 'first'],
    bring: ['shims'],
  });

  it('is not done before what it opens is measured, and brings the length', () => {
    put(measured);
    expect(page()).toContain('⚠ It can tip');
    expect(page()).toContain('Bring shims');
    expect(page()).toMatch(/Waits for it.*Step later.*it waits/);
    expect(button('Measure it first').disabled).toBe(true);
    fill(/^its width/, '664.5');
    press('Done');
    expect(ondone).toHaveBeenCalledWith(null, new Map([['width-A', 664.5]]));
  });

  it('is turned before another, noted, and timed', () => {
    put(step('set'));
    press('Do it before…');
    const select = [...document.querySelectorAll('select')].find(
      (s) => s.getAttribute('aria-label') === 'Do it before',
    )!;
    select.value = 'later';
    select.dispatchEvent(new Event('change', { bubbles: true }));
    flushSync();
    expect(onbefore).toHaveBeenCalledWith('later');
    const note = document.querySelector('textarea')!;
    note.value = 'stile on the wrong side';
    note.dispatchEvent(new Event('input', { bubbles: true }));
    flushSync();
    press('Keep the note');
    expect(onnote).toHaveBeenCalledWith('went wrong', 'stile on the wrong side');
    press(/^Start the clock/);
    expect(JSON.parse(localStorage.getItem('wobble-clock j')!)).toMatchObject({ step: 'set' });
    press(/^Stop the clock/);
    expect(JSON.parse(localStorage.getItem('wobble-clock j')!)).toMatchObject({ since: 0 });
  });

  it('says when what it waits for is dry, and takes a tick back', () => {
    put(step('x', {}, { state: 'dries', free_from: '2026-03-08T07:30' }), { ticked: true });
    expect(page()).toContain('dry Sun 8 Mar, 07:30');
    expect(button('Take the tick back')).toBeTruthy();
  });
});

describe('the place at a step', () => {
  it('has what stands, what is set, and what must come after it with why', () => {
    const unit = (id: string, x: number) => ({
      id,
      name: id,
      x_mm: x,
      width_mm: 600,
      height_mm: 700,
      over_base_mm: 0,
    });
    const place = {
      id: 'p',
      width_mm: 2000,
      units: [unit('A', 0), unit('B', 700), unit('C', 1400)],
    } as unknown as Place;
    const set = (u: string, before: object[] = []) => step(`set/${u}`, { kind: 'set', of: [u] }, { before });
    const steps = [
      set('A'),
      set('B'),
      set('C', [
        { first: 'set/B', then: 'set/C', kind: 'trap', why: 'C fills the room for the driver', firm: true },
      ]),
    ];
    made.push(shown(PlaceStrip, { place, steps, step: steps[1]! }));
    const kinds = [...document.querySelectorAll('svg > g')].map(
      (g) => g.getAttribute('class')!.split(' ')[0],
    );
    expect(kinds).toEqual(['stands', 'here', 'closes']);
    expect(page()).toContain('C comes after: C fills the room for the driver');
  });
});

describe('day by day', () => {
  it('has each session with its steps and hours, and a sheet for each day', () => {
    const s = step(
      'cut',
      {},
      { stretches: [{ start: '2026-03-10T19:15', end: '2026-03-10T20:00', people: ['b'] }] },
    );
    const session = {
      start: '2026-03-10T19:00',
      end: '2026-03-10T21:00',
      name: 'Evening',
      people: ['a', 'b'],
      minutes: 240,
      used: 45,
      steps: ['cut'],
    };
    made.push(
      shown(Days, {
        job: 'j',
        now: '2026-03-07T08:00:00+01:00',
        sessions: [session],
        steps: [s],
        people: PEOPLE,
        lit: null,
        onpick: vi.fn(),
      }),
    );
    expect(page()).toContain('Evening, 19:00 to 21:00: Ines and Tomo, 45 min of 4 h');
    expect(page()).toMatch(/19:15 Step cut Tomo/);
    expect(document.querySelector('a')?.getAttribute('href')).toBe(
      '/api/jobs/j/days/2026-03-10.pdf?now=2026-03-07T08%3A00%3A00%2B01%3A00',
    );
  });
});

describe('sessions', () => {
  it('are changed one thing at a time, and whoever goes is named nowhere any more', () => {
    const put = vi.spyOn(openJob, 'putSessions').mockResolvedValue(true);
    const sessions = {
      people: PEOPLE,
      habits: [
        {
          id: 'h',
          name: 'Evening',
          days: ['tue'],
          starts: '19:00',
          minutes: 120,
          people: ['b'],
          machines: [],
        },
      ],
      one_offs: [],
      off: ['2026-03-10'],
      visits: [],
      deadlines: [],
      own: [],
      dropped: ['cut/x'],
      turned: [],
    } as unknown as Sessions;
    made.push(
      shown(SessionsPane, {
        sessions,
        machines: [],
        steps: [step('cut')],
        outcomes: null,
        oncompare: vi.fn(),
      }),
    );
    expect(button('tue').disabled).toBe(true); // a session that comes back has a day
    press('thu');
    expect(put.mock.calls[0]?.[1].habits?.[0]).toMatchObject({ days: ['tue', 'thu'], minutes: 120 });
    press('Put it back');
    expect(put.mock.calls[1]?.[1].dropped).toEqual([]);
    const remove = [...document.querySelectorAll('button')].filter((b) => b.textContent?.trim() === 'Remove');
    remove[1]!.click();
    flushSync();
    const without = put.mock.calls[2]![1];
    expect([without.people?.length, without.habits?.[0]?.people]).toEqual([1, []]);
    expect(without.air).toBe(sessions.air);
    put.mockRestore();
  });
});
