/** A reply that was written where it was made: JSON in UTF-8, so that nothing large becomes objects on its way. */
export class JsonBytes<T> {
  /** What it says, for the types. */
  declare readonly says?: T
  constructor(readonly bytes: Uint8Array | string) {}

  /** What it says as an object, for what is made of it here. */
  read(): T {
    return JSON.parse(typeof this.bytes === 'string' ? this.bytes : Buffer.from(this.bytes).toString('utf8')) as T
  }
}
