/** What a place is like, in words: signs become directions. */
import type { Trait } from '../../api/types';

interface Words {
  name: string;
  /** The figure without its sign. */
  value: number;
  how: string;
}

const ALONG = { x: 'along', y: 'out into the room', z: 'up' };

/** A level surface falls or rises along an axis; a wall leans or runs proud or hollow. */
export function traitWords(t: Trait): Words {
  const value = Math.abs(t.value);
  const level = t.surface === 'floor' || t.surface === 'ceiling';
  const along = t.along ? ALONG[t.along] : '';
  switch (t.kind) {
    case 'tilt':
      if (level) return { name: t.value < 0 ? 'Falls' : 'Rises', value, how: along };
      if (t.along === 'z')
        return { name: 'Leans', value, how: t.value < 0 ? 'away, going up' : 'into the room, going up' };
      return { name: 'Runs', value, how: `${t.value < 0 ? 'away' : 'into the room'}, going ${along}` };
    case 'bow':
      if (value <= t.sd) return { name: 'Bow', value, how: `none to speak of, ${along}` };
      return { name: 'Bow', value, how: `${t.value < 0 ? 'hollow' : 'proud'} in the middle, ${along}` };
    case 'wobble':
      return { name: 'Wobble', value, how: 'peak to valley, off its own plane' };
    case 'high':
      return { name: 'High spot', value, how: 'over its middle, at' };
    case 'low':
      return { name: 'Low spot', value, how: 'under its middle, at' };
    case 'angle':
      return {
        name: 'Corner with the back',
        value: t.value,
        how: t.value < 90 ? 'narrower than square' : 'wider than square',
      };
    case 'narrowest':
      return { name: 'Narrowest', value, how: 'wall to wall, at' };
    case 'widest':
      return { name: 'Widest', value, how: 'wall to wall, at' };
    case 'lowest ceiling':
      return { name: 'Lowest', value, how: 'over the floor, at' };
  }
}
