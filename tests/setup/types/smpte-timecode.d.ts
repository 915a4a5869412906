declare module 'smpte-timecode' {
  /** A timecode object of the package, as far as it is used here. */
  export default function timecode(
    frames: number,
    rate: 29.97 | 59.94,
    dropFrame: boolean,
  ): {
    toString(): string;
    add(frames: number): unknown;
  };
}
