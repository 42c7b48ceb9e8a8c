import type { Announced } from './arrivals'

/** When a delivery was made, as whoever sends it says; not later than now, since it is here. */
export function stated(deliveredAt: string | undefined, by: 'stated' | 'file' = 'stated'): Pick<Announced, 'delivered'> {
  if (deliveredAt === undefined) return {}
  return { delivered: { at: new Date(Math.min(Date.parse(deliveredAt), Date.now())).toISOString(), by } }
}
