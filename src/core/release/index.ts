export * from './agreement';
export type { DateOrder } from './date-orders';
export * from './in-words';
export * from './moment';
export * from './opening';
export * from './rhythm';
export * from './said';
export { resolved, type SaidChoice, type SaidTime } from './said-time';
export * from './site-dates';
