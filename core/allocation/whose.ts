import { dictionaries, dictionaryNames, type DictionaryName } from '../focus/star'
import { CONTAINER_COLUMN } from '../spend/dimension'
import { Cube } from '../spend/cube'
import { groupInSlices } from '../spend/group'
import type { Narrowing } from '../spend/question'
import { toEnd } from '../spend/slices'
import type { Groups } from '../spend/groups'
import { segmentsOf } from '../spend/open-segment'
import { addDays, dayNumber, type Day } from '../time/day'
import { rulesInForce } from './centre-days'
import type { CentreTree } from './plan'
import { ruleCoding } from './rule-coding'

/** What is said of a resource where no charge names it: by an inventory. */
export type ResourceFacts = {
  id: string
  name: string
  provider: string
  region: string
  subAccountName: string
  tags: Readonly<Record<string, string>>
  /** The containers it lies in, from the top, parted by slashes. */
  container?: string
}

/** Which rule catches a resource, and what it puts it on; null where none does. */
export type Owner = { rule: string; target: string } | null

/**
 * Whose resources are on a day: by the newest charges up to it, of which the largest decides, else by what an inventory says of them. Both
 * are asked of the same rules in the same way, with aliases, inherited tags and lookups. Where there are no charges, no condition on an
 * amount is met by more than nothing.
 * @returns by resource id.
 */
export function whose(cube: Cube, tree: Rules, resources: readonly ResourceFacts[], day: Day): Map<string, Owner> {
  const ids = [...new Set(resources.map(({ id }) => id))]
  const charged = ownersOfCharged(cube, tree, ids, day)
  const others = resources.filter(({ id }) => !charged.has(id))
  const alike = others.length ? ownersOfCharged(asCharges(cube, others, day), tree, ids, day) : new Map<string, Owner>()
  return new Map([...charged, ...alike])
}

/** Rules in order and what they put charges on. */
export type Rules = Pick<CentreTree, 'rules' | 'centres'>

/** The same of those that have charges. @param ids null for all. @param since charges before this day say nothing. */
export function ownersOfCharged(
  cube: Cube,
  tree: Rules,
  ids: readonly string[] | null,
  day: Day,
  since: Day = '1970-01-01',
): Map<string, Owner> {
  const rules = rulesInForce(tree)
  const rule = ruleCoding(rules, cube)
  const question = {
    start: since,
    end: addDays(day, 1),
    keep: (ids ? { ResourceId: [...ids] } : {}) as Narrowing,
    leaveOut: {},
    splitBy: ['ResourceId'],
    grain: 'day' as const,
    measures: ['billedCost'] as const,
  }
  const groups = toEnd(groupInSlices(cube, question, { splits: [rule] }))
  const best = new Map<string, number>()
  for (let group = 0; group < groups.size; group++) {
    const id = groups.values[0]![groups.codes[0]![group]!] ?? null
    if (id === null) continue
    const known = best.get(id)
    if (known === undefined || decides(groups, group, known)) best.set(id, group)
  }
  return new Map(
    [...best].map(([id, group]) => {
      const place = groups.codes[1]![group]!
      return [id, place === 0 ? null : { rule: rules[place - 1]!.id, target: rules[place - 1]!.target }]
    }),
  )
}

/** Whether a group says rather than another whose a resource is: the newer, then the larger, then the earlier rule. */
function decides({ steps, sums, cells, codes }: Groups, group: number, other: number): boolean {
  if (steps[group] !== steps[other]) return steps[group]! > steps[other]!
  const size = (of: number) => {
    const amount = sums[0]!.total(cells[of]!)
    return amount < 0n ? -amount : amount
  }
  const [own, than] = [size(group), size(other)]
  return own === than ? codes[1]![group]! < codes[1]![other]! : own > than
}

/** Resources as if each had a charge of nothing on a day. */
function asCharges(cube: Cube, resources: readonly ResourceFacts[], day: Day): Cube {
  const alike = new Cube()
  alike.setReference(cube.reference)
  const accountPlace = (dictionaries.subAccount as readonly string[]).indexOf('SubAccountName')
  const start = dayNumber(day) * 86_400
  const rows = resources.map((resource, i) => {
    const known = cube.entries.subAccount.find(entry => entry?.[accountPlace] === resource.subAccountName)
    const said: Partial<Record<DictionaryName, Record<string, string>>> = {
      billingAccount: { ProviderName: resource.provider },
      subAccount: { SubAccountName: resource.subAccountName },
      resource: { ResourceId: resource.id, ResourceName: resource.name, RegionId: resource.region },
      tagSet: { Tags: JSON.stringify(resource.tags) },
      others: { Others: JSON.stringify(resource.container ? { [CONTAINER_COLUMN]: resource.container } : {}) },
    }
    for (const name of dictionaryNames)
      alike.addEntry(name, i, name === 'subAccount' && known ? known : dictionaries[name].map(column => said[name]?.[column] ?? null))
    const keys = Object.fromEntries(dictionaryNames.map(name => [name, i])) as Record<DictionaryName, number>
    return { start, end: start + 86_400, currency: alike.currencyCode('XXX'), keys, measures: {} }
  })
  const month = `${day.slice(0, 7)}-01T00:00:00Z`
  alike.setPeriod({
    source: '',
    billingPeriodStart: month,
    billingPeriodEnd: `${addDays(day, 32)}T00:00:00Z`,
    deliveredAt: month,
    segments: segmentsOf(rows),
  })
  return alike
}
