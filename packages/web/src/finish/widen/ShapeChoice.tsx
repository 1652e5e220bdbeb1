import styled from 'styled-components';
import { OneOf } from '../../look/OneOf.js';
import { look } from '../../look/theme.js';
import type { Wish } from './plan.js';
import { PRINT_WISHES, SHAPE_WISHES } from './plan.js';

/** The shapes people need: proportions side by side, prints in a list. */
export function ShapeChoice({ wish, onWish }: { readonly wish: Wish; onWish(wish: Wish): void }) {
  const names = Object.fromEntries(SHAPE_WISHES.map(({ name }) => [name, name]));
  return (
    <Line>
      <OneOf
        label="Wanted shape"
        options={names}
        value={wish.mm ? '' : wish.name}
        onChange={(name) => onWish(SHAPE_WISHES.find((w) => w.name === name)!)}
      />
      <select
        aria-label="Print size"
        value={wish.mm ? wish.name : ''}
        onChange={(event) => {
          const chosen = PRINT_WISHES.find((w) => w.name === event.target.value);
          if (chosen) onWish(chosen);
        }}
      >
        <option value="">Print size…</option>
        {PRINT_WISHES.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </Line>
  );
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  select {
    width: auto;
    min-height: 30px;
    color: ${look.ink};
  }
`;
