import { input, largerOf, multiply, subtract } from '../../working/working'
import { countField, hoursField, number, variantChoice } from './field'
import type { ComponentKind } from './kind'

/** Managed databases by capacity: a tier per hour that includes some storage; what is kept beyond it per GB. */
export const databaseTier: ComponentKind = {
  kind: 'database-tier',
  label: 'Database by capacity',
  words: ['database by capacity', 'capacity tier', 'database', 'relational database', 'sql', 'included storage'],
  needs: ['database-tier-hour'],
  fields: [
    variantChoice('tier', 'tier', 'database-tier-hour', { column: 'size', help: 'Capacity and the storage that comes with it.' }),
    number('storageGb', 'data, each', {
      unit: 'GB',
      column: 'amount',
      max: 131_072,
      usual: '20',
      help: 'What the tier includes costs nothing more.',
    }),
    hoursField(),
    countField('How many databases.'),
  ],
  price(b) {
    const tier = b.text('tier')
    const line = b.line('database-tier-hour', tier, 'tier')
    const [count, hours] = [b.number('count'), b.hours()]
    const extra = largerOf('GB beyond what is included, each', [
      subtract('data less what is included', [b.number('storageGb'), input('included', line.includes?.storageGb ?? '0', 'GB', line.sku)]),
      input('none', 0),
    ])
    const most = line.includes?.storageGbMost
    if (most !== undefined && b.typed('storageGb').high.gt(most)) b.refuse('storageGb', `the tier «${tier}» holds ${most} GB at most`)
    return {
      recurring: [
        b.charge(`tier ${tier}`, line, multiply('hours of all', [count, hours], 'h')),
        b.charge(
          'storage beyond the tier',
          b.line('database-tier-gb-month', null, 'storageGb'),
          multiply('GB beyond what is included', [count, extra], 'GB'),
        ),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count,
      unitHours: multiply('hours of all', [count, hours], 'h'),
    }
  },
}
