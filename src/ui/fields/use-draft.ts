'use client';

import { useEffect, useRef, useState } from 'react';
import { noteUnsaved } from './unsaved';

const REST_MILLISECONDS = 500;

/**
 * A text that saves itself when typing rests, and at once when the field is left. What somebody else has changed is taken
 * over unless it is being typed in here.
 */
export function useDraft(saved: string, save: (text: string) => Promise<boolean>) {
  const [text, setText] = useState(saved);
  const dirty = useRef(false);
  const note = (is: boolean) => {
    if (dirty.current !== is) noteUnsaved(is ? 1 : -1);
    dirty.current = is;
  };
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const newest = useRef(text);
  const underWay = useRef<string>(undefined);
  useEffect(() => {
    if (!dirty.current) setText(saved);
  }, [saved]);
  const flush = async () => {
    clearTimeout(timer.current);
    if (!dirty.current) return;
    const sending = newest.current;
    if (sending === underWay.current) return;
    underWay.current = sending;
    const done = await save(sending);
    underWay.current = undefined;
    // What was typed while it was being saved is still to be saved.
    if (done && newest.current === sending) note(false);
  };
  const flushNow = useRef(flush);
  flushNow.current = flush;
  const leave = useRef(() => {});
  leave.current = () => void flushNow.current().finally(() => note(false));
  useEffect(() => () => leave.current(), []);
  const change = (next: string) => {
    note(true);
    newest.current = next;
    setText(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void flushNow.current(), REST_MILLISECONDS);
  };
  return { text, change, flush };
}

/** A text as it is being typed. */
export type Draft = ReturnType<typeof useDraft>;
