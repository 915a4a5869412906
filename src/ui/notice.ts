/** Something that is said to the person at the page. */
export interface Notice {
  id: number;
  kind: 'said' | 'trouble';
  text: string;
}
