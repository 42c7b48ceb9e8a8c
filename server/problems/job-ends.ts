import { Expected } from './problem'

/** Ends the job with nobody knowing whether it was done: it is not repeated by itself. */
export class NotKnown extends Expected {}
/** The job is no longer this process's, or is wanted to stop. */
export class JobLost extends Expected {}
/** Somebody wants it to stop. */
export class JobStopped extends JobLost {}
