import { setImmediate as turn } from 'node:timers/promises'
import type { Facts, Needs } from '../../core/opportunity/detector'
import type { OutsideEvent, Reading, Resource, ResourceCharge } from '../../core/opportunity/opportunity'
import { scaledText } from '../../core/money/scaled'
import { addDays, type Day } from '../../core/time/day'
import type { ChargesSeen } from '../charges/charges-seen'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Db } from '../db/database'
import { readingsIn } from '../observed/measured-block'
import { measuredDays } from '../stores/measured'
import { findInventory, listEvents } from '../stores/observed'

/** Where what detectors need is read from, beside the connection itself. */
export type FactsFrom = { db: Db; charges: ChargesSeen }

/** Whether a connection has what a detector needs. */
export const canMeet = ({ can }: Connector, { measurements, events }: Needs): boolean =>
  !!can.inventory && (!measurements?.length || !!can.measurements) && (!events || !!can.events)

/** Resources of which charges are asked for at once. */
const ASKED_TOGETHER = 500
/** How long facts are made before others have their turn. */
const TURN_MS = 10

/** All that a detector looks at, as it was when a connection was last asked: one resource after the other. */
export async function* factsKept(from: FactsFrom, { name: connection }: Connector, needs: Needs, today: Day): AsyncGenerator<Facts> {
  const { db, charges } = from
  const { inventory: type, measurements = [] } = needs
  const resources = (await findInventory(db, { connection, type, day: today })) ?? []
  const measured = new Map<string, Awaited<ReturnType<typeof measuredDays>>>()
  for (const { metric, days } of measurements)
    measured.set(metric, await measuredDays(db, { connection, type, metric }, addDays(today, -days), today))
  let since = performance.now()
  for (let first = 0; first < resources.length; first += ASKED_TOGETHER) {
    const together = resources.slice(first, first + ASKED_TOGETHER)
    const ids = together.map(({ id }) => id)
    const charged = needs.charges ? await chargesOf(charges, ids, addDays(today, -needs.charges.days), addDays(today, 1)) : null
    const happened = needs.events ? await listEvents(db, connection, addDays(today, -needs.events.days), ids) : []
    for (const resource of together) {
      if (performance.now() - since > TURN_MS) {
        await turn()
        since = performance.now()
      }
      const ofIt = [...measured].map(([metric, days]) => [metric, readingsKept(days, resource.id)] as const)
      yield {
        resource,
        readings: new Map(ofIt),
        events: happened.filter(({ resourceId }) => resourceId === resource.id),
        charges: charged?.get(resource.id) ?? [],
      }
    }
  }
}

function readingsKept(days: Awaited<ReturnType<typeof measuredDays>>, id: string): Reading[] {
  return [...days].flatMap(([day, measured]) => {
    const hours = measured.get(id)
    return hours ? readingsIn(day, hours) : []
  })
}

/** What a detector needs to know of one resource, asked at this moment. */
export async function factsNow({ charges }: FactsFrom, connector: Connector, resource: Resource, needs: Needs, today: Day): Promise<Facts> {
  const { id } = resource
  const end = addDays(today, 1)
  const readings = new Map<string, Reading[]>()
  for (const { metric, days } of needs.measurements ?? [])
    readings.set(metric, await capabilityOf(connector, 'measurements').readings(resource, metric, addDays(today, -days), end))
  const events: OutsideEvent[] = needs.events ? await capabilityOf(connector, 'events').since(addDays(today, -needs.events.days)) : []
  const charged = needs.charges ? await chargesOf(charges, [id], addDays(today, -needs.charges.days), end) : null
  return { resource, readings, events: events.filter(event => event.resourceId === id), charges: charged?.get(id) ?? [] }
}

/** What was charged for resources on each day. @param end exclusive. */
async function chargesOf(charges: ChargesSeen, ids: string[], start: Day, end: Day): Promise<Map<string, ResourceCharge[]>> {
  const { result } = await charges.ask('group', {
    splitBy: ['ResourceId', 'SkuId', 'SkuMeter', 'PricingUnit'],
    grain: 'day',
    start,
    end,
    keep: { ResourceId: ids },
    leaveOut: {},
    measures: ['pricingQuantity', 'effectiveCost'],
  })
  const byResource = new Map<string, ResourceCharge[]>()
  for (const { values, start: day, currency, amounts } of result) {
    const { ResourceId: id, SkuId: sku = null, SkuMeter: meter = null, PricingUnit: unit = null } = values
    if (!id || !currency) continue
    const own = byResource.get(id) ?? []
    own.push({ day: day!, sku, meter, unit, currency, quantity: scaledText(amounts[0]!), effectiveCost: scaledText(amounts[1]!) })
    byResource.set(id, own)
  }
  return byResource
}
