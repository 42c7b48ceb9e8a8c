// PostgreSQL's binary COPY: a signature, flags and an extension, both empty; then rows; then a count of −1.
/** What a binary copy begins with. */
export const COPY_HEAD = Buffer.from('PGCOPY\n\xFF\r\n\0\0\0\0\0\0\0\0\0', 'latin1')
/** Seconds from 1970 to 2000, where PostgreSQL's time begins. */
export const EPOCH_2000 = 946_684_800
