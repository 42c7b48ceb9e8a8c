import { Decimal } from '../../money/decimal'
import type { RateCard } from '../../ratecard/rate-card'
import { add, divide, input, multiply, type Working } from '../../working/working'
import { choice, meansVariant, number, variantChoice } from './field'
import type { Builder, Charge, ComponentKind } from './kind'
import { objectClasses, requestLine, thousands, watching } from './object-storage'

const never = 'does not move'
const MONTHS_A_YEAR = input('months a year', 12)
const DAYS_A_YEAR = input('days a year', 365)

/** Where data of an age lies: from one age in months to below another. */
type Band = { field: string; kind: string; fromMonth: number; toMonth: number }

/** The classes that data goes through until it is deleted. */
function bandsOf(b: Builder): Band[] {
  const steps: Omit<Band, 'toMonth'>[] = [{ field: 'class', kind: b.text('class'), fromMonth: 0 }]
  for (const [field, after] of [
    ['class2', 'after2'],
    ['class3', 'after3'],
  ] as const) {
    if (b.text(field) === never) continue
    const fromMonth = b.typed(after).likely.toNumber()
    const before = steps.at(-1)!
    if (fromMonth <= before.fromMonth)
      b.refuse(
        after,
        `data must be older when it moves to «${b.text(field)}» than when it came to «${before.kind}» (${before.fromMonth} months)`,
      )
    steps.push({ field, kind: b.text(field), fromMonth })
  }
  const deleted = b.typed('deletedAfter').likely.toNumber() || Infinity
  if (deleted <= steps.at(-1)!.fromMonth) b.refuse('deletedAfter', `data would be deleted before it moves to «${steps.at(-1)!.kind}»`)
  return steps.map((step, i) => ({ ...step, toMonth: steps[i + 1]?.fromMonth ?? deleted }))
}

const meansClass = meansVariant('object-gb-month', never)
const classesOrNever = (card: RateCard, region: string) => [never, ...objectClasses(card, region)]

/**
 * Object storage with lifecycle rules, month by month. What arrives in month c is m − c months old in month m; what was there at the
 * start is as old as what arrives in the first month. In each month a class holds the data whose age lies in its band. Coming into a
 * class costs a write for each object, leaving it before its minimum stay costs the missing days, reading costs reads and retrieval.
 * Each month is priced in the tiers of its own volume, with all else that draws on the class.
 */
export const objectArchive: ComponentKind = {
  kind: 'object-archive',
  label: 'Object archive',
  words: ['archive', 'lifecycle', 'cold storage', 'retention', 'object storage over months', 'data that ages'],
  needs: ['object-gb-month'],
  fields: [
    variantChoice('class', 'arrives in', 'object-gb-month', { column: 'size', help: 'The class in which everything begins.' }),
    number('arrivesGb', 'arrives a month', { unit: 'GB', column: 'amount', max: 100_000_000, usual: '500', help: 'New data every month.' }),
    number('startGb', 'there at the start', {
      unit: 'GB',
      max: 100_000_000,
      usual: '0',
      help: 'Data that is brought along; its age begins with the first month.',
    }),
    number('horizon', 'months looked at', {
      min: 1,
      max: 120,
      whole: true,
      fixed: true,
      usual: '24',
      help: 'The monthly amount is the average of these months.',
    }),
    choice('class2', 'moves to', classesOrNever, { help: 'A colder class that it moves to with age.', means: meansClass }),
    number('after2', 'moves after', {
      unit: 'months',
      min: 1,
      max: 120,
      whole: true,
      fixed: true,
      usual: '3',
      help: 'Age at which it moves there.',
    }),
    choice('class3', 'then to', classesOrNever, { help: 'A still colder class.', means: meansClass }),
    number('after3', 'then after', {
      unit: 'months',
      min: 1,
      max: 120,
      whole: true,
      fixed: true,
      usual: '12',
      help: 'Age at which it moves on.',
    }),
    number('deletedAfter', 'deleted after', {
      unit: 'months',
      max: 1200,
      whole: true,
      fixed: true,
      usual: '0',
      help: 'Age at which it goes; 0 keeps it for ever.',
    }),
    number('readPercent', 'read a month', {
      unit: '%',
      max: 1000,
      usual: '0',
      help: 'Share of everything kept that is fetched in a month.',
    }),
    number('objectMb', 'size of an object', {
      unit: 'MB',
      min: 0.001,
      max: 5_000_000,
      usual: '4',
      help: 'On average: arriving, moving and reading are charged for each object.',
    }),
  ],
  price(b) {
    const bands = bandsOf(b)
    const arrives = b.number('arrivesGb')
    const months = Array.from({ length: b.typed('horizon').likely.toNumber() }, (_, month) =>
      bands.flatMap(band => [...kept(b, band, month), ...moved(b, band, month)]),
    )
    return {
      recurring: [],
      months,
      unitPrice: { value: b.line('object-gb-month', bands[0]!.kind, 'class').tiers[0]!.price, per: 'GB' },
      amounts: [{ unit: 'GB', quantity: arrives }],
    }
  },
}

