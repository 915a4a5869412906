'use client';

import { ChevronFirst, ChevronLast, Keyboard, MapPinPlus, StepBack, StepForward } from 'lucide-react';
import type { ReactNode } from 'react';

interface TransportButtonsProps {
  onAdd: () => void;
  onBack: () => void;
  onNext: () => void;
  onIn: () => void;
  onOut: () => void;
  onKeys: () => void;
}

/** What the keys do, for a mouse and for a finger. */
export function TransportButtons({ onAdd, onBack, onNext, onIn, onOut, onKeys }: TransportButtonsProps) {
  return (
    <fieldset aria-label="Time line" className="flex flex-wrap gap-1 border-line border-t px-2.5 py-1.5">
      <Act onPress={onAdd} icon={<MapPinPlus size={16} />} says="Add a marker" />
      <Act onPress={onBack} icon={<StepBack size={16} />} says="Marker before" />
      <Act onPress={onNext} icon={<StepForward size={16} />} says="Marker after" />
      <Act onPress={onIn} icon={<ChevronFirst size={16} />} says="Begins here" />
      <Act onPress={onOut} icon={<ChevronLast size={16} />} says="Ends here" />
      <Act onPress={onKeys} icon={<Keyboard size={16} />} says="Keys" />
    </fieldset>
  );
}

function Act({ onPress, icon, says }: { onPress: () => void; icon: ReactNode; says: string }) {
  return (
    <button
      type="button"
      onClick={onPress}
      className="flex min-h-8 items-center gap-1.5 rounded-full px-2.5 text-[13px] text-copper hover:bg-copper-wash"
    >
      {icon}
      {says}
    </button>
  );
}
