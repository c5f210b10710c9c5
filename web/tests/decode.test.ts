import { describe, expect, it } from 'vitest';
import { decoded } from '../src/lib/decode';

const bytes = (...all: number[]) => new Uint8Array(all).buffer;

describe('a file of a spreadsheet', () => {
  it('is read in every set of characters that spreadsheets write', () => {
    expect(decoded(bytes(0x52, 0xc3, 0xb8, 0x64))).toBe('Rød');
    expect(decoded(bytes(0x52, 0xf8, 0x64))).toBe('Rød');
    expect(decoded(bytes(0xff, 0xfe, 0x52, 0, 0xf8, 0, 0x64, 0))).toBe('Rød');
    expect(decoded(bytes(0xfe, 0xff, 0, 0x52, 0, 0xf8, 0, 0x64))).toBe('Rød');
    expect(decoded(bytes(0xef, 0xbb, 0xbf, 0x52))).toBe('R');
  });
});
