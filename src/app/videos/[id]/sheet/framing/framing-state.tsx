'use client';

import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import type { Shape } from '@/core/framing';

interface FramingState {
  /** The shape whose frame is being placed on the player; undefined while the chapters stand beside it. */
  shape: Shape | undefined;
  setShape(shape: Shape | undefined): void;
}

const Context = createContext<FramingState>({ shape: undefined, setShape: () => {} });

/** Whether a frame is being placed, and which. */
export const useFraming = () => useContext(Context);

/** Shares which frame is being placed between the files that go out and the player. */
export function FramingProvider({ children }: { children: ReactNode }) {
  const [shape, setShape] = useState<Shape>();
  const value = useMemo(() => ({ shape, setShape }), [shape]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
