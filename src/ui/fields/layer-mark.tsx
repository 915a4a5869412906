import {
  type DefaultField,
  isListField,
  type LayerValues,
  type ListValue,
  type Source,
  sourceWords,
} from '@/core/defaults';

interface LayerMarkProps {
  from: readonly Source[];
  field: DefaultField;
  /** What is set on the layer that is being looked at. */
  own: LayerValues[DefaultField];
  /** Where it would come from without that. */
  beneath: readonly Source[];
  /** Sets it there; null leaves it to the layers beneath. */
  put: (value: unknown) => unknown;
  /** Layers above to which it may move, each in words: “for all of Plank by Plank”. */
  moves?: readonly { says: string; onMove: () => void }[];
}

const ACTION = 'text-copper underline decoration-dotted underline-offset-2 hover:decoration-solid';

/** Which layer gave a value, and what can be done about that. */
export function LayerMark({ from, field, own, beneath, put, moves = [] }: LayerMarkProps) {
  if (own === undefined && from.length === 0) return null;
  if (own === undefined) return <span>from {sourceWords(from)}</span>;
  const list = isListField(field) ? (own as ListValue<unknown>) : undefined;
  const turned = list && { ...list, way: list.way === 'add' ? 'replace' : 'add' };
  return (
    <span className="inline-flex flex-wrap gap-x-2.5">
      <span>{list ? (list.way === 'add' ? 'added here' : 'set here, in place of inherited ones') : 'set here'}</span>
      {turned && (
        <button type="button" onClick={() => put(turned)} className={ACTION}>
          {turned.way === 'add' ? 'Add to inherited ones' : 'Replace inherited ones'}
        </button>
      )}
      <button
        type="button"
        onClick={() => put(null)}
        title={beneath.length > 0 ? `back to ${sourceWords(beneath)}` : undefined}
        className={ACTION}
      >
        Reset
      </button>
      {moves.map(({ says, onMove }) => (
        <button key={says} type="button" onClick={onMove} className={ACTION}>
          {says}
        </button>
      ))}
    </span>
  );
}
