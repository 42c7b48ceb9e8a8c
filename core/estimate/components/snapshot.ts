import { add, input, multiply, subtract } from '../../working/working'
import { countField, number } from './field'
import type { ComponentKind } from './kind'

/**
 * Snapshots and backup: a first full copy, and for every further day that is kept what has changed on it.
 * GB kept = count × GB × (1 + change × (days kept − 1)).
 */
export const snapshot: ComponentKind = {
  kind: 'snapshot',
  label: 'Snapshots and backup',
  words: ['snapshot', 'backup', 'backups', 'copy', 'restore', 'retention'],
  needs: ['snapshot-gb-month'],
  fields: [
    number('protectedGb', 'protected, each', {
      unit: 'GB',
      column: 'amount',
      max: 1_000_000,
      usual: '80',
      help: 'What is written on each disk, not how large the disk is.',
    }),
    countField('How many disks or databases are copied.'),
    number('changePercent', 'changes a day', {
      unit: '%',
      max: 100,
      usual: '3',
      help: 'Share of the data that is different the next day.',
    }),
    number('daysKept', 'days kept', {
      unit: 'days',
      min: 1,
      max: 3650,
      whole: true,
      usual: '14',
      help: 'One copy a day is kept for so long.',
    }),
  ],
  price(b) {
    const line = b.line('snapshot-gb-month', null, 'protectedGb')
    const count = b.number('count')
    const changed = multiply('changed while it is kept', [
      b.number('changePercent'),
      input('of a hundred', '0.01'),
      subtract('further days', [b.number('daysKept'), input('first copy', 1)]),
    ])
    const gb = multiply(
      'GB kept',
      [count, b.number('protectedGb'), add('copies of the data', [input('first copy, whole', 1), changed])],
      'GB',
    )
    return {
      recurring: [b.charge('snapshots', line, gb)],
      unitPrice: { value: line.tiers[0]!.price, per: 'GB' },
      count,
      amounts: [{ unit: 'GB', quantity: gb }],
    }
  },
}
