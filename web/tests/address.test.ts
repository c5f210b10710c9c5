import { expect, test } from 'vitest';
import { span, tail } from '../src/lib/address';

test('the end of an address tells it from its neighbours', () => {
  expect(tail('10.40.8.101')).toBe('.101');
  expect(tail('fd40:a4da:1:8::65')).toBe(':65');
  expect(tail('fd40:a4da:1:8:0:0:0:a')).toBe(':a');
});

test('a run is written by its ends', () => {
  expect(span([])).toBe('');
  expect(span(['10.40.8.101'])).toBe('.101');
  expect(span(['10.40.8.101', '10.40.8.102', '10.40.8.103'])).toBe('.101 – .103');
  expect(span(['10.40.8.101', '10.40.8.103'])).toBe('.101, … .103');
});
