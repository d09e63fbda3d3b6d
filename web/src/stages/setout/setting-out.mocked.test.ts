/** What is set out while it is drawn: moves one after the other, a drag from where it began, the way back, what is kept. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Move, SetOut, StoredJob } from '../../api/types';

const asked: { said: SetOut; move: Move | null }[] = [];
let answers: (said: SetOut, move: Move | null) => Promise<unknown>;
const kept: SetOut[] = [];
vi.mock('../../api/calls', () => ({
  calls: {
    trySetOut: (_job: string, _place: string, said: SetOut, move: Move | null) => {
      asked.push({ said, move });
      return answers(said, move);
    },
    putSetOut: (_job: string, _place: string, edit: { now: SetOut }) => {
      kept.push(edit.now);
      const { stored } = (globalThis as unknown as { job: { stored: StoredJob } }).job;
      const place = { ...stored.job.places[0], ...edit.now };
      return Promise.resolve({
        ...stored,
        revision: stored.revision + 1,
        job: { ...stored.job, places: [place] },
      });
    },
    job: () => Promise.resolve(null),
    setOut: () => Promise.resolve({ units: [] }),
    gauge: () => Promise.resolve({ surfaces: [] }),
  },
}));
const { open } = await import('../../state/job.svelte');
const { notices } = await import('../../state/notices.svelte');
const { SettingOut, setOutOf } = await import('./setting-out.svelte');
(globalThis as unknown as { job: typeof open }).job = open;

const unit = (width_mm: number) => ({ id: 'A', name: 'A', width_mm });
const said = (width: number) =>
  ({ units: [unit(width)], rules: [], heights: [], existing: [], openings: [] }) as unknown as SetOut;
const wide = (s: SetOut | null) => s?.units?.[0]?.width_mm;
const typed = (mm: number) => ({ move: 'type width', unit: 'A', wide_mm: mm }) as Move;

let setting: InstanceType<typeof SettingOut>;
beforeEach(() => {
  vi.useFakeTimers();
  asked.length = kept.length = 0;
  const place = { id: 'p', name: 'P', ...said(600) };
  open.stored = {
    id: 'j',
    revision: 1,
    job: { name: 'J', units: 'mm', places: [place] },
  } as unknown as StoredJob;
  setting = new SettingOut('j', 'p');
  setting.said = setOutOf(place as never);
  (setting as unknown as Record<string, unknown>)['kept'] = setting.said;
  answers = (now, move) =>
    Promise.resolve({
      said: move?.move === 'type width' ? said(move.wide_mm) : now,
      laid: { units: [], findings: [] },
    });
  vi.spyOn(open, 'load').mockResolvedValue();
});

describe('what is set out', () => {
  it('goes one move at a time, back and forth', async () => {
    await setting.load();
    const done = [setting.do(typed(500)), setting.do(typed(450))];
    expect(await Promise.all(done)).toEqual([true, true]);
    expect(asked.map((a) => wide(a.said))).toEqual([600, 500]);
    expect(wide(setting.said)).toBe(450);
    await setting.undo();
    await setting.undo();
    expect(wide(setting.said)).toBe(600);
    expect([setting.canUndo, setting.canRedo]).toEqual([false, true]);
    await setting.redo();
    expect(wide(setting.said)).toBe(500);
    await setting.do(typed(400));
    expect(setting.canRedo).toBe(false);
  });

  it('is dragged from where it was taken up, and is one step back', async () => {
    await setting.load();
    for (const mm of [510, 520, 530]) setting.drag(typed(mm));
    await setting.drop();
    // while one place is answered only the newest waits, and each is tried on what the drag began from
    expect(asked.every((a) => wide(a.said) === 600)).toBe(true);
    expect(asked.length).toBeLessThan(4);
    expect(wide(setting.said)).toBe(530);
    await setting.undo();
    expect(wide(setting.said)).toBe(600);
  });

  it('goes back where a drag is given up', async () => {
    await setting.load();
    setting.drag(typed(510));
    await setting.drop(false);
    expect(wide(setting.said)).toBe(600);
    expect(setting.canUndo).toBe(false);
  });

  it('is kept once it has stood for a moment, and once', async () => {
    await setting.load();
    await setting.do(typed(500));
    await setting.do(typed(510));
    await vi.advanceTimersByTimeAsync(600);
    expect(kept.map(wide)).toEqual([510]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(kept).toHaveLength(1);
  });

  it('keeps two changes of which the second was made before the first was answered', async () => {
    await setting.load();
    const both = [
      setting.changeUnit('A', { width_mm: 500 }),
      setting.changeUnit('A', { name: 'Press' }),
      setting.change({ openings: [{ id: 'W' }] as never }),
    ];
    expect(await Promise.all(both)).toEqual([true, true, true]);
    expect(setting.said?.units?.[0]).toMatchObject({ width_mm: 500, name: 'Press' });
    expect(setting.said?.openings).toHaveLength(1);
  });

  it('stays as it is where a move is refused, and says why', async () => {
    await setting.load();
    const refused = vi.spyOn(notices, 'refused').mockImplementation(() => undefined);
    answers = () => Promise.reject(new Error('no'));
    expect(await setting.do(typed(500))).toBe(false);
    expect(refused).toHaveBeenCalled();
    expect(wide(setting.said)).toBe(600);
    expect(setting.canUndo).toBe(false);
  });

  it('is kept at once when the window is closed or hidden, and the browser asks while it is on its way', async () => {
    const closes = () => {
      const leaving = new Event('beforeunload', { cancelable: true });
      dispatchEvent(leaving);
      return leaving.defaultPrevented;
    };
    closes(); // what other tests left is kept
    await vi.advanceTimersByTimeAsync(2000);
    kept.length = 0;
    await setting.load();
    expect(closes()).toBe(false);
    await setting.do(typed(500));
    expect(kept).toEqual([]);
    expect(closes()).toBe(true);
    await vi.advanceTimersByTimeAsync(0);
    expect(kept.map(wide)).toEqual([500]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(kept.map(wide)).toEqual([500]);
    expect(closes()).toBe(false);
    // a change that is not answered yet is not lost in silence either
    let answer: (found: unknown) => void = () => undefined;
    answers = () => new Promise((done) => (answer = done));
    void setting.do(typed(450));
    await vi.advanceTimersByTimeAsync(10);
    expect(closes()).toBe(true);
    answer({ said: said(450), laid: { units: [], findings: [] } });
    await vi.advanceTimersByTimeAsync(2000);
    expect(kept.map(wide)).toEqual([500, 450]);
    expect(closes()).toBe(false);
    answers = (now, move) =>
      Promise.resolve({ said: move ? said(420) : now, laid: { units: [], findings: [] } });
    await setting.do(typed(420));
    vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden');
    document.dispatchEvent(new Event('visibilitychange'));
    await vi.advanceTimersByTimeAsync(0);
    expect(kept.map(wide)).toEqual([500, 450, 420]);
    vi.restoreAllMocks();
  });

  it('is kept when the page is left before that', async () => {
    await setting.load();
    await setting.do(typed(480));
    setting.leave();
    await vi.advanceTimersByTimeAsync(10);
    expect(kept.map(wide)).toEqual([480]);
  });
});
