import { fireEvent, render, screen } from '@testing-library/svelte';
import { createRawSnippet, tick } from 'svelte';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import ManyRows from '../src/parts/ManyRows.svelte';

interface Line {
  name: string;
  tall: boolean;
}
const lines = (count: number): Line[] =>
  Array.from({ length: count }, (_, i) => ({ name: `ard-srv-${i + 1}`, tall: i % 10 === 0 }));
const head = createRawSnippet(() => ({ render: () => '<tr><th>Unit</th></tr>' }));
const row = createRawSnippet((item: () => Line) => ({ render: () => `<tr><td>${item().name}</td></tr>` }));

function shown(items: Line[]) {
  return render(ManyRows, {
    items,
    key: (line: unknown) => (line as Line).name,
    head,
    row: row as never,
    cols: 1,
    height: (line: unknown) => ((line as Line).tall ? 50 : 30),
    label: 'Units',
  });
}

const names = () => [...document.querySelectorAll('tbody tr:not(.room)')].map((each) => each.textContent);
const rooms = () => [...document.querySelectorAll<HTMLElement>('tr.room')].map((each) => parseInt(each.style.height));

describe('a table of many rows', () => {
  // nothing has a size in jsdom
  const sizeless = Object.getOwnPropertyDescriptor(Element.prototype, 'clientHeight')!;
  beforeAll(() => Object.defineProperty(Element.prototype, 'clientHeight', { configurable: true, value: 600 }));
  afterAll(() => Object.defineProperty(Element.prototype, 'clientHeight', sizeless));

  it('draws all of a few', () => {
    shown(lines(150));
    expect(names()).toHaveLength(150);
    expect(rooms()).toEqual([]);
  });

  it('draws of thousands only what is in sight, and says how many there are', () => {
    shown(lines(5000));
    expect(names().length).toBeLessThan(60);
    expect(names()[0]).toBe('ard-srv-1');
    expect(screen.getByRole('table')).toHaveAttribute('aria-rowcount', '5001');
  });

  it('is as high as all of its rows wherever it is scrolled to', async () => {
    shown(lines(5000));
    const whole = 500 * 50 + 4500 * 30;
    const box = screen.getByRole('region', { name: 'Units' });
    for (const top of [0, 64_000, whole - 600, whole]) {
      box.scrollTop = top;
      await fireEvent.scroll(box);
      const drawn = names()
        .map((name) => (Number(name.split('-')[2]) % 10 === 1 ? 50 : 30))
        .reduce((sum, height) => sum + height, 0);
      expect(rooms().reduce((sum, height) => sum + height, 0) + drawn).toBe(whole);
    }
    expect(names().at(-1)).toBe('ard-srv-5000');
  });

  it('draws the rows at the height that it is scrolled to', async () => {
    shown(lines(5000));
    const box = screen.getByRole('region', { name: 'Units' });
    box.scrollTop = 100 * (50 + 9 * 30);
    await fireEvent.scroll(box);
    expect(names()).toContain('ard-srv-1001');
    expect(names()).not.toContain('ard-srv-1');
  });

  it('brings a row into sight, and leaves it where it is seen already', async () => {
    const component = shown(lines(5000)).component as unknown as { show: (index: number) => void };
    const box = screen.getByRole('region', { name: 'Units' });
    component.show(3);
    expect(box.scrollTop).toBe(0);
    component.show(4999);
    await fireEvent.scroll(box);
    expect(names()).toContain('ard-srv-5000');
  });

  it('stands as a whole on paper, and in its window again afterwards', async () => {
    shown(lines(400));
    expect(names().length).toBeLessThan(60);
    window.dispatchEvent(new Event('beforeprint'));
    expect(names()).toHaveLength(400);
    window.dispatchEvent(new Event('afterprint'));
    await tick();
    expect(names().length).toBeLessThan(60);
  });

  it('is reached by keyboard', () => {
    shown(lines(3));
    expect(screen.getByRole('region', { name: 'Units' })).toHaveAttribute('tabindex', '0');
  });
});
