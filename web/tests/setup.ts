import '@testing-library/jest-dom/vitest';

// jsdom knows no media queries; nothing here depends on one
window.matchMedia ??= (media: string) =>
  ({ media, matches: false, addEventListener: () => undefined, removeEventListener: () => undefined }) as unknown as MediaQueryList;

// what jsdom lacks: nothing has a size there, and nothing scrolls
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
Element.prototype.scrollIntoView ??= () => {};
