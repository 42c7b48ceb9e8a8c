import { newRow, type Component, type Estimate, type WayToPay } from '../estimate'
import { placeText } from '../pricing/place'
import { nameCard, type CardVersion } from '../sheet/name-card'
import type { Needs, Offer } from './find-machines'

/** An offer of the Finder, what was asked for when it was found, and the version of its rate card. */
export type Taken = { offer: Offer; needs: Needs; way: WayToPay; card: CardVersion }

/** The estimate with an offer as rows of its last part, the machine and its disk; its rate card is named where the estimate names none. */
export function addOffer(estimate: Estimate, { offer, needs, way, card }: Taken, newId: () => string): Estimate {
  const where = placeText(offer.provider, offer.region, estimate)
  const place: Record<string, string> = where ? { where } : {}
  const part = estimate.components.at(-1)?.part ?? 'Workload'
  const { system, host, hoursPerMonth, count } = needs
  const rows = [newRow(newId(), part, 'server', { size: offer.size, system, host, hoursPerMonth, count, pays: way, ...place })]
  if (offer.diskClass) rows.push(newRow(newId(), part, 'disk', { class: offer.diskClass, storageGb: needs.diskGb, count, ...place }))
  return { ...named(estimate, card), components: [...estimate.components, ...rows] }
}

/** The estimate with an offer as the size of a row, confirmed; the row keeps its way to pay where the offer lacks the wished one. */
export function fillRow(estimate: Estimate, rowId: string, { offer, way, card }: Taken): Estimate {
  const where = placeText(offer.provider, offer.region, estimate)
  const isOffered = offer.ways.some(w => w.way === way)
  const filled = (row: Component): Component => ({
    ...row,
    inputs: { ...row.inputs, size: offer.size, ...(row.inputs.pays !== undefined && isOffered && { pays: way }), where },
    confirmed: [...new Set([...row.confirmed, 'size'])],
  })
  return { ...named(estimate, card), components: estimate.components.map(row => (row.id === rowId ? filled(row) : row)) }
}

/** A version that the estimate names already stays: its other rows are priced on it. */
const named = (estimate: Estimate, card: CardVersion): Estimate =>
  estimate.cards.some(c => c.provider === card.provider) ? estimate : nameCard(estimate, card)
