/** The forms of a place: what it is, what stands in it, and what is in the way; each tells only what was changed. */
import { unmount } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { OPTIONS } from '../../../api/fields';
import type { Obstacle, Place } from '../../../api/types';
import { choose, fill, labelled, options, page, press, shown } from '../../../testing';
import Obstacles from './Obstacles.svelte';
import PlaceFields from './PlaceFields.svelte';

const place = (part: Partial<Place> = {}) =>
  ({
    id: 'north',
    name: 'North wall',
    width_mm: 2400,
    depth_mm: 600,
    height_mm: 2400,
    kind: 'open',
    frame: 'gravity',
    character: 'typical',
    surfaces: ['floor', 'back'],
    units: [],
    ...part,
  }) as unknown as Place;
let made: Record<string, unknown>;
afterEach(() => unmount(made));

describe('what a place is', () => {
  const told = vi.fn<(part: Partial<Place>) => void>();
  const put = (part: Partial<Place> = {}, others: Place[] = [], length: 'mm' | 'in' = 'mm') => {
    told.mockClear();
    made = shown(PlaceFields, { place: place(part), others, onchange: told }, length);
  };

  it('tells a size in millimetres whatever the tape reads', () => {
    put();
    fill('Long', '3240');
    expect(told).toHaveBeenLastCalledWith({ width_mm: 3240 });
    put({}, [], 'in');
    fill('Deep', '24 1/2');
    expect(told.mock.calls[0]![0].depth_mm).toBeCloseTo(622.3, 6);
  });

  it('keeps a size of nothing to itself and says why', () => {
    put();
    fill('High', '0');
    expect(told).not.toHaveBeenCalled();
    expect(page()).toContain('Not below 1');
  });

  it('brings the surfaces that matter in a kind of place, and the level of a vehicle', () => {
    put();
    choose('Kind of place', 'alcove');
    expect(told).toHaveBeenLastCalledWith({
      kind: 'alcove',
      surfaces: ['floor', 'back', 'left', 'right'],
      frame: 'gravity',
    });
    choose('Kind of place', 'vehicle');
    expect(told).toHaveBeenLastCalledWith({ kind: 'vehicle', surfaces: ['floor', 'back'], frame: 'body' });
  });

  it('asks where a slope begins only under a slope', () => {
    put();
    expect(() => labelled('The ceiling')).toThrow();
    put({ kind: 'under a slope' });
    choose('The ceiling', 'x');
    expect(told).toHaveBeenLastCalledWith({ knee: { along: 'x', at_mm: 1200 } });
    put({ kind: 'under a slope', knee: { along: 'y', at_mm: 300 } });
    fill('Slopes from', '350');
    expect(told).toHaveBeenLastCalledWith({ knee: { along: 'y', at_mm: 350 } });
    choose('The ceiling', '');
    expect(told).toHaveBeenLastCalledWith({ knee: null });
  });

  it('offers a shared corner where there is another place', () => {
    put();
    expect(() => labelled('The right wall')).toThrow();
    put({}, [place({ id: 'east', name: 'East' })]);
    expect(options('The right wall')).toEqual(['', 'east']);
    choose('The right wall', 'east');
    expect(told).toHaveBeenLastCalledWith({ right_is_back_of: 'east' });
  });

  it('keeps surfaces in their order', () => {
    put();
    labelled<HTMLInputElement>('Ceiling').click();
    labelled<HTMLInputElement>('Left wall').click();
    expect(told.mock.calls.map(([part]) => part.surfaces)).toEqual([
      ['floor', 'back', 'ceiling'],
      ['floor', 'back', 'left'],
    ]);
  });
});

describe('what is in the way', () => {
  const told = vi.fn<(obstacles: Obstacle[]) => void>();
  const outlet = {
    fact: 'obstacle',
    id: 'o',
    name: 'Outlet',
    kind: 'outlet',
    surface: 'back',
    at: [300, 400],
    size: [86, 86],
    proud_mm: 0,
    treatment: 'keep clear',
  } as unknown as Obstacle;
  const put = (obstacles: Obstacle[], surfaces: Place['surfaces'] = ['floor', 'back']) => {
    told.mockClear();
    made = shown(Obstacles, { obstacles, surfaces, onchange: told, pictures: { job: 'j', place: 'p' } });
  };

  it('is added on the back where there is one, else on what there is', () => {
    put([]);
    press('Add something in the way');
    expect(told.mock.calls[0]![0][0]).toMatchObject({ fact: 'obstacle', surface: 'back', kind: 'outlet' });
    put([], ['ceiling']);
    press('Add something in the way');
    expect(told.mock.calls[0]![0][0]).toMatchObject({ surface: 'ceiling' });
  });

  it('offers what the schema has, and the surfaces of the place', () => {
    put([outlet]);
    expect(options('Kind of Outlet')).toEqual([...OPTIONS.obstacleKinds]);
    expect(options('Surface of Outlet')).toEqual(['floor', 'back']);
  });

  it('moves one thing along and keeps its height', () => {
    put([outlet]);
    fill('Along of Outlet', '320');
    expect(told.mock.calls[0]![0][0]).toMatchObject({ id: 'o', at: [320, 400] });
    choose('Kind of Outlet', 'switch');
    expect(told.mock.calls[1]![0][0]).toMatchObject({ kind: 'switch', at: [300, 400] });
  });

  it('takes a picture of the thing that was chosen', () => {
    put([outlet, { ...outlet, id: 'v', name: 'Vent' }]);
    expect(page()).toContain('Take a picture');
    expect(document.querySelector('[aria-label="Take a picture of Outlet"]')).not.toBeNull();
    choose('Picture of', 'v');
    expect(document.querySelector('[aria-label="Take a picture of Vent"]')).not.toBeNull();
  });

  it('keeps the caution in view', () => {
    put([outlet]);
    expect(page()).toContain('Detect, isolate, then drill');
  });
});
