/** Simulated instruments in a made-up place: one reading into the field, or all that are left by the apprentice. */
import { calls } from '../../api/calls';
import { notices } from '../../state/notices.svelte';
import type { Tools } from '../../state/practising.svelte';
import { waiting } from '../../state/waiting.svelte';
import type { Round } from '../gauge/round.svelte';

const APPRENTICE = 'Apprentice';

export function tools(round: Round, pad: () => { put: (typed: string) => void } | undefined): Tools {
  return {
    async here() {
      const asked = round.reading(round.target, 0, '');
      if (!asked) return;
      try {
        const [shown] = await calls.readInPractice(
          round.job,
          round.key,
          [{ ...asked, supersedes: null }],
          false,
        );
        if (shown) pad()?.put(shown.entered ?? '');
      } catch (fault) {
        notices.refused(fault);
      }
    },
    async rest() {
      const open = round.stations.filter((s) => !s.read_by && !round.pendingStations.has(s.id));
      const asked = open.flatMap((s) => {
        const one = round.reading({ station: s.id, surface: s.surface, at: s.at }, 0, '');
        return one ? [{ ...one, taken_by: APPRENTICE }] : [];
      });
      try {
        const shown = asked.length ? await calls.readInPractice(round.job, round.key, asked, true) : [];
        if (!shown.length) return;
        await waiting.keep(round.job, round.key, ...shown);
        await round.arrived();
        round.next();
      } catch (fault) {
        notices.refused(fault);
      }
    },
  };
}
