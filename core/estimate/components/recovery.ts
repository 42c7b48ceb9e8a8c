import { divide, input, multiply } from '../../working/working'
import { countField, number, variantChoice } from './field'
import type { ComponentKind } from './kind'

/**
 * Disaster recovery: a price for each protected server, and what it needs: copies of its disks that wait elsewhere, what changes sent
 * there, and the servers that start in a drill.
 */
export const recovery: ComponentKind = {
  kind: 'recovery',
  label: 'Disaster recovery',
  words: ['disaster recovery', 'protected server', 'standby', 'replication', 'failover'],
  needs: ['recovery-server'],
  fields: [
    variantChoice('class', 'copies lie on', 'disk-gb-month', { column: 'size', help: 'Disk class of the waiting copies.' }),
    number('storageGb', 'disk of each', {
      unit: 'GB',
      column: 'amount',
      max: 65_536,
      usual: '120',
      help: 'Kept a second time, all month.',
    }),
    countField('Servers that are protected.', { label: 'servers' }),
    number('changePercent', 'changes a day', {
      unit: '%',
      max: 100,
      usual: '3',
      help: 'Share of the disk that is sent to the other region every day.',
    }),
    variantChoice('drillSize', 'drill on', 'server-hour', { help: 'Size of the servers that start when recovery is practised.' }),
    number('drillHours', 'drill a year', { unit: 'h', max: 8760, usual: '8', help: 'Hours a year that all of them run to practise.' }),
  ],
  price(b) {
    const line = b.line('recovery-server', null, 'count')
    const count = b.number('count')
    const gb = multiply('GB of all', [count, b.number('storageGb')], 'GB')
    const sent = divide(
      'GB sent a month',
      [
        multiply('GB changed a year', [gb, b.number('changePercent'), input('of a hundred', '0.01'), input('days a year', 365)]),
        input('months a year', 12),
      ],
      'GB',
    )
    const drill = divide(
      'drill hours a month',
      [multiply('drill hours a year', [count, b.number('drillHours')]), input('months a year', 12)],
      'h',
    )
    const region = b.findLine('transfer-region-gb')
    return {
      recurring: [
        b.charge('protected servers', line, count),
        b.charge('waiting copies', b.line('disk-gb-month', b.text('class'), 'class'), gb),
        ...(region ? [b.charge('changes sent', region, sent)] : []),
        b.charge('drills', b.line('server-hour', b.text('drillSize'), 'drillSize'), drill),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'server' },
      count,
    }
  },
}
