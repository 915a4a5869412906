'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { X } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import type { MarkerView } from '@/desk/views';
import { Button } from '@/ui/button';
import { ExportMenu } from './export-menu';
import { usePlayer } from './player-state';
import { useDraft } from './use-draft';
import type { SheetHandle } from './use-sheet';

const COLOURS = ['red', 'orange', 'yellow', 'green', 'cyan', 'blue', 'purple', 'pink', 'white', 'black'];
const ROW_PIXELS = 40;
const GRID = 'grid grid-cols-[28px_108px_minmax(120px,1.4fr)_minmax(80px,1fr)_104px_28px] items-center gap-2 px-3.5';
const CELL =
  '-ml-2.5 w-[calc(100%+10px)] rounded-md border border-transparent bg-transparent px-2 py-1 hover:border-line focus:border-line focus:bg-paper';

type SortBy = 'time' | 'name' | 'colour';

/** Markers that fit the filter, sorted. */
function listed(markers: MarkerView[], text: string, colour: string, by: SortBy): MarkerView[] {
  const words = text.trim().toLocaleLowerCase();
  const fits = markers.filter(
    (marker) =>
      (colour === '*' || marker.colour === colour) &&
      `${marker.name} ${marker.note}`.toLocaleLowerCase().includes(words),
  );
  return by === 'time' ? fits : fits.sort((a, b) => a[by].localeCompare(b[by]) || a.seconds - b.seconds);
}

