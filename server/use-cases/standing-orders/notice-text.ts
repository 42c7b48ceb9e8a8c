import type { OrderDefinition } from '../../../core/standing-order/definition'
import { madeOn, type FoundResource } from '../../../core/standing-order/found'
import { manyOf } from '../../../core/text/many-of'
import { daysBetween, type Day } from '../../../core/time/day'
import { amountSaid } from '../../../shared/words/amounts'

export type Notice = { order: { id: string; definition: OrderDefinition; who: string }; person: string; found: FoundResource[]; today: Day }

/** What is written of all that was found of somebody's: each with where it is, how old it is, who made it and what it costs. */
export function noticeText(
  { order, person, today }: Pick<Notice, 'order' | 'person' | 'today'>,
  found: readonly FoundResource[],
  nameOf: (id: string) => string,
): { subject: string; text: string } {
  const { does, name } = order.definition
  const base = process.env.RAIN_BARREL_URL
  const link = (path: string) => (base ? new URL(path, base).href : null)
  const page = link(`/savings/orders?one=${order.id}`)
  const lines = [
    `${nameOf(person)}, the standing order «${name}» has found ${manyOf(found.length, 'resource')}:`,
    '',
    ...found.flatMap(one => [...factLines(one, today, link), '']),
    ...(does.deed === 'notify' && does.message ? [does.message, ''] : []),
    `To object, answer ${nameOf(order.who)} with the reason: each can be excepted, until a day or for good${page ? `, at ${page}` : ''}.`,
    'You are written to once about each.',
  ]
  return { subject: `${name}: ${manyOf(found.length, 'resource')}`, text: `${lines.join('\n')}\n` }
}

const said = (amounts: FoundResource['costSoFar']) => amounts.map(amountSaid).join(' and ') || 'nothing yet'

function factLines(found: FoundResource, today: Day, link: (path: string) => string | null): string[] {
  const made = madeOn(found)
  const [making] = found.makings
  const age = made && `${manyOf(daysBetween(made, today), 'day')} old (${making ? 'made' : 'first charged'} on ${made})`
  const since = age ?? (found.firstDay && `there before ${found.firstDay}`)
  const page = link(`/spend/resource?id=${encodeURIComponent(found.resourceId)}`)
  return [
    `- ${found.name}${found.type ? `, ${found.type}` : ''}`,
    `  ${[`account ${found.subAccountName}`, found.region && `region ${found.region}`, since].filter(Boolean).join(', ')}`,
    ...(found.saving ? [`  ${found.saving.title}`] : []),
    `  cost in the last 30 days: ${said(found.costOfMonth)}; so far: ${said(found.costSoFar)}`,
    ...(found.owner === null ? ['  nobody owns it by the rules of allocation: this came to you instead'] : []),
    ...(making ? [`  event ${making.id}: made by «${making.by}» at ${making.at}`] : []),
    ...(page ? [`  ${page}`] : []),
  ]
}
