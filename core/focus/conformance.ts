import type { FileProblem } from './problem'

/** One rule in a load's report: how many rows break it, and the first few. */
export type RuleReport = {
  id: string
  says: string
  severity: 'error' | 'warning'
  since: string
  rows: number
  examples: { file: string; row: number; value: string | null }[]
}
/** What a load looks like against the specification. `columns` are those of the file by what they are. */
export type Conformance = {
  rows: number
  rules: RuleReport[]
  columns: {
    focus: string[]
    own: string[]
    unknown: string[]
    missing: string[]
    /** Mandatory and conditional columns of which no row has a value. */
    empty?: string[]
    /** Names that are most likely meant for a column of the specification. */
    meant?: { name: string; column: string }[]
  }
}

/** How many examples a rule keeps. */
export const MOST_EXAMPLES = 5

/** Puts the reports of several files of a load together. */
export function mergeConformance(list: readonly Conformance[]): Conformance {
  const rules = new Map<string, RuleReport>()
  for (const report of list.flatMap(c => c.rules)) {
    const known = rules.get(report.id)
    rules.set(
      report.id,
      known
        ? { ...known, rows: known.rows + report.rows, examples: [...known.examples, ...report.examples].slice(0, MOST_EXAMPLES) }
        : report,
    )
  }
  const all = (pick: (c: Conformance) => string[]) => [...new Set(list.flatMap(pick))].sort()
  return {
    rows: list.reduce((n, c) => n + c.rows, 0),
    rules: [...rules.values()],
    columns: {
      focus: all(c => c.columns.focus),
      own: all(c => c.columns.own),
      unknown: all(c => c.columns.unknown),
      missing: all(c => c.columns.missing),
      // empty is what no file has a value in
      empty: all(c => c.columns.empty ?? []).filter(name =>
        list.every(c => !c.columns.focus.includes(name) || c.columns.empty?.includes(name)),
      ),
      meant: [...new Map(list.flatMap(c => c.columns.meant ?? []).map(meant => [meant.name, meant])).values()],
    },
  }
}

/** A broken rule of severity error, as a problem of the file. */
export function ruleProblem(rule: { says: string; needs: readonly string[] }, row: number, value: string | null): FileProblem {
  return {
    row,
    column: rule.needs.at(-1)!,
    value,
    reason: `breaks a FOCUS rule: ${rule.says.charAt(0).toLowerCase()}${rule.says.slice(1).replace(/\.$/, '')}`,
    mend: 'Ask the provider for a corrected export, or map the file with the column left empty.',
  }
}