/** Every marker in a table: filtered, sorted, changed in place, jumped to, several changed at once. */
export function MarkerTable({ handle }: { handle: SheetHandle }) {
  const { sheet, changeMarkers } = handle;
  const [text, setText] = useState('');
  const [colour, setColour] = useState('*');
  const [by, setBy] = useState<SortBy>('time');
  const [selected, setSelected] = useState(new Set<string>());
  const rows = useMemo(() => listed(sheet.markers, text, colour, by), [sheet.markers, text, colour, by]);
  const chosen = rows.filter((marker) => selected.has(marker.id));
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PIXELS,
    overscan: 8,
  });
  if (sheet.markers.length === 0) return null;
  const occurring = [...new Set(sheet.markers.map((marker) => marker.colour))];
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
    <section aria-label="Markers" className="enamel overflow-hidden">
      <header className="flex flex-wrap items-center gap-2.5 px-3.5 py-2.5">
        <h2>Markers</h2>
        <span className="text-[13px] text-soft">
          {rows.length === sheet.markers.length ? sheet.markers.length : `${rows.length} of ${sheet.markers.length}`}
        </span>
        <input
          type="search"
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder="Find in names and notes"
          aria-label="Find in names and notes"
          className="ml-auto w-52 rounded-full border border-line bg-paper px-3.5 py-1 text-sm"
        />
        <select
          value={colour}
          onChange={(event) => setColour(event.target.value)}
          aria-label="Only this colour"
          className="rounded-full border border-line bg-paper px-3 py-1 text-sm"
        >
          <option value="*">every colour</option>
          {occurring.map((each) => (
            <option key={each} value={each}>
              {each || 'no colour'}
            </option>
          ))}
        </select>
        <ExportMenu videoId={sheet.id} />
      </header>
      {chosen.length > 0 && (
        <div className="flex flex-wrap items-center gap-3 bg-held-wash px-3.5 py-2 text-sm">
          <b>{chosen.length} chosen</b>
          <ColourChoice
            value=""
            label="Colour of those chosen"
            first="give them a colour"
            onChoose={(next) => changeMarkers({ put: chosen.map((marker) => ({ ...put(marker), colour: next })) })}
          />
          <Button look="plain" onClick={() => changeMarkers({ remove: chosen.map((marker) => marker.id) })}>
            Take them away
          </Button>
          <Button look="plain" onClick={() => setSelected(new Set())}>
            Choose none
          </Button>
        </div>
      )}
      <div className="overflow-x-auto">
        <div className="min-w-[600px]">
          <div className={`${GRID} border-line border-b py-1`}>
            <input
              type="checkbox"
              aria-label="Choose all that are listed"
              checked={rows.length > 0 && chosen.length === rows.length}
              onChange={(event) => setSelected(new Set(event.target.checked ? rows.map((marker) => marker.id) : []))}
              className="size-4 accent-[var(--rim)]"
            />
            {head('Time', 'time')}
            {head('Name', 'name')}
            <span className="text-[13px] text-soft">Note</span>
            {head('Colour', 'colour')}
          </div>
          <div ref={scroll} className="max-h-[280px] overflow-y-auto">
            <div className="relative" style={{ height: virtual.getTotalSize() }}>
              {virtual.getVirtualItems().map((item) => {
                const marker = rows[item.index];
                if (!marker) return null;
                return (
                  <div key={marker.id} className="absolute inset-x-0" style={{ top: item.start, height: ROW_PIXELS }}>
                    <MarkerRow
                      marker={marker}
                      chosen={selected.has(marker.id)}
                      onChoose={(wanted) => select(marker.id, wanted)}
                      handle={handle}
                    />
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      </div>
    </section>
  );
}

/** A marker as it is put again with something changed. */
const put = ({ id, time, name, note, colour, hidden }: MarkerView) => ({ id, time, name, note, colour, hidden });

interface RowProps {
  marker: MarkerView;
  chosen: boolean;
  onChoose: (wanted: boolean) => void;
  handle: SheetHandle;
}

function MarkerRow({ marker, chosen, onChoose, handle }: RowProps) {
  const { seek, timecode } = usePlayer();
  const { changeMarkers } = handle;
  const name = useDraft(marker.name, (text) => changeMarkers({ put: [{ ...put(marker), name: text }] }));
  const note = useDraft(marker.note, (text) => changeMarkers({ put: [{ ...put(marker), note: text }] }));
  const here = timecode === marker.timecode;
  return (
    <div className={`${GRID} h-full border-line border-b ${here ? 'bg-copper-wash' : ''}`}>
      <input
        type="checkbox"
        aria-label={`Choose the marker at ${marker.timecode}`}
        checked={chosen}
        onChange={(event) => onChoose(event.target.checked)}
        className="size-4 accent-[var(--rim)]"
      />
      <button
        type="button"
        onClick={() => seek(marker.seconds + 0.001)}
        className="text-left font-mono text-sm hover:underline"
      >
        {marker.timecode}
      </button>
      <input
        value={name.text}
        onChange={(event) => name.change(event.target.value)}
        onBlur={name.flush}
        aria-label={`Name of the marker at ${marker.timecode}`}
        className={CELL}
      />
      <input
        value={note.text}
        onChange={(event) => note.change(event.target.value)}
        onBlur={note.flush}
        aria-label={`Note of the marker at ${marker.timecode}`}
        className={`${CELL} text-soft`}
      />
      <ColourChoice
        value={marker.colour}
        label={`Colour of the marker at ${marker.timecode}`}
        first="no colour"
        onChoose={(colour) => changeMarkers({ put: [{ ...put(marker), colour }] })}
      />
      <button
        type="button"
        aria-label={`Take away the marker at ${marker.timecode}`}
        onClick={() => changeMarkers({ remove: [marker.id] })}
        className="rounded p-1 text-soft hover:text-snag"
      >
        <X size={15} />
      </button>
    </div>
  );
}

interface ChoiceProps {
  value: string;
  label: string;
  first: string;
  onChoose: (colour: string) => void;
}

function ColourChoice({ value, label, first, onChoose }: ChoiceProps) {
  const colours = value === '' || COLOURS.includes(value) ? COLOURS : [value, ...COLOURS];
  return (
    <select
      value={value}
      aria-label={label}
      onChange={(event) => onChoose(event.target.value)}
      className="w-full max-w-44 rounded-md border border-line bg-paper px-1.5 py-1 text-sm"
    >
      <option value="">{first}</option>
      {colours.map((colour) => (
        <option key={colour} value={colour}>
          {colour}
        </option>
      ))}
    </select>
  );
}
