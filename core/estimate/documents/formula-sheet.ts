import { decimalText } from '../../money/decimal'
import { evaluate, type Working } from '../../working/working'

/** A number that a spreadsheet's formulas begin with: what someone typed, a price, a constant. */
export type SheetInput = { label: string; value: number; unit: string; source: string; ref: string | null }
/** One step of a formula. `formula` is written without its equals sign. */
export type SheetStep = { label: string; formula: string; value: number; unit: string; own: boolean }
export type FormulaSheet = { inputs: SheetInput[]; steps: SheetStep[]; cellOf: (working: Working) => string }

/** Arguments that a function of a spreadsheet takes at most, kept well below every program's limit. */
const MOST_ARGUMENTS = 200

/**
 * Trees as cells of a spreadsheet, each part once: inputs in column B of one sheet, steps in column B of another, in an order in which a
 * step stands below everything it uses. Standard spreadsheet formulas; recomputed they give the figures again, in a float's digits.
 * @param firstRow of both sheets, below their headings.
 */
export function formulaSheet(
  roots: readonly Working[],
  { inputSheet, stepSheet, firstRow }: { inputSheet: string; stepSheet: string; firstRow: number },
): FormulaSheet {
  const inputs: SheetInput[] = []
  const steps: SheetStep[] = []
  const cells = new Map<Working, string>()
  const inputCells = new Map<string, string>()

  const inputCell = (input: SheetInput): string => {
    const key = JSON.stringify(input)
    const known = inputCells.get(key)
    if (known) return known
    inputs.push(input)
    const cell = `'${inputSheet}'!B${firstRow + inputs.length - 1}`
    inputCells.set(key, cell)
    return cell
  }
  const stepCell = (step: SheetStep): string => {
    steps.push(step)
    return `'${stepSheet}'!B${firstRow + steps.length - 1}`
  }
  const visit = (working: Working): string => {
    const known = cells.get(working)
    if (known) return known
    const cell =
      working.op === 'input'
        ? inputCell({
            label: working.label,
            value: Number(working.value),
            unit: working.unit ?? '',
            source: working.source ?? '',
            ref: working.ref ?? null,
          })
        : stepCell({
            label: working.label,
            formula: formulaOf(working),
            value: Number(decimalText(evaluate(working))),
            unit: working.unit ?? '',
            own: working.own ?? false,
          })
    cells.set(working, cell)
    return cell
  }
  const sum = (parts: string[]): string =>
    parts.length <= MOST_ARGUMENTS
      ? `SUM(${parts.join(',')})`
      : Array.from(
          { length: Math.ceil(parts.length / MOST_ARGUMENTS) },
          (_, i) => `SUM(${parts.slice(i * MOST_ARGUMENTS, (i + 1) * MOST_ARGUMENTS).join(',')})`,
        ).join('+')
  const formulaOf = (working: Exclude<Working, { op: 'input' }>): string => {
    const parts = working.parts.map(visit)
    switch (working.op) {
      case 'sum':
        return parts.length ? sum(parts) : '0'
      case 'product':
        return parts.length ? parts.join('*') : '1'
      case 'difference':
        return parts.length > 2 ? `${parts[0]}-(${sum(parts.slice(1))})` : parts.join('-')
      // a share of what nobody draws is none
      case 'quotient':
        return working.parts[1]!.op === 'input' ? parts.join('/') : `IF(${parts[1]}=0,0,${parts.join('/')})`
      case 'smaller':
        return `MIN(${parts.join(',')})`
      case 'larger':
        return `MAX(${parts.join(',')})`
      case 'ceiling':
        return `ROUNDUP(ROUND(${parts[0]},9),0)` // noise in a float's last digits must not count as one more
      case 'tiered': {
        const [quantity, allowance] = parts as [string, string]
        const prices = working.tiers.map(tier =>
          inputCell({
            label: `price from ${tier.from}`,
            value: Number(tier.price),
            unit: `per ${working.unit}`,
            source: working.source,
            ref: null,
          }),
        )
        if (working.tiering === 'whole') {
          const reached = working.tiers.reduce(
            (lower, tier, i) => (i === 0 ? prices[0]! : `IF(${quantity}>=${tier.from},${prices[i]},${lower})`),
            '',
          )
          return `MAX(0,${quantity}-${allowance})*${reached}`
        }
        return working.tiers
          .map((tier, i) => {
            const next = working.tiers[i + 1]
            return `MAX(0,${next ? `MIN(${quantity},${next.from})` : quantity}-MAX(${allowance},${tier.from}))*${prices[i]}`
          })
          .join('+')
      }
    }
  }
  for (const root of roots) visit(root)
  return { inputs, steps, cellOf: working => visit(working) }
}
