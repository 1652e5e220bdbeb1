import { Lru } from './lru.js';

describe('what was used last', () => {
  test('is kept up to a total weight, the longest unused goes first', () => {
    const kept = new Lru<string>(10);
    kept.set('a', 'A', 4);
    kept.set('b', 'B', 4);
    expect(kept.get('a')).toBe('A');
    kept.set('c', 'C', 4);
    expect(kept.get('b')).toBeUndefined();
    expect(kept.get('a')).toBe('A');
    expect(kept.get('c')).toBe('C');
  });

  test('one too heavy stays until the next, and weights follow replacement', () => {
    const kept = new Lru<number>(5);
    kept.set('big', 1, 50);
    expect(kept.get('big')).toBe(1);
    kept.set('small', 2, 1);
    expect(kept.get('big')).toBeUndefined();
    kept.set('small', 3, 5);
    kept.set('other', 4, 1);
    expect(kept.get('small')).toBeUndefined();
    expect(kept.get('other')).toBe(4);
  });
});
