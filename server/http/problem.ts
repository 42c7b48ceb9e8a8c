import type { ProblemDetails } from '../../shared/contracts/common'

/** An expected failure of a request: becomes RFC 9457 problem details. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    detail: string,
    readonly errors?: ProblemDetails['errors'],
  ) {
    super(detail)
  }

  /** The same from what was said of it in another thread. */
  static of({ status, code, title, detail, errors }: ProblemDetails): Problem {
    return new Problem(status, code, title, detail, errors)
  }

  details(): ProblemDetails {
    return {
      type: `urn:rain-barrel:problem:${this.code}`,
      title: this.title,
      status: this.status,
      detail: this.message,
      code: this.code,
      ...(this.errors && { errors: this.errors }),
    }
  }
}

/** What is for those only who see the whole company. */
export const wholeCompany = (what: string) =>
  new Problem(
    403,
    'whole-company',
    'That is for those who see the whole company',
    `It reaches beyond the cost centres that are yours: ${what}`,
  )

export const notFound = (what: string, detail: string) => new Problem(404, 'not-found', `There is no such ${what}`, detail)
export const conflict = (title: string, detail: string) => new Problem(409, 'conflict', title, detail)
