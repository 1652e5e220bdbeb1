import { zodResolver } from '@hookform/resolvers/zod';
import type { House } from '@tersum/document';
import { FIRST_HOUSE, HouseSchema } from '@tersum/document';
import { useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { setHouse } from '../../api/work.js';
import { MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Actions, Field, Window } from '../../look/Window.js';
import { TimesTable } from './TimesTable.js';

interface HouseProps {
  readonly house: House;
  onClose(): void;
}

const amount = (v: unknown): number | null => (v === '' || v === null ? null : Number(v));

/** Working hours, rate and rest, and how long findings take. */
export function HouseWindow({ house, onClose }: HouseProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const form = useForm<House>({ resolver: zodResolver(HouseSchema), defaultValues: house });
  const { register, handleSubmit, formState } = form;
  const { errors } = formState;
  const save = handleSubmit(async (next) => {
    try {
      await setHouse(next);
      onClose();
    } catch (error) {
      setProblem(messageOf(error));
    }
  });
  return (
    <Window title="Hours, rate and times" isOpen width={520} onClose={onClose}>
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
        <FormProvider {...form}>
          <TimesTable />
        </FormProvider>
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
