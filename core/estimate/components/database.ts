import { findSize, variantsOf } from '../../ratecard/find-price'
import { broughtAlong } from '../../ratecard/own-licence'
import { add, input, largerOf, multiply, subtract } from '../../working/working'
import { choice, countField, hoursField, meansVariant, number, variantChoice, words } from './field'
import type { Charge, ComponentKind } from './kind'
import { checkZones, paysField } from './server'

const openEngine = 'open engine, no licence'

/** Managed databases by node: each node per hour; a second zone keeps a standby, replicas are further nodes; storage is kept by each. */
export const database: ComponentKind = {
  kind: 'database',
  label: 'Managed database',
  words: ['database', 'db', 'managed database', 'relational database', 'sql', 'postgres'],
  needs: ['database-hour'],
  fields: [
    variantChoice('size', 'node size', 'database-hour', { column: 'size', help: 'Size of every node.' }),
    choice('engine', 'engine', (card, region) => [openEngine, ...variantsOf(card, 'database-engine-vcpu-hour', region)], {
      help: 'A licensed engine costs per vCPU and hour, unless you bring your own licence.',
      means: meansVariant('database-engine-vcpu-hour', openEngine),
    }),
    number('storageGb', 'storage', {
      unit: 'GB',
      column: 'amount',
      min: 1,
      max: 131_072,
      usual: '100',
      help: 'Of one copy of the data; every node keeps one.',
    }),
    hoursField('Hours a month; a database is seldom stopped.'),
    countField('How many databases.'),
    words('zones', 'zones', ['1', '2'], 'A second zone keeps a standby of the same size: twice the nodes and the storage.'),
    number('replicas', 'read replicas, each', {
      max: 15,
      whole: true,
      usual: '0',
      help: 'Further nodes for reading, each with its own storage.',
    }),
    number('iops', 'operations a second', {
      unit: 'IOPS',
      max: 400_000,
      whole: true,
      usual: '0',
      help: 'Wanted for each database; what is included costs nothing more, the rest are operations bought.',
    }),
    number('backupGb', 'backup kept', {
      unit: 'GB',
      max: 10_000_000,
      usual: '0',
      help: 'Of all copies that are kept; as much as the storage is included.',
    }),
    paysField('database-hour'),
  ],
  price(b) {
    const size = b.text('size')
    checkZones(b, b.text('zones'))
    const line = b.line('database-hour', size, 'size')
    const storage = b.line('database-gb-month', null, 'storageGb')
    const [count, gb, hours, replicas] = [b.number('count'), b.number('storageGb'), b.hours(), b.number('replicas')]
    const perDatabase = add('nodes each', [input('nodes for the zones', b.text('zones'), undefined), replicas])
    const nodes = multiply('nodes', [count, perDatabase])
    const kept = multiply('GB of all nodes', [nodes, gb], 'GB')
    const recurring: Charge[] = [b.charge('storage', storage, kept)]
    const engine = b.text('engine')
    if (engine !== openEngine) {
      const vcpu =
        findSize(b.card, size)?.vcpu ??
        b.refuse('size', `${b.card.provider} does not say how many vCPU ${size} has, which the licence of «${engine}» is charged by`)
      recurring.push(
        b.charge(
          engine.endsWith(broughtAlong) ? `own licence of ${engine.slice(0, -broughtAlong.length)}` : `licence, ${engine}`,
          b.line('database-engine-vcpu-hour', engine, 'engine'),
          multiply('vCPU hours', [nodes, input('vCPU each', vcpu), hours], 'vCPU-Hours'),
        ),
      )
    }
    if (b.typed('iops').high.gt(0)) {
      const included = input('included', storage.includes?.iops ?? '0')
      const price = b.findLine('database-iops-month')
      if (price)
        recurring.push(
          b.charge(
            'operations bought',
            price,
            multiply('operations beyond what is included', [
              nodes,
              largerOf('operations beyond what is included, each', [
                subtract('less what is included', [b.number('iops'), included]),
                input('none', 0),
              ]),
            ]),
          ),
        )
      else b.refuse('iops', `${b.card.provider} sells no operations for databases in ${b.region}`)
    }
    const backup = b.findLine('database-backup-gb-month')
    if (backup)
      recurring.push(
        b.charge(
          'backup',
          backup,
          largerOf(
            'backup beyond what is included',
            [subtract('less as much as the storage', [b.number('backupGb'), multiply('storage', [count, gb])]), input('none', 0)],
            'GB',
          ),
        ),
      )
    const nodeHours = multiply('node hours', [nodes, hours], 'h')
    return {
      running: [b.charge(`nodes ${size}, on-demand`, line, nodeHours)],
      commitChoices: [{ value: null, label: '', parts: [{ running: 0, count: nodes, beyond: null }] }],
      recurring,
      unitPrice: { value: line.tiers[0]!.price, per: 'h' },
      count,
      unitHours: multiply('hours of all', [count, hours], 'h'),
      amounts: [{ unit: 'GB', quantity: kept }],
      facts: [{ label: 'nodes', working: nodes }],
    }
  },
}
