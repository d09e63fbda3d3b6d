/** What every figure of a page is shown by, given once at its top instead of handed down. */
import { getContext, setContext } from 'svelte';
import type { LengthUnit } from '../api/types';

export interface PlaceInView {
  readonly unit: LengthUnit;
}

export const PLACE = Symbol('the place in view');

/** What the page gave everything within it. */
export function usePlace(): PlaceInView {
  return getContext<PlaceInView>(PLACE);
}

/** Give everything within a component the unit in which lengths are typed and shown, asked anew at each change. */
export function createPlace(unit: () => LengthUnit): void {
  setContext<PlaceInView>(PLACE, {
    get unit() {
      return unit();
    },
  });
}
