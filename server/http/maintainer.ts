import { getRequestHeader, type H3Event } from 'h3'

/** The header in which whoever maintains a data folder shows that they can read it. */
export const MAINTAINER = 'x-rain-barrel-token'

/** What whoever asks has read in the data folder, if anything. */
export const shownToken = (event: H3Event): string | undefined => getRequestHeader(event, MAINTAINER)