const objectsIn = (b: Builder, gb: Working) =>
  thousands('objects', divide('objects', [multiply('MB', [gb, input('MB in a GB', 1000)]), b.number('objectMb')]))

/** What a class holds in a month, and reading from it. */
function kept(b: Builder, { field, kind, fromMonth, toMonth }: Band, month: number): Charge[] {
  const cohorts = Math.max(0, Math.min(toMonth - 1, month) - fromMonth + 1)
  if (cohorts === 0) return []
  const arrived = multiply('arrived in months of that age', [b.number('arrivesGb'), input('months', cohorts)])
  const gb = month < toMonth ? add('GB', [b.number('startGb'), arrived], 'GB') : arrived
  const readGb = multiply('GB read', [gb, b.number('readPercent'), input('of a hundred', '0.01')])
  const [reads, retrieval] = [requestLine(b, 'object-read-1000', kind), requestLine(b, 'object-retrieval-gb', kind)]
  return [
    b.charge(`kept in «${kind}»`, b.line('object-gb-month', kind, field), gb),
    ...watching(b, kind, gb, b.number('objectMb')),
    ...(reads ? [b.charge(`reads in «${kind}»`, reads, objectsIn(b, readGb))] : []),
    ...(retrieval ? [b.charge(`fetched from «${kind}»`, retrieval, readGb)] : []),
  ]
}

/** Coming into a class, and leaving it before its minimum stay. */
function moved(b: Builder, { field, kind, fromMonth, toMonth }: Band, month: number): Charge[] {
  const parts: Charge[] = []
  const coming = cohortOf(b, month, fromMonth)
  const writes = requestLine(b, 'object-write-1000', kind)
  if (coming && writes) parts.push(b.charge(fromMonth ? `moving to «${kind}»` : 'arriving', writes, objectsIn(b, coming)))
  const line = b.line('object-gb-month', kind, field)
  const minimumDays = line.includes?.minimumDays
  const leaving = cohortOf(b, month, toMonth)
  if (leaving && minimumDays && new Decimal(minimumDays).times(12).gt(365 * (toMonth - fromMonth))) {
    const minimum = divide('minimum stay in months', [
      multiply('minimum stay', [input('days at least', minimumDays, 'days', line.sku), MONTHS_A_YEAR]),
      DAYS_A_YEAR,
    ])
    const missing = multiply('GB-months missing', [
      leaving,
      { op: 'difference', label: 'months missing', parts: [minimum, input('months it stayed', toMonth - fromMonth)] },
    ])
    parts.push(b.charge(`leaving «${kind}» before its minimum stay`, line, missing))
  }
  return parts
}

/** What reaches an age in a month: what arrived so many months ago, with what was there at the start when that is as old. */
function cohortOf(b: Builder, month: number, age: number): Working | null {
  if (month < age) return null
  return month === age ? add('GB', [b.number('startGb'), b.number('arrivesGb')], 'GB') : b.number('arrivesGb')
}
