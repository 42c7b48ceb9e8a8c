/** How numbers and dates are written: alike on screens, in files, mails and pictures, whatever a reader's own machine is set to. */
export const LOCALE = 'en-GB'
