import '@testing-library/jest-dom/vitest';

// jsdom knows no media queries; nothing here depends on one
window.matchMedia ??= (media: string) =>
  ({ media, matches: false, addEventListener: () => undefined, removeEventListener: () => undefined }) as unknown as MediaQueryList;
