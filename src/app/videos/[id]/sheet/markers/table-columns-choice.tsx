'use client';

import { TABLE_COLUMNS, type TableColumn, type TableColumns } from '@/core/markers/table-columns';
import type { MarkerPreview } from '@/desk/video/markers';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';

const NAMES: Record<TableColumn, string> = {
  time: 'time or timecode',
  frame: 'frame',
  seconds: 'seconds',
  end: 'end',
  length: 'length',
  name: 'name',
  note: 'note',
  colour: 'colour',
};

interface ChoiceProps {
  table: NonNullable<MarkerPreview['table']>;
  onChoose: (columns: TableColumns) => void;
}

/** The first rows of a table, with what each column is taken for; what is chosen is read at once. */
export function TableColumnsChoice({ table, onChoose }: ChoiceProps) {
  const { rows, columns } = table;
  const wide = Math.max(...rows.map((row) => row.length));
  const taken = (index: number) => TABLE_COLUMNS.find((column) => columns[column] === index) ?? '';
  const choose = (index: number, column: TableColumn | '') => {
    const rest = Object.entries(columns).filter(([name, at]) => at !== index && name !== column);
    onChoose(Object.fromEntries(column === '' ? rest : [...rest, [column, index]]));
  };
  return (
    <div className="mb-3 overflow-x-auto rounded-lg bg-sunk p-2">
      <table className="text-left text-sm">
        <thead>
          <tr>
            {Array.from({ length: wide }, (_, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place alone
              <th key={index} className="px-2 py-1 font-normal">
                <Choose<TableColumn | ''>
                  label={`What column ${index + 1} is`}
                  value={taken(index)}
                  options={[['', 'not read'], ...TABLE_COLUMNS.map((column) => [column, NAMES[column]] as const)]}
                  onChange={(column) => choose(index, column)}
                  className={CHOOSE_SMALL}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.join('\u0000')}>
              {row.map((cell, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a cell is known by its place alone
                <td key={index} className="max-w-48 truncate px-2 py-0.5 text-soft">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
