import type { Fact } from '../api/types';

/** A fact that is kept on this device until the server has it. */
export interface KeptFact {
  /** The fact's own. */
  id: string;
  user: string;
  job: string;
  place: string;
  /** When it was kept, ms: the device's store gives things back by their ids. */
  kept: number;
  fact: Fact;
}
