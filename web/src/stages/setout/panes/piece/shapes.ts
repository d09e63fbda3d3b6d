/** What a piece may be beside a box: which edges of which kinds are curved, and what flat ones are usually made of. */
import { CURVED_EDGES, DEFAULTS } from '../../../../api/fields';
import type { Unit } from '../../../../api/types';

export type CurvedEdge = NonNullable<Unit['curve']>['edge'];

export function curvedEdges(kind: string): readonly CurvedEdge[] {
  return (CURVED_EDGES as Record<string, readonly CurvedEdge[]>)[kind] ?? [];
}

export const BOARD = DEFAULTS.board as NonNullable<Unit['board']>;
