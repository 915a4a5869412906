'use client';

import { Tooltip } from 'radix-ui';
import { useEffect, useState } from 'react';

const SHOW_MILLISECONDS = 450;
/** Long enough to bring the pointer over to it (WCAG 2.2, 1.4.13: hoverable). */
const HIDE_MILLISECONDS = 180;
const ID = 'tip';

interface Tip {
  says: string;
  element: HTMLElement;
}

/** The element that is told about, and whether the pointer is on what tells of it. */
function tipAt(target: EventTarget | null): Tip | 'the tip itself' | undefined {
  if (!(target instanceof Element)) return undefined;
  if (target.closest(`#${ID}`)) return 'the tip itself';
  const element = target.closest<HTMLElement>('[data-tip]');
  return element?.dataset.tip ? { element, says: element.dataset.tip } : undefined;
}

/** Tells what `data-tip` says of the element that the pointer rests on, or that has the focus of keys. One for a page. */
export function Tips() {
  const [tip, setTip] = useState<Tip>();
  useEffect(() => {
    const controller = new AbortController();
    const { signal } = controller;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const later = (next: Tip | undefined, milliseconds: number) => {
      clearTimeout(timer);
      timer = setTimeout(() => setTip(next), milliseconds);
    };
    const hide = () => later(undefined, 0);
    const hear = <K extends keyof DocumentEventMap>(name: K, heard: (event: DocumentEventMap[K]) => void) =>
      document.addEventListener(name, heard, { signal, capture: true, passive: true });
    hear('pointerover', ({ target }) => {
      const at = tipAt(target);
      if (at === 'the tip itself') clearTimeout(timer);
      else later(at, at ? SHOW_MILLISECONDS : HIDE_MILLISECONDS);
    });
    hear('focusin', ({ target }) => {
      const at = tipAt(target);
      if (target instanceof Element && target.matches(':focus-visible') && typeof at === 'object') later(at, 0);
    });
    // The pointer may rest on something since before the page was ready.
    const rests = tipAt(document.querySelector('[data-tip]:hover'));
    if (typeof rests === 'object') later(rests, SHOW_MILLISECONDS);
    hear('focusout', hide);
    hear('pointerdown', hide);
    hear('scroll', hide);
    return () => {
      clearTimeout(timer);
      controller.abort();
    };
  }, []);
  useEffect(() => {
    if (!tip) return;
    const before = tip.element.getAttribute('aria-describedby');
    tip.element.setAttribute('aria-describedby', before ? `${before} ${ID}` : ID);
    return () => {
      if (before) tip.element.setAttribute('aria-describedby', before);
      else tip.element.removeAttribute('aria-describedby');
    };
  }, [tip]);
  if (!tip?.element.isConnected) return null;
  const { left, top, width, height } = tip.element.getBoundingClientRect();
  return (
    <Tooltip.Provider>
      <Tooltip.Root open onOpenChange={(open) => !open && setTip(undefined)}>
        <Tooltip.Trigger asChild>
          <span aria-hidden className="pointer-events-none fixed" style={{ left, top, width, height }} />
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            id={ID}
            side="bottom"
            sideOffset={6}
            collisionPadding={8}
            className="z-60 max-w-[min(340px,92vw)] rounded-lg bg-rim px-2.5 py-1.5 text-[13px] text-card leading-snug shadow-lg [overflow-wrap:anywhere]"
          >
            {tip.says}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
