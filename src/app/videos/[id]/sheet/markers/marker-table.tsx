'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { CHOOSE_CHIP, Choose } from '@/ui/choose';
import { type PlacedMarker, useTimeLine } from '../time-line/time-line-state';
import { ExportMenu } from './export-menu';
import { MarkerBulk } from './marker-bulk';
import { MARKER_GRID, MarkerRow } from './marker-row';

const ROW_PIXELS = 40;

type SortBy = 'time' | 'name' | 'note' | 'colour';

/** Markers that fit the filter, sorted. */
function listed(markers: PlacedMarker[], text: string, colour: string, by: SortBy): PlacedMarker[] {
  const words = text.trim().toLocaleLowerCase();
  const fits = markers.filter(
    (marker) =>
      (colour === '*' || marker.colour === colour) &&
      (words === '' || `${marker.name} ${marker.note}`.toLocaleLowerCase().includes(words)),
  );
  return by === 'time' ? fits : fits.sort((a, b) => a[by].localeCompare(b[by]) || a.seconds - b.seconds);
}

/** Every marker in a table: filtered, sorted, changed in place, jumped to, several changed at once. */
export function MarkerTable() {
  const { handle, markers } = useTimeLine();
  const [text, setText] = useState('');
  const [colour, setColour] = useState('*');
  const [by, setBy] = useState<SortBy>('time');
  const [selected, setSelected] = useState(new Set<string>());
  const rows = useMemo(() => listed(markers, text, colour, by), [markers, text, colour, by]);
  const colours = useMemo(() => [...new Set(markers.map((marker) => marker.colour))], [markers]);
  const chosen = useMemo(() => rows.filter((marker) => selected.has(marker.id)), [rows, selected]);
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PIXELS,
    getItemKey: (index) => rows[index]?.id ?? index,
    overscan: 8,
  });
  if (markers.length === 0) return null;
  const select = (id: string, wanted: boolean) => {
    const next = new Set(selected);
    if (wanted) next.add(id);
    else next.delete(id);
    setSelected(next);
  };
  const head = (name: string, sorts: SortBy) => (
    <button
      type="button"
      onClick={() => setBy(sorts)}
      aria-pressed={by === sorts}
      className={`text-left text-[13px] ${by === sorts ? 'font-semibold text-ink' : 'text-soft'} hover:underline`}
    >
      {name}
      {by === sorts && ' ↓'}
    </button>
  );
  return (
    <div id="markers" className="overflow-hidden">
      <header className="flex flex-wrap items-center gap-2.5 px-3.5 py-2.5">
        <span className="text-[13px] text-soft">
          {rows.length === markers.length ? markers.length : `${rows.length} of ${markers.length}`}
        </span>
        <input
          type="search"
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder="Find in names and notes"
          aria-label="Find in names and notes"
          className="ml-auto w-52 rounded-full border border-edge bg-card px-3.5 py-1 text-sm"
        />
        <Choose
          label="Only this colour"
          value={colour}
          options={[['*', 'every colour'], ...colours.map((each) => [each, each || 'no colour'] as const)]}
          onChange={setColour}
          className={CHOOSE_CHIP}
        />
        <ExportMenu videoId={handle.sheet.id} />
      </header>
      {chosen.length > 0 && <MarkerBulk chosen={chosen} onForget={() => setSelected(new Set())} />}
      <div className="overflow-x-auto">
        <div className="sm:min-w-[760px]">
          <div className={`${MARKER_GRID} border-line border-y py-1.5 max-sm:hidden`}>
            <input
              type="checkbox"
              aria-label="Choose all that are shown"
              checked={chosen.length > 0 && chosen.length === rows.length}
              onChange={(event) => setSelected(new Set(event.target.checked ? rows.map((marker) => marker.id) : []))}
              className="size-4 accent-[var(--rim)]"
            />
            {head('Time', 'time')}
            {head('Name', 'name')}
            {head('Note', 'note')}
            {head('Colour', 'colour')}
            <span className="text-[13px] text-soft">For viewers</span>
          </div>
          <div ref={scroll} className="max-h-[280px] overflow-y-auto max-sm:max-h-[60vh]">
            <div className="relative" style={{ height: virtual.getTotalSize() }}>
              {virtual.getVirtualItems().map((item) => {
                const marker = rows[item.index];
                if (!marker) return null;
                return (
                  <div
                    key={marker.id}
                    ref={virtual.measureElement}
                    data-index={item.index}
                    className="absolute inset-x-0"
                    style={{ top: item.start }}
                  >
                    <MarkerRow
                      marker={marker}
                      chosen={selected.has(marker.id)}
                      onChoose={(wanted) => select(marker.id, wanted)}
                    />
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      </div>
    </div>
  );
}
