/** What a column of a table can be. */
export const TABLE_COLUMNS = ['time', 'frame', 'seconds', 'end', 'length', 'name', 'note', 'colour'] as const;
export type TableColumn = (typeof TABLE_COLUMNS)[number];

/** Which column is what, counted from 0. */
export type TableColumns = Partial<Record<TableColumn, number>>;
