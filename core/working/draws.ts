import type { Working, WorkingTiered } from './working'

/** The same formulas in plain numbers: for thousands of draws, where exactness to the last digit says nothing. */
export type Program = {
  /** Names of the inputs that vary, in the order of `values`. */
  variables: readonly string[]
  /** Results of the roots for values of the variables. The same array is filled again by the next call. */
  run: (values: ArrayLike<number>) => Float64Array
}

type Step = { at: number; parts: Int32Array; compute: (slots: Float64Array, parts: Int32Array) => number }

/**
 * Turns trees into one list of steps over slots, each part once however often it is shared. What depends on no varying input is
 * computed now and costs nothing later.
 * @param roots the figures that are wanted.
 * @param varying references (`component.field`) whose values will be drawn.
 */
export function compile(roots: readonly Working[], varying: ReadonlySet<string>): Program {
  const values: number[] = []
  const moves: boolean[] = []
  const steps: Step[] = []
  const places = new Map<Working, number>()
  const variables: string[] = []
  const slotOf = new Map<string, number>()

  function place(working: Working): number {
    const known = places.get(working)
    if (known !== undefined) return known
    const at = working.op === 'input' ? placeInput(working) : placeOperation(working)
    places.set(working, at)
    return at
  }
  function placeInput(working: Extract<Working, { op: 'input' }>): number {
    const { ref } = working
    if (ref !== undefined && varying.has(ref)) {
      const known = slotOf.get(ref)
      if (known !== undefined) return known
      slotOf.set(ref, values.length)
      variables.push(ref)
      return push(Number(working.value), true)
    }
    return push(Number(working.value), false)
  }
  function placeOperation(working: Exclude<Working, { op: 'input' }>): number {
    const parts = Int32Array.from(working.parts, place)
    const compute = operations(working)
    const at = push(
      0,
      parts.some(part => moves[part]!),
    )
    if (moves[at]) steps.push({ at, parts, compute })
    else values[at] = compute(values as unknown as Float64Array, parts)
    return at
  }
  function push(value: number, moving: boolean): number {
    values.push(value)
    moves.push(moving)
    return values.length - 1
  }

  const wanted = roots.map(place)
  const slots = Float64Array.from(values)
  const inputs = variables.map(name => slotOf.get(name)!)
  const results = new Float64Array(wanted.length)
  return {
    variables,
    run(drawn) {
      for (let i = 0; i < inputs.length; i++) slots[inputs[i]!] = drawn[i]!
      for (const step of steps) slots[step.at] = step.compute(slots, step.parts)
      for (let i = 0; i < wanted.length; i++) results[i] = slots[wanted[i]!]!
      return results
    },
  }
}

type Compute = Step['compute']

function operations(working: Exclude<Working, { op: 'input' }>): Compute {
  switch (working.op) {
    case 'tiered':
      return tiered(working)
    case 'sum':
      return fold(0, (a, b) => a + b)
    case 'product':
      return fold(1, (a, b) => a * b)
    case 'difference':
      return fold(null, (a, b) => a - b)
    // nothing of nothing is nothing: a share of what nobody draws
    case 'quotient':
      return fold(null, (a, b) => (a === 0 ? 0 : a / b))
    case 'smaller':
      return fold(null, (a, b) => (b < a ? b : a))
    case 'larger':
      return fold(null, (a, b) => (b > a ? b : a))
    // a number that is whole but for the noise of its last bits stays what it is
    case 'ceiling':
      return (slots, parts) => Math.ceil(slots[parts[0]!]! - 1e-9)
  }
}

/** @param start what to begin with; null begins with the first part. */
function fold(start: number | null, combine: (a: number, b: number) => number): Compute {
  return (slots, parts) => {
    let value = start ?? slots[parts[0]!] ?? 0
    for (let i = start === null ? 1 : 0; i < parts.length; i++) value = combine(value, slots[parts[i]!]!)
    return value
  }
}

function tiered({ tiers, tiering }: WorkingTiered): Compute {
  const from = Float64Array.from(tiers, tier => Number(tier.from))
  const price = Float64Array.from(tiers, tier => Number(tier.price))
  return (slots, parts) => {
    const quantity = slots[parts[0]!]!
    const free = slots[parts[1]!]!
    if (quantity <= free) return 0
    if (tiering === 'whole') {
      let reached = 0
      while (reached + 1 < from.length && quantity >= from[reached + 1]!) reached++
      return (quantity - free) * price[reached]!
    }
    let cost = 0
    for (let i = 0; i < from.length; i++) {
      const lower = Math.max(free, from[i]!)
      const upper = i + 1 < from.length ? Math.min(quantity, from[i + 1]!) : quantity
      if (upper > lower) cost += (upper - lower) * price[i]!
    }
    return cost
  }
}
