import { multiply } from '../../working/working'
import { countField, hoursField, variantChoice } from './field'
import type { ComponentKind } from './kind'

/** Application hosting: a tier per hour for each instance of an application. */
export const appHosting: ComponentKind = {
  kind: 'app-hosting',
  label: 'Application hosting',
  words: ['application hosting', 'app', 'web app', 'platform', 'container', 'web site', 'website', 'paas'],
  needs: ['app-hour'],
  fields: [
    variantChoice('tier', 'tier', 'app-hour', { column: 'size', help: 'Memory and capacity of an instance.' }),
    hoursField(),
    countField('Instances that run at once.', { label: 'instances' }),
  ],
  price(b) {
    const line = b.line('app-hour', b.text('tier'), 'tier')
    const [count, hours] = [b.number('count'), b.hours()]
    return {
      recurring: [b.charge(`tier ${b.text('tier')}`, line, multiply('instance hours', [count, hours], 'h'))],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count,
      unitHours: multiply('instance hours', [count, hours], 'h'),
    }
  },
}
