/** Whatever is said to a person in its own words. */
export class Expected extends Error {}

/** What stands in the way of what was asked; the edge makes a status of it. */
export type ProblemKind =
  'broken' | 'forbidden' | 'not found' | 'wrong method' | 'conflict' | 'too large' | 'invalid' | 'fault' | 'outside' | 'no room'
/** Which fields are wrong, and why. */
export type FieldProblems = { field: string; reason: string }[]
/** A problem as it passes between threads. */
export type ProblemSaid = { kind: ProblemKind; code: string; title: string; detail: string; errors?: FieldProblems | undefined }

/** An expected failure of what was asked: what, where, and how to mend it. */
export class Problem extends Expected {
  constructor(
    readonly kind: ProblemKind,
    readonly code: string,
    readonly title: string,
    detail: string,
    readonly errors?: FieldProblems,
  ) {
    super(detail)
  }

  /** The same from what was said of it in another thread. */
  static of({ kind, code, title, detail, errors }: ProblemSaid): Problem {
    return new Problem(kind, code, title, detail, errors)
  }

  said(): ProblemSaid {
    const { kind, code, title, message: detail, errors } = this
    return { kind, code, title, detail, errors }
  }
}

/** What is for those only who see the whole company. */
export const wholeCompany = (what: string) =>
  new Problem(
    'forbidden',
    'whole-company',
    'That is for those who see the whole company',
    `It reaches beyond the cost centres that are yours: ${what}`,
  )

export const notFound = (what: string, detail: string) => new Problem('not found', 'not-found', `There is no such ${what}`, detail)
export const conflict = (title: string, detail: string) => new Problem('conflict', 'conflict', title, detail)
