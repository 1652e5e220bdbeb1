import { zodResolver } from '@hookform/resolvers/zod';
import type { House } from '@tersum/document';
import { FINDING_NAMES, FIRST_HOUSE, HouseSchema } from '@tersum/document';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { setHouse, useOwnTimes } from '../../api/work.js';
import { Figure, MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Actions, Field, Window } from '../../look/Window.js';

interface HouseProps {
  readonly house: House;
  onClose(): void;
}

const amount = (v: unknown): number | null => (v === '' || v === null ? null : Number(v));

/** Working hours, rate and rest; and what was measured of the own times. */
export function HouseWindow({ house, onClose }: HouseProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const { data: times } = useOwnTimes();
  const { register, handleSubmit, formState } = useForm<House>({
    resolver: zodResolver(HouseSchema),
    defaultValues: house,
  });
  const { errors } = formState;
  const save = handleSubmit(async (next) => {
    try {
      await setHouse(next);
      onClose();
    } catch (error) {
      setProblem(messageOf(error));
    }
  });
  const own = Object.entries(times ?? {}) as [
    keyof typeof FINDING_NAMES,
    { seconds: number; times: number },
  ][];
  return (
    <Window title="Hours and rate" isOpen onClose={onClose}>
      <form onSubmit={(event) => void save(event)} noValidate>
        {problem && <Warning>{problem}</Warning>}
        <Pair>
          <Field>
            <span>Hours a day for mending</span>
            <input type="number" step="0.25" {...register('hours', { valueAsNumber: true })} />
            {errors.hours && <em role="alert">{errors.hours.message}</em>}
          </Field>
          <Tick>
            <input type="checkbox" {...register('weekends')} /> Weekends too
          </Tick>
          <Field>
            <span>Price of an hour; empty for none</span>
            <input type="number" step="0.5" {...register('rate', { setValueAs: amount })} />
            {errors.rate && <em role="alert">{errors.rate.message}</em>}
          </Field>
          <Field>
            <span>Currency</span>
            <input {...register('currency')} />
            {errors.currency && <em role="alert">{errors.currency.message}</em>}
          </Field>
        </Pair>
        <Field>
          <span>Call for a break after so many minutes; empty for never</span>
          <input
            type="number"
            placeholder={`${FIRST_HOUSE.rest} is usual`}
            {...register('rest', { setValueAs: amount })}
          />
          {errors.rest && <em role="alert">{errors.rest.message}</em>}
        </Field>
        <Own>
          <h3>Your own times</h3>
          {own.length ? (
            <ul>
              {own.map(([kind, { seconds, times: count }]) => (
                <li key={kind}>
                  {FINDING_NAMES[kind][1]} <Figure>{seconds.toFixed(1)} s</Figure>
                  <small>median of {count}</small>
                </li>
              ))}
            </ul>
          ) : (
            <p>
              After three sweeps of a kind of finding its usual time is replaced by the one you
              take.
            </p>
          )}
        </Own>
        <Actions>
          <Push onPress={onClose}>Cancel</Push>
          <MainPush type="submit" isDisabled={formState.isSubmitting}>
            Save
          </MainPush>
        </Actions>
      </form>
    </Window>
  );
}

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 16px;
  align-items: start;
`;

const Tick = styled.label`
  display: flex;
  align-items: center;
  gap: 8px;
  padding-top: 24px;
  input {
    accent-color: ${look.done};
  }
`;

const Own = styled.section`
  border-top: 1px solid ${look.hairline};
  padding-top: 12px;
  font-size: 12px;
  h3 {
    font-weight: 600;
    margin-bottom: 4px;
  }
  p,
  small {
    color: ${look.inkSoft};
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    columns: 2;
  }
  small {
    margin-left: 6px;
    font-size: 11px;
  }
`;
