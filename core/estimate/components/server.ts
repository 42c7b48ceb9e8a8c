import { findPrice, variantsOf } from '../../ratecard/rate-card'
import { input, multiply } from '../../working/working'
import { wayToPay } from '../estimate'
import { committed, onDemand, wayName } from '../ways-to-pay'
import { amount, missingPrice, type ComponentKind } from './kind'

/** Servers: charged per hour they run; a commitment is charged for every hour. */
export const server: ComponentKind = {
  kind: 'server',
  label: 'Servers',
  words: ['server', 'machine', 'virtual machine', 'compute', 'vcpu', 'web server', 'application server'],
  fields: [
    { name: 'size', label: 'size', type: 'choice', column: 'size', help: 'Line, vCPU × GB of memory.', options: (card, region) => variantsOf(card, 'server-hour', region), usual: (card, region) => variantsOf(card, 'server-hour', region)[1] ?? variantsOf(card, 'server-hour', region)[0] ?? '' },
    { name: 'hoursPerMonth', label: 'hours a month', unit: 'h', type: 'number', column: 'runs', min: 0, max: 744, usual: '730', help: 'Hours each one runs in a month; 730 is always on. A commitment is charged for all hours.' },
    { name: 'count', label: 'count', type: 'number', column: 'count', min: 0, max: 10000, whole: true, usual: '1', help: 'How many of them.' },
    { name: 'pays', label: 'pays how', type: 'choice', column: 'pays', help: 'On-demand, or a commitment of one or three years.', options: (card, region) => ['on-demand', ...(card.prices.find(p => p.meter === 'server-hour' && p.region === region)?.commitments ?? []).map(wayName)], usual: () => 'on-demand' },
  ],
  price(inputs, { card, region, monthHours }) {
    const line = findPrice(card, 'server-hour', region, inputs.size!)
    if (!line) return missingPrice('size', card, region, inputs.size!)
    const hourly = line.tiers[0]!.price
    const count = amount(inputs.count!)
    const asItRuns = onDemand(multiply(`${inputs.size}, on-demand`, [input('count', count), input('hours', amount(inputs.hoursPerMonth!), 'h'), input('unit price', hourly, 'per hour', line.sku)]))
    const ways = [asItRuns, ...(line.commitments ?? []).map(price => committed(price, count, monthHours, hourly, line.sku))]
    const wanted = wayToPay.safeParse(inputs.pays)
    if (!wanted.success || !ways.some(way => way.way === wanted.data)) return { ok: false, field: 'pays', reason: `«${inputs.pays}» is not offered for ${inputs.size}` }
    return { ok: true, ways, unitPrice: { value: hourly, per: 'h' } }
  },
}
