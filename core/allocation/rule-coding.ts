import { columnCoding } from '../spend/coded-column'
import type { Cube } from '../spend/cube'
import type { Coding, SegmentOf } from '../spend/layers'
import type { Slices } from '../spend/slices'
import { catcherInSlices, catcherOf, type Catcher } from './catch'
import { looksAt } from './condition-tests'
import type { Rule } from './plan'
import { asksOf, ruleChange, type RuleChange } from './rule-change'

/** What rules have caught of charges, as long as what they look at is the same. */
type Kept = {
  asks: readonly string[]
  looked: ReadonlyMap<string, Coding>
  /** What they have caught of a segment. */
  caught: (of: SegmentOf) => ArrayLike<number>
  catcher: Catcher
}
const kept = new WeakMap<Cube, Kept>()

/** Which rule of a list catches each charge: codes are places in the list plus one, 0 for none. */
export const ruleCoding = (rules: readonly Rule[], cube: Cube): Coding =>
  codingBy(
    rules,
    catcherOf(rules, name => cube.coding(name)),
  )

function codingBy(rules: readonly Rule[], catcher: Catcher): Coding {
  const ids = Int32Array.from({ length: rules.length + 1 }, (_, place) => place)
  return columnCoding([null, ...rules.map(({ id }) => id)], of => ({ codes: catcher(of), ids }))
}

/**
 * The same in slices. Where most rules are those of a list that was asked before, in the same order, only what is new in the list is asked,
 * and all of it only of charges that a rule had caught which is gone.
 */
export function* ruleCodingInSlices(rules: readonly Rule[], cube: Cube): Slices<Coding> {
  const asks = rules.map(asksOf)
  const before = kept.get(cube)
  const isSame = before && [...before.looked].every(([dimension, coding]) => cube.coding(dimension) === coding)
  const change = isSame ? ruleChange(before.asks, asks) : null
  const codingOf = (dimension: string) => cube.coding(dimension)
  const isLittle = change && change.added.length * 2 <= rules.length
  const catcher = isLittle ? yield* changedCatcher(rules, before!, change, codingOf) : yield* catcherInSlices(rules, codingOf)
  const coding = codingBy(rules, catcher)
  if (!isLittle && rules.length) {
    const dimensions = new Set(rules.flatMap(({ conditions }) => conditions.filter(looksAt).map(one => one.dimension)))
    const [layer] = coding.layers
    kept.set(cube, {
      asks,
      catcher,
      looked: new Map([...dimensions].map(dimension => [dimension, cube.coding(dimension)])),
      caught: of => ('column' in layer! ? layer.column(of).codes : []),
    })
  }
  return coding
}

const ANEW = 0xffff

/** A catcher that knows what a list before it had caught. */
function* changedCatcher(
  rules: readonly Rule[],
  before: Kept,
  { now, added }: RuleChange,
  codingOf: (dimension: string) => Coding,
): Slices<Catcher> {
  const ofAdded = added.length
    ? yield* catcherInSlices(
        added.map(place => rules[place]!),
        codingOf,
      )
    : null
  const gone = new Int32Array(Math.ceil(now.length / 32))
  now.forEach((place, was) => void (place < 0 && (gone[was >> 5]! |= 1 << (was & 31))))
  /** By what had caught a charge, what does now of the rules that stay. */
  const after = Uint16Array.from({ length: now.length + 1 }, (_, code) => (code === 0 ? 0 : now[code - 1]! < 0 ? ANEW : now[code - 1]! + 1))
  const placed = Uint16Array.from([0, ...added.map(place => place + 1)])
  const sooner = (one: number, other: number) => (one === 0 ? other : other === 0 ? one : Math.min(one, other))
  return of => {
    const was = before.caught(of)
    const fresh = ofAdded?.(of)
    const found = new Uint16Array(of.segment.rows)
    const anew = new Uint32Array(found.length)
    let count = 0
    for (let row = 0; row < found.length; row++) {
      const stays = after[was[row]!]!
      const own = fresh ? placed[fresh[row]!]! : 0
      if (stays === ANEW) {
        anew[count++] = row
        found[row] = own
      } else found[row] = sooner(own, stays)
    }
    if (count) {
      const rows = anew.subarray(0, count)
      const others = before.catcher(of, rows, gone)
      for (const row of rows) found[row] = sooner(found[row]!, after[others[row]!]!)
    }
    return found
  }
}
