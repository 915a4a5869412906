/** Pixels, width by height. */
export interface Size {
  width: number;
  height: number;
}
