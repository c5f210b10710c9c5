import { render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { onKeys } from '../src/lib/keys';
import { lasting } from '../src/lib/time';
import Ladder from '../src/parts/Ladder.svelte';
import Mark from '../src/parts/Mark.svelte';

describe('the ladder', () => {
  it('says how many rungs pass and which one fails', () => {
    render(Ladder, {
      standings: ['HOLDS', 'HOLDS', 'BROKEN', 'NOT_REACHED', 'NOT_REACHED', 'NOT_REACHED', 'NOT_REACHED'],
    });
    expect(screen.getByRole('img')).toHaveAccessibleName('2 of 7 rungs pass, TLS fails');
  });
  it('shows a rung that was not measured apart from one that passes', () => {
    const { container } = render(Ladder, {
      standings: ['NOT_MEASURED', 'HOLDS', 'HOLDS', 'HOLDS', 'HOLDS', 'HOLDS', 'HOLDS'],
    });
    expect(container.querySelectorAll('path[stroke-dasharray]')).toHaveLength(1);
    expect(container.querySelectorAll('path[stroke="var(--proof)"]')).toHaveLength(6);
    expect(screen.getByRole('img')).toHaveAccessibleName('6 of 7 rungs pass');
  });
});

describe('marks', () => {
  it('have a shape of their own and a word', () => {
    const shapes = (['dark', 'set', 'work', 'wait', 'lit', 'done', 'fault'] as const).map((mark) => {
      const { container, unmount } = render(Mark, { mark });
      const svg = container.querySelector('svg')!;
      const shape = svg.innerHTML;
      expect(svg).toHaveAccessibleName();
      unmount();
      return shape;
    });
    expect(new Set(shapes).size).toBe(7);
  });
});

describe('time', () => {
  it('counts minutes and seconds, never below nothing', () => {
    expect(lasting('2026-11-23T09:00:00Z', Date.parse('2026-11-23T09:01:05Z'))).toBe('1:05');
    expect(lasting('2026-11-23T09:00:00Z', Date.parse('2026-11-23T08:59:00Z'))).toBe('0:00');
  });
});

describe('keys', () => {
  it('are not heard while somebody types', () => {
    let heard = 0;
    const listen = onKeys({ c: () => heard++ });
    const input = document.body.appendChild(document.createElement('input'));
    for (const target of [input, document.body]) {
      const event = new KeyboardEvent('keydown', { key: 'c' });
      Object.defineProperty(event, 'target', { value: target });
      listen(event);
    }
    expect(heard).toBe(1);
  });
});
