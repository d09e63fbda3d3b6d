/** What may stand in the way: its kinds, what may be done about it, and how large each kind usually is, mm. */
import { OPTIONS } from '../api/fields';
import type { Obstacle } from '../api/types';

export const USUAL: Record<Obstacle['kind'], [number, number]> = {
  outlet: [86, 86],
  switch: [86, 86],
  wire: [20, 600],
  pipe: [30, 900],
  valve: [80, 80],
  spout: [60, 60],
  vent: [230, 150],
  radiator: [800, 500],
  'window board': [900, 30],
  casing: [70, 2000],
  skirting: [1000, 120],
  trim: [1000, 60],
  column: [200, 2000],
  bulkhead: [600, 300],
  'wheel arch': [700, 250],
};
export const OBSTACLE_KINDS: readonly Obstacle['kind'][] = OPTIONS.obstacleKinds;
export const TREATMENTS: readonly Obstacle['treatment'][] = OPTIONS.treatments;
