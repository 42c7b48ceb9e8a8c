import { Problem } from '../problems/problem'

/** A file that is not as long as was announced. */
export const otherSize = (name: string, announced: number, came: number | 'more') =>
  new Problem(
    'invalid',
    'other-size',
    'The file is not what was announced',
    `«${name}» was announced with ${announced} bytes, and ${came} came. Announce the delivery again if the file has changed, else send it again.`,
  )
