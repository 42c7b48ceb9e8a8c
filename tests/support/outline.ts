import { evaluate, type Working } from '../../core/working/working'

/**
 * A tree of Workings as the lines a person reads: label, value, unit and source, parts indented below. What nothing is left out of, a
 * wrong label or a missing part shows in.
 */
export function outline(working: Working, depth = 0): string[] {
  const unit = 'unit' in working && working.unit ? ` ${working.unit}` : ''
  const source = 'source' in working && working.source ? ` [${working.source}]` : ''
  const own = `${'  '.repeat(depth)}${working.label} = ${evaluate(working).toFixed()}${unit}${source}`
  return [own, ...('parts' in working ? working.parts.flatMap(part => outline(part, depth + 1)) : [])]
}
