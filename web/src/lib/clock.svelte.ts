import { createSubscriber } from 'svelte/reactivity';

/** The present, told again every second while something on the screen looks at it. */
const subscribe = createSubscriber((update) => {
  const timer = setInterval(update, 1000);
  return () => clearInterval(timer);
});

export const present = {
  get now(): number {
    subscribe();
    return Date.now();
  },
};
