import { CellIndex } from '../spend/cell-index'
import type { Cube } from '../spend/cube'
import { ownCodes, type Coding, type SegmentOf } from '../spend/layers'
import { countingUp } from '../spend/order'
import type { KeyColumn, Segment } from '../spend/segment'
import type { Slices } from '../spend/slices'
import { placedColumn, placesIn } from '../spend/coded-column'

/**
 * Charges that look alike in some dimensions, and of one resource: `coding` has a number for each combination that occurs. By it `alike`
 * says which of them differ in the resource only, and `codes` what each has in each dimension, the resource last.
 */
export type AlikeCharges = { coding: Coding; alike: Int32Array; codes: readonly Int32Array[]; values: readonly (string | null)[][] }

const RESOURCE = 'ResourceId'
/** As many combinations as an index can hold at most. */
const MOST_PLACES = 2 ** 32

/** The codes of a segment's rows: where each has its own. */
type RowCodes = { at: Uint16Array; own: Int32Array }
function codesByRow(coding: Coding, of: SegmentOf): RowCodes {
  const { at, ids, codes } = placesIn(coding, of)
  return { at, own: codes ? ownCodes({ codes: at, ids }, codes) : ids }
}

/** The combinations that were met so far in the charges of a cube. */
class Combinations {
  readonly codings: readonly Coding[]
  #columns = new WeakMap<Segment, KeyColumn>()
  #whole = new CellIndex()
  #alike = new CellIndex()
  /** Where a key would not be countable by a float any more, an index makes it shorter. */
  #between = new Map<number, CellIndex>()
  #alikeOf: number[] = []
  #codes: number[][]
  #told: AlikeCharges | null = null

  constructor(cube: Cube, dimensions: readonly string[]) {
    this.codings = [...dimensions, RESOURCE].map(dimension => cube.coding(dimension))
    this.#codes = this.codings.map(() => [])
    let bound = 1
    this.codings.forEach(({ values }, i) => {
      if (bound * values.length > Number.MAX_SAFE_INTEGER) {
        this.#between.set(i, new CellIndex())
        bound = MOST_PLACES
      }
      bound *= values.length
    })
  }

  isOf(cube: Cube, dimensions: readonly string[]): boolean {
    const names = [...dimensions, RESOURCE]
    return names.length === this.codings.length && names.every((name, i) => cube.coding(name) === this.codings[i])
  }

  visit(of: SegmentOf): void {
    const { segment } = of
    if (this.#columns.has(segment)) return
    const keys = new Float64Array(segment.rows)
    const last = this.codings.length - 1
    const columns = this.codings.map(coding => codesByRow(coding, of))
    for (let i = 0; i < last; i++) this.#extend(keys, i, columns[i]!)
    const prefix = keys.slice()
    this.#extend(keys, last, columns[last]!)
    // looked up once: they are more and more
    const places = new Int32Array(segment.rows)
    for (let row = 0; row < places.length; row++) {
      const place = (places[row] = this.#whole.place(keys[row]!))
      if (place === this.#alikeOf.length) {
        this.#alikeOf.push(this.#alike.place(prefix[row]!))
        for (let i = 0; i <= last; i++) this.#codes[i]!.push(columns[i]!.own[columns[i]!.at[row]!]!)
      }
    }
    this.#columns.set(
      segment,
      placedColumn(segment.rows, row => places[row]!, this.#whole.size),
    )
  }

  #extend(keys: Float64Array, i: number, { at, own }: RowCodes): void {
    const between = this.#between.get(i)
    if (between) for (let row = 0; row < keys.length; row++) keys[row] = between.place(keys[row]!)
    const size = this.codings[i]!.values.length
    for (let row = 0; row < keys.length; row++) keys[row] = keys[row]! * size + own[at[row]!]!
  }

  charges(): AlikeCharges {
    const size = this.#whole.size
    if (this.#told?.alike.length === size) return this.#told
    return (this.#told = {
      coding: {
        values: new Array<null>(size).fill(null),
        layers: [{ codes: new Int32Array(countingUp(size)), column: of => this.#columns.get(of.segment)! }],
      },
      alike: new Int32Array(this.#alikeOf),
      codes: this.#codes.map(codes => new Int32Array(codes)),
      values: this.codings.map(({ values }) => values),
    })
  }
}

/** Of each cube those that were asked for last: a changed rule mostly looks at what the others do. */
const known = new WeakMap<Cube, Combinations>()

/** The combinations of values of some dimensions, and of resources, that some segments of a cube have. */
export function* alikeCharges(cube: Cube, dimensions: readonly string[], segments: readonly SegmentOf[]): Slices<AlikeCharges> {
  // values are put in order the first time that they are asked for
  for (const dimension of [...dimensions, RESOURCE]) {
    cube.coding(dimension)
    yield
  }
  let own = known.get(cube)
  if (!own?.isOf(cube, dimensions)) known.set(cube, (own = new Combinations(cube, dimensions)))
  for (const of of segments) {
    own.visit(of)
    yield
  }
  return own.charges()
}
