export { byGroup } from './declared';
export type { FittedTexts, WantedFrom } from './part';
export type { SheetPlace } from './place';
export { isPartName, PARTS, partNames } from './registry';
export { isSame } from './same';
export * from './shown';
export * from './take-over';
export * from './values';
export * from './walk';
