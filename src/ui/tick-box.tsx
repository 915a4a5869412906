import { Check } from 'lucide-react';
import { Checkbox } from 'radix-ui';
import { type ReactNode, useId } from 'react';

interface TickBoxProps {
  ticked: boolean;
  onTick: (ticked: boolean) => void;
  className?: string;
  children: ReactNode;
}

/** A box to tick with its words beside it; either can be pressed. */
export function TickBox({ ticked, onTick, className = '', children }: TickBoxProps) {
  const id = useId();
  return (
    <span className={`flex items-start gap-2 ${className}`}>
      <Checkbox.Root
        id={id}
        checked={ticked}
        onCheckedChange={(checked) => onTick(checked === true)}
        className="mt-px grid size-5 flex-none place-items-center rounded border-[1.5px] border-rim bg-paper"
      >
        <Checkbox.Indicator className="text-rim">
          <Check size={15} strokeWidth={3} aria-hidden />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="cursor-pointer">
        {children}
      </label>
    </span>
  );
}
