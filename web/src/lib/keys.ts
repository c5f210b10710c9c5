/**
 * Keys of a view. A key is a character or a name as in KeyboardEvent.key; while somebody types in a field none is
 * heard.
 */
export type Keys = Record<string, () => void>;

export function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.matches('input, textarea, select, [contenteditable]') || target.closest('dialog[open]') !== null)
  );
}

/** A listener for `<svelte:window onkeydown>`. */
export function onKeys(keys: Keys) {
  return (event: KeyboardEvent): void => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
    const action = keys[event.key];
    const onControl = event.target instanceof HTMLElement && event.target.matches('button, a') && event.key === 'Enter';
    if (action && !onControl) {
      event.preventDefault();
      action();
    }
  };
}
