/** What can be saved, as a document for those who own it. Amounts are decimal text. */
export type SavingsDocument = {
  title: string
  /** Such as to which day the charges reach. */
  facts: readonly string[]
  owners: readonly OwnedSavings[]
  /** What no total has, and why. */
  notes: readonly string[]
}

/** What somebody owns; none for what nobody does. The total is of what is counted, none where nothing is. */
export type OwnedSavings = { owner: string | null; total: { amount: string; currency: string } | null; items: readonly DocumentedSaving[] }

export type DocumentedSaving = {
  title: string
  amount: string
  currency: string
  /** Where it runs, how much work it is, what may go wrong. */
  facts: readonly string[]
  /** What proves it. */
  said: readonly string[]
  steps: readonly string[]
  undo: string | null
}
