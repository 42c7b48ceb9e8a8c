import type { AllocationQuestion } from '../../shared/contracts/allocation'

/** A billing month of a tree as an address asks for it. */
export const monthQuery = ({ month, measure, tree, as, uplifts }: AllocationQuestion): URLSearchParams =>
  new URLSearchParams({ month, measure, ...(tree === undefined ? {} : { tree }), ...(as && { as }), ...(uplifts && { uplifts }) })
