/** A reply that was written where it was made: JSON in UTF-8, so that nothing large becomes objects on its way. */
export class JsonBytes<T> {
  /** What it says, for the types. */
  declare readonly says?: T
  constructor(readonly bytes: Uint8Array | string) {}
}
