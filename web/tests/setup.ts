import '@testing-library/jest-dom/vitest';
import { configure } from '@testing-library/svelte';

// a slow machine makes nothing fail: what is waited for is there within milliseconds, or never
configure({ asyncUtilTimeout: 20_000 });

// jsdom knows no media queries; nothing here depends on one
window.matchMedia ??= (media: string) =>
  ({
    media,
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }) as unknown as MediaQueryList;

// what jsdom lacks: nothing has a size there, and nothing scrolls
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
Element.prototype.scrollIntoView ??= () => {};
// the router looks which links are in sight
globalThis.IntersectionObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
} as unknown as typeof IntersectionObserver;
HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
  this.open = true;
};
