import { findSize } from '../../ratecard/find-price'
import { input, largerOf, multiply, subtract, type Working } from '../../working/working'
import { choice, countField, meansVariant, number, variantChoice } from './field'
import type { Builder, Charge, ComponentKind } from './kind'

const anySize = 'any size'

/** What is bought beyond the part that the price includes, for each of them. */
function beyond(b: Builder, name: 'iops' | 'mbps', label: string, included: string): Working {
  return largerOf(`${label} beyond what is included, each`, [
    subtract(`${label} less what is included`, [b.number(name), input('included', included)]),
    input('none', 0),
  ])
}

/** Disks: charged per GB they are large, full or empty; operations and throughput beyond what the class includes on top. */
export const disk: ComponentKind = {
  kind: 'disk',
  label: 'Disks',
  words: ['disk', 'hard drive', 'hard disk', 'block storage', 'volume', 'drive', 'ssd', 'iops'],
  needs: ['disk-gb-month'],
  fields: [
    variantChoice('class', 'class', 'disk-gb-month', {
      column: 'size',
      help: 'Performance class; classes “across zones” keep a copy in another zone.',
    }),
    number('storageGb', 'size of each', {
      unit: 'GB',
      column: 'amount',
      min: 1,
      max: 65_536,
      usual: '80',
      help: 'Charged in full, also while it is empty or its server is off.',
    }),
    countField(),
    number('iops', 'operations a second', {
      unit: 'IOPS',
      max: 400_000,
      whole: true,
      usual: '0',
      help: 'Wanted for each; what the class includes costs nothing more.',
    }),
    number('mbps', 'throughput', {
      unit: 'MB/s',
      max: 40_000,
      whole: true,
      usual: '0',
      help: 'Wanted for each; what the class includes costs nothing more.',
    }),
    number('transactions', 'transactions a month', {
      unit: 'million',
      max: 1e9,
      usual: '0',
      help: 'Of all of them; charged in some classes only.',
    }),
    choice('serverSize', 'on servers of', card => [anySize, ...card.serverSizes.map(s => s.size)], {
      help: 'The size of the servers they are for: some cannot take every class.',
      means: meansVariant('server-hour', anySize),
    }),
  ],
  price(b) {
    const kind = b.text('class')
    const line = b.line('disk-gb-month', kind, 'class')
    const size = b.text('serverSize')
    const takes = findSize(b.card, size)?.diskClasses
    if (size !== anySize && takes && !takes.includes(kind))
      b.refuse(
        'class',
        `${size} cannot take a disk of the class «${kind}»; it takes ${takes.join(', ')}`,
        takes[0] ? { value: takes[0], label: `take ${takes[0]}` } : undefined,
      )
    const count = b.number('count')
    const gb = multiply('GB of all', [count, b.number('storageGb')], 'GB')
    const recurring: Charge[] = [b.charge(`disks, ${kind}`, line, gb)]
    const notices: string[] = []
    for (const [name, meter, label] of [
      ['iops', 'disk-iops-month', 'operations'],
      ['mbps', 'disk-throughput-month', 'throughput'],
    ] as const) {
      if (b.typed(name).high.eq(0)) continue
      const included = line.includes?.[name] ?? '0'
      const most = line.includes?.[`${name}Most`]
      if (most !== undefined && b.typed(name).high.gt(most))
        b.refuse(name, `a disk of the class «${kind}» reaches ${most} ${name === 'iops' ? 'operations a second' : 'MB/s'} at most`)
      const price = b.findLine(meter, kind)
      if (price)
        recurring.push(
          b.charge(
            `${label} bought`,
            price,
            multiply(`${label} of all, beyond what is included`, [count, beyond(b, name, label, included)]),
          ),
        )
      else if (b.typed(name).high.gt(included))
        b.refuse(
          name,
          `the class «${kind}» has ${included} ${name === 'iops' ? 'operations a second' : 'MB/s'} and none can be bought on top`,
        )
    }
    const transactions = b.findLine('disk-transactions', kind)
    if (transactions) recurring.push(b.charge('transactions', transactions, b.number('transactions')))
    else if (b.typed('transactions').high.gt(0)) notices.push(`The class «${kind}» does not charge for transactions.`)
    return { recurring, unitPrice: { value: line.tiers[0]!.price, per: 'GB' }, count, amounts: [{ unit: 'GB', quantity: gb }], notices }
  },
}
