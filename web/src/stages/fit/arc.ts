/** A door from above, the room below: closed it lies along the front, opened it turns about its hinge. */
import type { Swing } from '../../api/types';

export interface Arc {
  /** What the door sweeps over. */
  reach: string;
  /** The door where it stops. */
  leaf: string;
  /** Where its edge is then. */
  end: [number, number];
}

/** The sketch of a door `r` wide, its hinge near the middle of `wide` and `top` down. */
export function arc(swing: Pick<Swing, 'hinged' | 'opens_deg'>, r = 30, wide = 70, top = 5): Arc {
  const way = swing.hinged === 'left' ? 1 : -1;
  const hinge = wide / 2 - way;
  const a = (swing.opens_deg * Math.PI) / 180;
  const end: [number, number] = [hinge + way * r * Math.cos(a), top + r * Math.sin(a)];
  const said = end.map((c) => c.toFixed(1)).join(',');
  return {
    reach: `M${hinge},${top}h${way * r}A${r},${r} 0 0 ${way > 0 ? 1 : 0} ${said}Z`,
    leaf: `M${hinge},${top}L${said}`,
    end,
  };
}
