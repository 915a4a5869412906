'use client';

import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import type { SheetPlace } from '@/core/parts';
import { useTimeLine } from '../time-line/time-line-state';
import type { SheetHandle } from '../use-sheet';
import { type SectionState, sectionStates } from './section-states';
import { SECTIONS, type SectionId, sectionAnchor, sectionOf } from './sections';

type Folds = Partial<Record<SectionId, boolean>>;

interface SectionsState {
  states: Record<SectionId, SectionState>;
  isOpen: (id: SectionId) => boolean;
  setOpen: (id: SectionId, open: boolean) => void;
  /** Whether every section is open, here and on the Sheets that are opened later. */
  allOpen: boolean;
  setAllOpen: (open: boolean) => void;
  /** Takes the eye, and the keyboard, to a place; its section is opened for that. */
  goTo: (place: SheetPlace) => void;
  goToSection: (id: SectionId) => void;
  /** The section that is being read. */
  here: SectionId;
}

const Context = createContext<SectionsState | undefined>(undefined);

/** The sections of this Sheet: how each stands, which are open, and how to get to one. */
export function useSections(): SectionsState {
  const state = useContext(Context);
  if (!state) throw new Error('A section stands outside a Sheet');
  return state;
}

const ALL_OPEN = 'sheet sections all open';
const foldsKey = (videoId: string) => `sheet sections ${videoId}`;

/** Keeps what is open: of this video in this tab what was opened by hand, else what asks for work. */
export function SectionsProvider({ handle, children }: { handle: SheetHandle; children: ReactNode }) {
  const { sheet } = handle;
  const { markers, chapters } = useTimeLine();
  const states = useMemo(
    () => sectionStates(sheet, { markers: markers.length, chapters: chapters.length }),
    [sheet, markers.length, chapters.length],
  );
  // What asks for work when the Sheet is opened is open; nothing folds or opens under somebody's hands.
  const [first] = useState(() => new Set(SECTIONS.filter((id) => states[id].asksForWork)));
  const [folds, setFolds] = useState<Folds>({});
  const [allOpen, setAll] = useState(false);
  const [here, setHere] = useState<SectionId>('file');
  useEffect(() => {
    setFolds(JSON.parse(sessionStorage.getItem(foldsKey(sheet.id)) ?? '{}') as Folds);
    setAll(localStorage.getItem(ALL_OPEN) === 'yes');
  }, [sheet.id]);
  const isOpen = (id: SectionId) => folds[id] ?? (allOpen || first.has(id));
  const keep = (next: Folds) => {
    setFolds(next);
    sessionStorage.setItem(foldsKey(sheet.id), JSON.stringify(next));
  };
  const setOpen = (id: SectionId, open: boolean) => keep({ ...folds, [id]: open });
  const setAllOpen = (open: boolean) => {
    keep(open ? {} : Object.fromEntries(SECTIONS.map((id) => [id, false])));
    setAll(open);
    localStorage.setItem(ALL_OPEN, open ? 'yes' : 'no');
  };
  const looking = useRef(0);
  /** Waits for what is to be shown, since a section that was folded has to be loaded first. */
  const reach = useCallback((find: () => HTMLElement | null, block: ScrollLogicalPosition) => {
    cancelAnimationFrame(looking.current);
    const until = performance.now() + 4000;
    const look = () => {
      const target = find();
      if (!target || target.closest('[hidden]')) {
        if (performance.now() < until) looking.current = requestAnimationFrame(look);
        return;
      }
      const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
      target.scrollIntoView({ block, behavior: calm ? 'auto' : 'smooth' });
      target.focus({ preventScroll: true });
    };
    look();
  }, []);
  const goToSection = (id: SectionId) => {
    if (!isOpen(id)) setOpen(id, true);
    setHere(id);
    reach(() => document.querySelector<HTMLElement>(`#${sectionAnchor(id)} h2 button`), 'start');
  };
  const goTo = (place: SheetPlace) => {
    const id = sectionOf(place);
    if (!isOpen(id)) setOpen(id, true);
    reach(() => document.getElementById(place) ?? document.getElementById(sectionAnchor(id)), 'center');
  };

  useEffect(() => {
    // The one that lies under the bar on top is being read.
    const watch = new IntersectionObserver(
      (entries) => {
        for (const { isIntersecting, target } of entries) {
          const id = SECTIONS.find((each) => sectionAnchor(each) === target.id);
          if (isIntersecting && id) setHere(id);
        }
      },
      { rootMargin: '-120px 0px -75% 0px' },
    );
    for (const id of SECTIONS) {
      const section = document.getElementById(sectionAnchor(id));
      if (section) watch.observe(section);
    }
    return () => watch.disconnect();
  }, []);

  const value = { states, isOpen, setOpen, allOpen, setAllOpen, goTo, goToSection, here };
  return <Context.Provider value={value}>{children}</Context.Provider>;
}
