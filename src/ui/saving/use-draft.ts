'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 as newId } from 'uuid';
import { draftsLeft, forgetDraft, type KeptDraft, keepDraft, slotOf } from './kept-drafts';
import { noteUnsaved, registerDraft } from './unsaved';
import type { SaveEnd } from './use-acts';

/** Typing that rests for so long is saved, and typing that goes on is saved this often. */
const REST_MILLISECONDS = 500;
const LONGEST_MILLISECONDS = 2000;
/** Another window's text that is younger than this is still being typed there. */
const LEFT_MILLISECONDS = 8000;

interface DraftOptions {
  /** What the browser keeps it under until it is saved; without one it is not kept there. */
  key?: string;
  /** The value as the server has it, where that is another than the text shown. */
  raw?: unknown;
  /** What the server keeps for an empty text. */
  empty?: unknown;
}

/**
 * A text that saves itself while it is typed and when it rests, and at once when the field is left. What somebody else has
 * changed is taken over unless it is being typed in here. Until it is saved the browser keeps it, and offers it at return.
 * @param save gets the text and the value that it was typed over
 */
export function useDraft(
  saved: string,
  save: (text: string, on: unknown) => Promise<SaveEnd>,
  { key, raw = saved, empty = '' }: DraftOptions = {},
) {
  const [text, setText] = useState(saved);
  const [left, setLeft] = useState<KeptDraft>();
  const dirty = useRef(false);
  const newest = useRef(text);
  const base = useRef(raw);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const since = useRef<number>(undefined);
  const underWay = useRef<Promise<boolean>>(undefined);
  const savedNow = useRef(saved);
  savedNow.current = saved;
  const slot = useMemo(() => (key === undefined ? undefined : slotOf(key, newId())), [key]);

  const note = useCallback((is: boolean) => {
    if (dirty.current !== is) noteUnsaved('drafts', is ? 1 : -1);
    dirty.current = is;
  }, []);

  useEffect(() => {
    if (dirty.current) return;
    base.current = raw;
    newest.current = saved;
    setText(saved);
  }, [saved, raw]);

  useEffect(() => {
    if (key === undefined) return;
    const look = () => {
      const [kept] = draftsLeft(key, slot ?? '');
      if (!kept) return setLeft(undefined);
      const age = Date.now() - kept.at;
      if (age < LEFT_MILLISECONDS) {
        later = setTimeout(look, LEFT_MILLISECONDS - age);
        return;
      }
      if (kept.text !== savedNow.current) return setLeft(kept);
      // It is saved after all.
      forgetDraft(kept.slot);
      look();
    };
    let later: ReturnType<typeof setTimeout> | undefined;
    look();
    return () => clearTimeout(later);
  }, [key, slot]);

  const saveNow = async (): Promise<boolean> => {
    while (dirty.current) {
      const sending = newest.current;
      since.current = undefined;
      const end = await save(sending, base.current);
      if (end === 'refused') return false;
      if (end === 'theirs') {
        note(false);
        if (slot !== undefined) forgetDraft(slot);
        setText(savedNow.current);
        newest.current = savedNow.current;
        return true;
      }
      base.current = sending === '' ? empty : sending;
      // What was typed while it was being saved is still to be saved.
      if (newest.current !== sending) continue;
      note(false);
      if (slot !== undefined) forgetDraft(slot);
    }
    return true;
  };
  const saveLatest = useRef(saveNow);
  saveLatest.current = saveNow;

  /** Saves what is not saved; whether it is saved then is returned. */
  const flush = useCallback((): Promise<boolean> => {
    clearTimeout(timer.current);
    underWay.current ??= saveLatest.current().finally(() => {
      underWay.current = undefined;
    });
    return underWay.current;
  }, []);

  useEffect(() => registerDraft(flush), [flush]);
  // The field goes, its text does not: what was typed last is saved after it.
  useEffect(() => () => void flush().finally(() => note(false)), [flush, note]);

  const change = (next: string) => {
    note(true);
    newest.current = next;
    setText(next);
    if (slot !== undefined) keepDraft(slot, next);
    clearTimeout(timer.current);
    since.current ??= Date.now();
    const most = since.current + LONGEST_MILLISECONDS - Date.now();
    timer.current = setTimeout(() => void flush(), Math.max(0, Math.min(REST_MILLISECONDS, most)));
  };

  const offer = left && {
    text: left.text,
    take: () => {
      setLeft(undefined);
      forgetDraft(left.slot);
      change(left.text);
    },
    drop: () => {
      setLeft(undefined);
      forgetDraft(left.slot);
    },
  };
  return { text, change, flush, offer };
}

/** A text as it is being typed. */
export type Draft = ReturnType<typeof useDraft>;
