import { useHydrated } from '../use-hydrated';

interface ChoiceCardsProps<V> {
  /** The name that its radio buttons share. */
  name: string;
  /** What is chosen; undefined where nothing is yet. */
  chosen: V | undefined;
  options: readonly { value: V; name: string; says: string }[];
  onChoose: (value: V) => void;
  className?: string;
}

/** One of a few, each on a card with what it means. */
export function ChoiceCards<V>({ name, chosen, options, onChoose, className = '' }: ChoiceCardsProps<V>) {
  // What is chosen before the page takes it would be lost without a word.
  const takesChoices = useHydrated();
  return (
    <div className="flex flex-wrap gap-2">
      {options.map((option) => {
        const look = option.value === chosen ? 'border-[1.5px] border-rim bg-held-wash' : 'border-edge bg-card';
        return (
          <label
            key={option.name}
            className={`grid cursor-pointer grid-cols-[auto_minmax(0,1fr)] content-start gap-x-2 rounded-lg border px-3 py-2 has-focus-visible:outline-2 ${look} ${className}`}
          >
            <input
              type="radio"
              name={name}
              className="mt-1 self-start accent-[var(--rim)]"
              checked={option.value === chosen}
              disabled={!takesChoices}
              onChange={() => onChoose(option.value)}
            />
            <b className="font-semibold">{option.name}</b>
            <span className="col-start-2 text-[13px] text-soft">{option.says}</span>
          </label>
        );
      })}
    </div>
  );
}
