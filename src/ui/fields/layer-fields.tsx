'use client';

import { type DefaultField, FIELD_NAMES, type InForce, type LayerValues, valueOver } from '@/core/defaults';
import type { SaveEnd } from '../saving/use-acts';
import { FieldRow } from './field-row';
import { LayerMark } from './layer-mark';
import { type FieldStock, ValueControl } from './value-control';

interface LayerFieldsProps {
  /** Which fields, in their order. */
  fields: readonly DefaultField[];
  /** What goes before each field's id. */
  at: string;
  own: LayerValues;
  beneath: InForce;
  stock: FieldStock;
  /** Sets a field on this layer; null leaves it to those beneath. */
  put: (field: DefaultField, value: unknown, on?: unknown) => Promise<SaveEnd>;
  /** What the browser keeps texts under until they are saved. */
  keptAs: string;
  /** Layers above to which a field may move. */
  moves?: (field: DefaultField) => { says: string; onMove: () => void }[];
}

/** A field's name at the head of a row. */
export const fieldLabel = (field: DefaultField) => {
  const name = FIELD_NAMES[field];
  return name.charAt(0).toUpperCase() + name.slice(1);
};

/** Fields of one layer: each with what is in force there, and which layer gave it. */
export function LayerFields({ fields, at, own, beneath, stock, put, keptAs, moves }: LayerFieldsProps) {
  return fields.map((field) => {
    const id = `${at}${field}`;
    const under = beneath[field];
    const set = own[field] !== undefined;
    return (
      <FieldRow
        key={field}
        id={id}
        label={fieldLabel(field)}
        mark={
          (set || under.from.length > 0) && (
            <LayerMark
              from={under.from}
              field={field}
              own={own[field]}
              beneath={under.from}
              put={(value) => void put(field, value)}
              moves={moves?.(field)}
            />
          )
        }
      >
        <ValueControl
          id={id}
          field={field}
          label={fieldLabel(field)}
          value={valueOver(field, under.value, own[field])}
          own={own[field]}
          beneath={under.value}
          stock={stock}
          keptAs={`${keptAs} ${field}`}
          put={(value, on) => put(field, value, on)}
        />
      </FieldRow>
    );
  });
}
