/** Whether a key goes into a text that is being typed, and is not ours to take. */
export function isTyping(target: EventTarget | null): boolean {
  const fields = 'input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable]';
  return target instanceof HTMLElement && target.closest(fields) !== null;
}
