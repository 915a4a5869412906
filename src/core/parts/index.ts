export { byGroup, declaredInWords, GROUP_OF } from './declared';
export type { PartLine, TakenOver, WantedFrom } from './part';
export type { SheetPlace } from './place';
export { isPartName, PARTS, partNames } from './registry';
export { asText, isSame } from './same';
export * from './shown';
export * from './take-over';
export * from './values';
export * from './walk';
